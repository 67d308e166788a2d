import type { Raw } from '../db/guard'

/** Columns that say by agent what *sensitive to* said in one word before; the old word for dyes meant the strong and the mild one. */
const columnsOf = { copper: ['copper'], salt: ['salt'], formalin: ['formalin'], 'medicine dyes': ['malachite_green', 'methylene_blue'] } as const

/**
 * Puts agents that rows of an earlier version name under *sensitive to* where they stand now. The migration does so for a
 * room that is here; this is for rows that come in with a full export of that time.
 */
export function moveAgentWords(raw: Raw): void {
  for (const [word, columns] of Object.entries(columnsOf)) {
    raw.prepare(`UPDATE species SET ${columns.map((column) => `${column} = coalesce(${column}, 'forbidden')`).join(', ')} WHERE EXISTS (SELECT 1 FROM json_each(species.sensitivities) WHERE value = ?)`).run(word)
  }
  raw.exec(`UPDATE species SET sensitivities = (SELECT json_group_array(value) FROM json_each(species.sensitivities) WHERE value NOT IN ('copper', 'salt', 'formalin', 'medicine dyes')) WHERE sensitivities <> '[]'`)
}
