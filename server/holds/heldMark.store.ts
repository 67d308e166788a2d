import { sql } from 'drizzle-orm'
import type { Database } from '../db/open'

/** How far the books were read that holds are played by. */
export interface HeldMark {
  movement: number
  check: number
  observation: number
  record: number
  decision: number
  contact: number
  entry: number
  water: number
  breach: number
  pairing: number
  nowMs: number
}

/** Tells what came into the books since they were read, however long ago it happened: what was played from there on is played anew. */
export function createHeldMarkStore({ orm, version, isWriting }: Database) {
  return {
    /** Another one as soon as anything is written. */
    version,
    /** Whether a write is under way that may still be undone. */
    isWriting,
    mark: (nowMs: number): HeldMark => ({
      ...orm.get<Omit<HeldMark, 'nowMs'>>(sql`SELECT (SELECT coalesce(max(seq), 0) FROM movement) AS movement, (SELECT coalesce(max(rowid), 0) FROM "check") AS "check", (SELECT coalesce(max(seq), 0) FROM observation) AS observation,
        (SELECT coalesce(max(rowid), 0) FROM bag_record) AS record, (SELECT coalesce(max(rowid), 0) FROM sign_decision) AS decision, (SELECT coalesce(max(rowid), 0) FROM contact) AS contact,
        (SELECT coalesce(max(rowid), 0) FROM hold_entry) AS entry, (SELECT coalesce(max(seq), 0) FROM tank_water) AS water, (SELECT coalesce(max(rowid), 0) FROM breach_decision) AS breach, (SELECT coalesce(max(seq), 0) FROM pairing_result) AS pairing`),
      nowMs,
    }),

    /** When the oldest happened of what was entered, corrected or taken back since a mark; null where nothing was. */
    oldestSince({ movement, check, observation, record, decision, contact, entry, water, breach, pairing, nowMs }: HeldMark): number | null {
      // What was taken back since, and a little before: a command may bear an earlier moment than a read that came first.
      const sinceMs = nowMs - 60_000
      // Plus signs: the oldest of the few new ones, not the first new one of all from the oldest on.
      return orm.get<{ atMs: number | null }>(
        sql`SELECT min(atMs) AS atMs FROM (SELECT min(+m.happened_at_ms) AS atMs FROM movement m WHERE m.seq > ${movement}
          UNION ALL SELECT min(+old.happened_at_ms) FROM movement m JOIN movement old ON old.id = m.reverses_id WHERE m.seq > ${movement}
          UNION ALL SELECT min(+happened_at_ms) FROM "check" WHERE rowid > ${check}
          UNION ALL SELECT min(+old.happened_at_ms) FROM "check" c CROSS JOIN "check" old ON old.replaced_by_id = c.id WHERE c.rowid > ${check}
          UNION ALL SELECT min(+happened_at_ms) FROM observation WHERE seq > ${observation}
          UNION ALL SELECT min(+old.happened_at_ms) FROM observation o CROSS JOIN observation old ON old.replaced_by_seq = o.seq WHERE o.seq > ${observation}
          UNION ALL SELECT min(+happened_at_ms) FROM bag_record WHERE rowid > ${record}
          UNION ALL SELECT min(+first_ms) FROM sign_decision WHERE rowid > ${decision}
          UNION ALL SELECT min(+at_ms) FROM contact WHERE rowid > ${contact}
          UNION ALL SELECT min(+happened_at_ms) FROM hold_entry WHERE rowid > ${entry}
          UNION ALL SELECT min(+since_ms) FROM tank_water WHERE seq > ${water}
          UNION ALL SELECT min(+c.at_ms) FROM breach_decision d JOIN contact c ON c.id = d.contact_id WHERE d.rowid > ${breach}
          UNION ALL SELECT min(+old.at_ms) FROM pairing_result r JOIN pairing_result old ON old.pairing_id = r.pairing_id WHERE r.seq > ${pairing}
          UNION ALL SELECT min(+first_ms) FROM sign_decision WHERE undone_at_ms >= ${sinceMs}
          UNION ALL SELECT min(+at_ms) FROM contact WHERE undone_at_ms >= ${sinceMs}
          UNION ALL SELECT min(+happened_at_ms) FROM hold_entry WHERE undone_at_ms >= ${sinceMs}
          UNION ALL SELECT min(+happened_at_ms) FROM observation WHERE undone_at_ms >= ${sinceMs}
          UNION ALL SELECT min(+c.at_ms) FROM breach_decision d JOIN contact c ON c.id = d.contact_id WHERE d.undone_at_ms >= ${sinceMs})`,
      ).atMs
    },
  }
}
export type HeldMarkStore = ReturnType<typeof createHeldMarkStore>
