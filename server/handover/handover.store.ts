import { eq, sql } from 'drizzle-orm'
import type { Happened, MovedFish } from '../../core/handover/handoverSections'
import type { HandoverNote } from '../../core/handover/handoverView'
import type { Database } from '../db/open'
import { handoverRead, handoverWord } from './handover.table'

/** Moments of one person that are looked through at once. */
const pageOf = 400

/** Queries about what others wrote since a moment: all go by when their command was recorded. */
export function createHandoverStore({ orm }: Pick<Database, 'orm'>) {
  /** Commands of others since then. */
  const since = (sinceMs: number, staffId: string) => sql`command c JOIN staff ON staff.id = c.staff_id AND c.recorded_at_ms > ${sinceMs} AND c.staff_id <> ${staffId}`
  return {
    /** When somebody recorded something, newest first, page by page. */
    *timesOf(staffId: string, fromMs: number): Generator<number> {
      for (let beforeMs = Number.MAX_SAFE_INTEGER; ; ) {
        const rows = orm.all<{ atMs: number }>(sql`SELECT DISTINCT recorded_at_ms AS atMs FROM command WHERE staff_id = ${staffId} AND recorded_at_ms >= ${fromMs} AND recorded_at_ms < ${beforeMs} AND name <> 'pollProbes' ORDER BY recorded_at_ms DESC LIMIT ${pageOf}`)
        for (const { atMs } of rows) yield atMs
        if (rows.length < pageOf) return
        beforeMs = rows.at(-1)?.atMs ?? 0
      }
    },
    /** Whether anybody else works here. */
    hasOthers: (staffId: string): boolean => orm.get<{ n: number } | undefined>(sql`SELECT 1 AS n FROM staff WHERE id <> ${staffId} AND retired_at_ms IS NULL LIMIT 1`) !== undefined,
    readUntil: (staffId: string): number | null => orm.get<{ untilMs: number | null }>(sql`SELECT max(until_ms) AS untilMs FROM handover_read WHERE staff_id = ${staffId}`).untilMs,
    insertRead: (row: typeof handoverRead.$inferInsert) => void orm.insert(handoverRead).values(row).run(),

    words: (sinceMs: number, staffId: string): HandoverNote[] =>
      orm.all(sql`SELECT w.id, staff.name AS "by", w.at_ms AS atMs, w.words FROM handover_word w JOIN staff ON staff.id = w.staff_id WHERE w.at_ms > ${sinceMs} AND w.staff_id <> ${staffId} AND w.removed_at_ms IS NULL ORDER BY w.at_ms DESC`),
    /** What somebody left themselves and nobody took off. */
    wordsOf: (staffId: string, fromMs: number): HandoverNote[] =>
      orm.all(sql`SELECT w.id, staff.name AS "by", w.at_ms AS atMs, w.words FROM handover_word w JOIN staff ON staff.id = w.staff_id WHERE w.at_ms >= ${fromMs} AND w.staff_id = ${staffId} AND w.removed_at_ms IS NULL ORDER BY w.at_ms DESC`),
    word: (id: string) => orm.select().from(handoverWord).where(eq(handoverWord.id, id)).get() ?? null,
    insertWord: (row: typeof handoverWord.$inferInsert) => void orm.insert(handoverWord).values(row).run(),
    removeWord: (id: string, removed: { removedById: string; removedAtMs: number }) => void orm.update(handoverWord).set(removed).where(eq(handoverWord.id, id)).run(),

    moved: (sinceMs: number, staffId: string): MovedFish[] =>
      orm.all(sql`SELECT m.kind, m.quantity, species.name AS species, a.code AS "from", b.code AS "to", m.cause, m.reason, staff.name AS "by" FROM ${since(sinceMs, staffId)} JOIN movement m ON m.command_key = c.key
        JOIN lot ON lot.id = m.lot_id JOIN species ON species.id = lot.species_id LEFT JOIN tank a ON a.id = m.from_place_id LEFT JOIN tank b ON b.id = m.to_place_id
        WHERE m.kind <> 'reversal' AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = m.id) ORDER BY m.seq`),
    pins: (sinceMs: number, staffId: string): Happened['pins'] =>
      orm.all(sql`SELECT tank.code AS tankCode, p.words, staff.name AS "by" FROM tank_pin p JOIN tank ON tank.id = p.tank_id JOIN staff ON staff.id = p.staff_id WHERE p.recorded_at_ms > ${sinceMs} AND p.staff_id <> ${staffId} AND p.removed_at_ms IS NULL ORDER BY p.recorded_at_ms`),
    runs: (sinceMs: number, staffId: string): Happened['runs'] =>
      orm.all<{ id: string; number: number; species: string; isEnded: number; by: string }>(
        sql`SELECT run.id, run.number, (SELECT group_concat(DISTINCT species.name) FROM run_source s JOIN lot ON lot.id = s.lot_id JOIN species ON species.id = lot.species_id WHERE s.run_id = run.id) AS species, run.ended_at_ms IS NOT NULL AS isEnded, staff.name AS "by"
          FROM ${since(sinceMs, staffId)} JOIN run ON run.id = c.answer ->> '$.id' WHERE c.name = 'startRun' ORDER BY run.number`,
      ).map((row) => ({ ...row, isEnded: row.isEnded === 1, species: row.species.replaceAll(',', ', ') })),
    chores: (sinceMs: number, staffId: string): Happened['chores'] =>
      orm.all(sql`SELECT chore.name AS chore, d.place, staff.name AS "by" FROM ${since(sinceMs, staffId)} JOIN chore_done d ON d.id = c.answer ->> '$.id' AND d.undone_at_ms IS NULL JOIN chore ON chore.id = d.chore_id WHERE c.name = 'doChore' ORDER BY d.happened_at_ms`),
    fed: (sinceMs: number, staffId: string): Happened['fed'] =>
      orm.all(sql`SELECT coalesce(feed.name, 'feed of the day') AS feed, t.feed_on AS "on", count(*) AS racks, group_concat(DISTINCT staff.name) AS "by" FROM ${since(sinceMs, staffId)} JOIN kitchen_tick t ON t.id = c.answer ->> '$.id' AND t.step = 'give' AND t.undone_at_ms IS NULL
        LEFT JOIN feed ON feed.id = t.feed_id WHERE c.name = 'tickKitchen' GROUP BY t.feed_on, t.feed_id ORDER BY t.feed_on`),
    breaches: (sinceMs: number, staffId: string): { kind: string; note: string | null; by: string }[] =>
      orm.all(sql`SELECT k.kind, k.note, staff.name AS "by" FROM ${since(sinceMs, staffId)} JOIN contact k ON k.command_key = c.key WHERE k.is_planned = 0 AND k.undone_at_ms IS NULL ORDER BY k.at_ms`),
    written: (sinceMs: number, staffId: string): Happened['written'] => orm.all(sql`SELECT c.name, count(*) AS times FROM ${since(sinceMs, staffId)} GROUP BY c.name ORDER BY c.name`),
  }
}
export type HandoverStore = ReturnType<typeof createHandoverStore>
