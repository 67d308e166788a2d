import { sql } from 'drizzle-orm'
import type { MovementKind } from '../../core/ledger/movement'
import type { RoomClock } from '../../core/room/roomAsOf'
import type { Database } from '../db/open'

/** A movement as it counts for a moment. */
export interface PastRow {
  seq: number
  kind: MovementKind
  lot: string
  from: string
  to: string
  n: number
  /** By the clock it was asked for. */
  atMs: number
}

/** Where a walk through the ledger stands. */
export interface Cursor {
  atMs: number
  seq: number
}

/** Reads the ledger in the order of either clock. */
export function createPastStore({ raw, orm, version }: Database) {
  const columns = 'm.seq, m.kind, m.lot_id AS lot, m.from_place_id AS "from", m.to_place_id AS "to", m.quantity AS n'
  const statements = {
    books: raw.prepare(`SELECT ${columns}, m.recorded_at_ms AS atMs FROM movement m WHERE m.seq > ? ORDER BY m.seq LIMIT ?`),
    happened: raw.prepare(`SELECT ${columns}, m.happened_at_ms AS atMs FROM movement m WHERE (m.happened_at_ms, m.seq) > (?, ?) AND m.kind <> 'reversal' AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = m.id) ORDER BY m.happened_at_ms, m.seq LIMIT ?`),
  }
  return {
    version,
    rows: (clock: RoomClock, after: Cursor, most: number): PastRow[] => (clock === 'books' ? statements.books.all(after.seq, most) : statements.happened.all(after.atMs, after.seq, most)) as PastRow[],
    /** When the earliest movement happened that was written, or is taken back, since an entry; null when none was. */
    touchedSince: (seq: number): { earliestMs: number | null; lastSeq: number } => {
      const row = orm.get<{ earliestMs: number | null; lastSeq: number | null }>(sql`SELECT min(coalesce(old.happened_at_ms, m.happened_at_ms)) AS earliestMs, max(m.seq) AS lastSeq FROM movement m LEFT JOIN movement old ON old.id = m.reverses_id WHERE m.seq > ${seq}`)
      return { earliestMs: row.earliestMs, lastSeq: row.lastSeq ?? seq }
    },
    lastSeq: (): number => orm.get<{ seq: number | null }>(sql`SELECT max(seq) AS seq FROM movement`).seq ?? 0,
    firstMs: (): number | null => orm.get<{ atMs: number | null }>(sql`SELECT min(happened_at_ms) AS atMs FROM movement`).atMs,
    /** What these lots are called, and for the books what they were called since when; the oldest first. */
    names: (lotIds: readonly string[]): { lot: string; species: string; recordedAt: number; isNow: number }[] =>
      orm.all(sql`SELECT l.value AS lot, species.name AS species, n.recorded_at_ms AS recordedAt, 0 AS isNow FROM json_each(${JSON.stringify(lotIds)}) l JOIN lot_name n ON n.lot_id = l.value JOIN species ON species.id = n.species_id
        UNION ALL SELECT l.value, species.name, lot.created_at_ms, 1 FROM json_each(${JSON.stringify(lotIds)}) l JOIN lot ON lot.id = l.value JOIN species ON species.id = lot.species_id ORDER BY isNow, recordedAt`),
  }
}
export type PastStore = ReturnType<typeof createPastStore>
