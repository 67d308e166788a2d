import { and, desc, eq, isNull, sql } from 'drizzle-orm'
import type { Ate } from '../../core/rounds/rounds.schema'
import type { KindCount, OwnAnswer } from '../../core/facts/facts'
import type { HistoryLook, ReadingView } from '../../core/room/tankHistory'
import type { PhotoView, PinView } from '../../core/room/roomView'
import { listed } from '../db/listed'
import type { Database } from '../db/open'
import { newId } from '../newId'
import { observation } from '../rounds/rounds.table'
import { staff } from '../staff/staff.table'
import { tankPhoto, tankPin } from './glass.table'

/** A look as it was recorded. */
export interface PastLook {
  atMs: number
  ate: Ate
  marks: HistoryLook['marks']
  answers: OwnAnswer[]
  counts: KindCount[]
  seen: number | null
  expected: number
}
type PastLookRow = Omit<PastLook, 'marks' | 'answers' | 'counts'> & Record<'marks' | 'answers' | 'counts', string | null>

/** Queries about what hangs on tanks, and how they fared. */
export function createGlassStore({ orm }: Database) {
  return {
    /** Notes that hang on tanks, by tank. */
    pins: (): { tankId: string; words: string }[] => orm.select({ tankId: tankPin.tankId, words: tankPin.words }).from(tankPin).where(isNull(tankPin.removedAtMs)).orderBy(tankPin.recordedAtMs).all(),
    pinsOf: (tankId: string): PinView[] => orm.select({ id: tankPin.id, words: tankPin.words, by: staff.name, atMs: tankPin.recordedAtMs }).from(tankPin).innerJoin(staff, eq(staff.id, tankPin.staffId)).where(and(eq(tankPin.tankId, tankId), isNull(tankPin.removedAtMs))).orderBy(tankPin.recordedAtMs).all(),
    insertPin: (row: Omit<typeof tankPin.$inferInsert, 'id'>): string => {
      const id = newId()
      orm.insert(tankPin).values({ id, ...row }).run()
      return id
    },
    removePin: (id: string, by: { removedById: string; removedAtMs: number }): boolean => orm.update(tankPin).set(by).where(and(eq(tankPin.id, id), isNull(tankPin.removedAtMs))).returning({ id: tankPin.id }).all().length > 0,

    photosOf: (tankId: string, most: number): PhotoView[] => orm.select({ id: tankPhoto.id, by: staff.name, atMs: tankPhoto.happenedAtMs }).from(tankPhoto).innerJoin(staff, eq(staff.id, tankPhoto.staffId)).where(and(eq(tankPhoto.tankId, tankId), isNull(tankPhoto.removedAtMs))).orderBy(desc(tankPhoto.happenedAtMs)).limit(most).all(),
    insertPhoto: (row: typeof tankPhoto.$inferInsert): void => void orm.insert(tankPhoto).values(row).run(),
    isPhoto: (id: string): boolean => orm.select({ id: tankPhoto.id }).from(tankPhoto).where(and(eq(tankPhoto.id, id), isNull(tankPhoto.removedAtMs))).get() !== undefined,
    removePhoto: (id: string, by: { removedById: string; removedAtMs: number }): boolean => orm.update(tankPhoto).set(by).where(and(eq(tankPhoto.id, id), isNull(tankPhoto.removedAtMs))).returning({ id: tankPhoto.id }).all().length > 0,

    insertReading: (row: { tankId: string; word: string; value: number; instrument: string | null; staffId: string; commandKey: string; happenedAtMs: number; recordedAtMs: number }): number => Number(orm.insert(observation).values({ kind: 'reading', ...row }).returning({ seq: observation.seq }).get().seq),
    /** A reading that was written wrongly stands for itself no more. */
    undoReading: (seq: number, undoneAtMs: number): boolean => orm.update(observation).set({ replacedBySeq: seq, undoneAtMs }).where(and(eq(observation.seq, seq), eq(observation.kind, 'reading'), isNull(observation.replacedBySeq))).returning({ seq: observation.seq }).all().length > 0,
    /** Readings of these tanks since a moment, the oldest first. */
    readings: (tankIds: readonly string[], sinceMs: number): ReadingView[] =>
      orm.all(sql`SELECT o.seq, o.word AS what, o.value, o.instrument, o.happened_at_ms AS atMs, staff.name AS by FROM json_each(${JSON.stringify(tankIds)}) t CROSS JOIN observation o ON o.tank_id = t.value AND o.kind = 'reading' AND o.happened_at_ms >= ${sinceMs} JOIN staff ON staff.id = o.staff_id WHERE o.replaced_by_seq IS NULL ORDER BY o.happened_at_ms, o.seq`),

    /** How many came into a tank, or left it, since a moment, the oldest first; what was taken back never was. */
    changes: (tankId: string, sinceMs: number): { atMs: number; change: number }[] =>
      orm.all(sql`SELECT m.happened_at_ms AS atMs, CASE WHEN m.to_place_id = ${tankId} THEN m.quantity ELSE -m.quantity END AS change FROM movement m
        WHERE m.seq IN (SELECT seq FROM movement WHERE from_place_id = ${tankId} AND happened_at_ms >= ${sinceMs} UNION ALL SELECT seq FROM movement WHERE to_place_id = ${tankId} AND happened_at_ms >= ${sinceMs})
          AND m.kind <> 'reversal' AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = m.id) ORDER BY m.happened_at_ms, m.seq`),
    /** What was seen at looks since a moment, the oldest first. */
    looks: (tankId: string, sinceMs: number): PastLook[] =>
      orm
        .all<PastLookRow>(
          sql`SELECT c.happened_at_ms AS atMs, c.ate, c.answers, c.counts, c.seen, c.expected,
              CASE WHEN c.signs <> '[]' THEN (SELECT json_group_array(json_object('sign', o.word, 'severity', o.severity)) FROM observation o WHERE o.tank_id = c.tank_id AND o.kind = 'sign' AND o.happened_at_ms = c.happened_at_ms AND o.check_id = c.id) END AS marks
            FROM "check" c WHERE c.tank_id = ${tankId} AND c.happened_at_ms >= ${sinceMs} AND c.replaced_by_id IS NULL ORDER BY c.happened_at_ms`,
        )
        .map(({ marks, answers, counts, ...look }) => ({ ...look, marks: listed(marks), answers: listed(answers), counts: listed(counts) })),
    toolSetsOf: (zoneId: string | null): string[] => orm.all<{ name: string }>(sql`SELECT name FROM tool_set WHERE zone_id = ${zoneId} AND retired_at_ms IS NULL ORDER BY name`).map(({ name }) => name),
  }
}
export type GlassStore = ReturnType<typeof createGlassStore>
