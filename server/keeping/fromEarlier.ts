import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Raw } from '../db/guard'
import { migrationsFolder } from '../db/open'

/**
 * Fills what rows of an earlier version do not say and the migration fills for a room that is here: this is for rows that
 * come in with a full export of that time.
 * @param missing - tables that the export did not have.
 */
export function fillFromEarlier(raw: Raw, missing: readonly string[]): void {
  raw.exec(`UPDATE system SET sharing = 'one water' WHERE sharing IS NULL AND sump_l > 0`)
  raw.exec(`UPDATE tank_override SET lot_id = (SELECT lot_id FROM line WHERE line.id = tank_override.line_id) WHERE lot_id IS NULL AND line_id IS NOT NULL`)
  raw.exec(`INSERT OR IGNORE INTO round (id, "on", number, started_at_ms, started_by_id, last_at_ms, last_by_id)
    SELECT round_on || '-' || round_number, round_on, round_number, min(happened_at_ms), staff_id, max(happened_at_ms), staff_id FROM "check" GROUP BY round_on, round_number`)
  if (missing.includes('observation')) for (const statement of stepsOf('0012_facts', (step) => step.includes('-- Carried over'))) raw.exec(statement)
  for (const statement of stepsOf('0027_regimens', (step) => /`system`/.test(step))) raw.exec(statement)
}

/** Columns that are no more, for rows of exports that have them still; what they say is carried over at the end, and they go again. */
export function makeFormerColumns(raw: Raw): void {
  raw.exec('ALTER TABLE system ADD COLUMN agents text')
}

/** Some steps of a migration, in their order. */
const stepsOf = (migration: string, isOne: (step: string) => boolean): string[] => readFileSync(join(migrationsFolder, `${migration}.sql`), 'utf8').split('--> statement-breakpoint').filter(isOne)
