import { createHash } from 'node:crypto'
import { readFileSync, renameSync, writeFileSync } from 'node:fs'
import { sql } from 'drizzle-orm'
import type { HoldRoom, HoldRules } from '../../core/holds/holdRoom'
import { readRoom, writeRoom } from '../../core/holds/roomText'
import type { Database } from '../db/open'
import type { HeldMark } from './heldMark.store'

/** Another number whenever rooms are written otherwise, or played otherwise: what was kept before is played anew. */
const format = 4

/** A room of held fish as it was at a minute, and how far the books had been read. */
export interface KeptRoom {
  at: number
  mark: HeldMark
  room: HoldRoom
}
export interface HeldFile {
  load(rules: HoldRules, names: string): KeptRoom | null
  save(kept: KeptRoom, names: string): void
}

/** Where the held fish of a room lie between two starts. */
export const heldFileOf = (databaseFile: string): string => `${databaseFile.replace(/\.sqlite$/, '')}.holds`
const hashOf = (words: string): string => createHash('sha256').update(words).digest('base64url')

/**
 * Keeps held fish beside the database, so that a start need not play years of days again. Nothing hangs on it: whatever
 * cannot be read, or was written of other books than these, is played anew.
 */
export function createHeldFile({ file, orm }: Pick<Database, 'file' | 'orm'>): HeldFile {
  /** The entries that a mark ends with: other books have others there. */
  const endOf = ({ movement, check, observation, entry }: HeldMark): string =>
    JSON.stringify(orm.get(sql`SELECT (SELECT id FROM movement WHERE seq = ${movement}) AS movement, (SELECT id FROM "check" WHERE rowid = ${check}) AS "check", (SELECT command_key FROM observation WHERE seq = ${observation}) AS observation, (SELECT id FROM hold_entry WHERE rowid = ${entry}) AS entry`))

  return {
    load(rules, names) {
      if (file === ':memory:') return null
      try {
        const [head = '', room = ''] = readFileSync(heldFileOf(file), 'utf8').split('\n')
        const { at, mark, names: hash, end, format: written, room: sum } = JSON.parse(head) as { at: number; mark: HeldMark; names: string; end: string; format: number; room: string }
        if (written !== format || hash !== hashOf(names) || sum !== hashOf(room) || end !== endOf(mark)) return null
        return { at, mark, room: readRoom(room, rules) }
      } catch {
        return null
      }
    },
    save({ at, mark, room }, names) {
      if (file === ':memory:') return
      try {
        const text = writeRoom(room)
        const path = heldFileOf(file)
        writeFileSync(`${path}.new`, `${JSON.stringify({ at, mark, names: hashOf(names), end: endOf(mark), format, room: hashOf(text) })}\n${text}`, { mode: 0o600 })
        renameSync(`${path}.new`, path)
      } catch {
        // The next start plays the days again; a disk that takes no more is said by whatever else wants to write.
      }
    },
  }
}
