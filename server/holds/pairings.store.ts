import { desc, eq, gte, sql } from 'drizzle-orm'
import type { Database } from '../db/open'
import { pairing, pairingResult, type PairingResult } from './holds.table'

export type PairingRow = typeof pairing.$inferSelect
/** A pairing with how it stands. */
export interface PairingStands extends PairingRow {
  result: PairingResult
  atMs: number | null
  reason: string | null
}

/** Queries about fish that are paired. */
export function createPairingsStore({ orm }: Database) {
  const stands = (row: PairingRow): PairingStands => {
    const newest = orm.select().from(pairingResult).where(eq(pairingResult.pairingId, row.id)).orderBy(desc(pairingResult.seq)).limit(1).get()
    return { ...row, result: newest?.result ?? 'running', atMs: newest?.atMs ?? null, reason: newest?.reason ?? null }
  }
  return {
    since: (startedMs: number): PairingStands[] => orm.select().from(pairing).where(gte(pairing.startedAtMs, startedMs)).orderBy(desc(pairing.startedAtMs)).all().map(stands),
    byId: (id: string): PairingStands | null => {
      const row = orm.select().from(pairing).where(eq(pairing.id, id)).get()
      return row ? stands(row) : null
    },
    insert: (row: typeof pairing.$inferInsert): void => void orm.insert(pairing).values(row).run(),
    insertResult: (row: typeof pairingResult.$inferInsert): void => void orm.insert(pairingResult).values(row).run(),
    /** Booked fish of a lot, and those of it in one tank. */
    fishOf: (lotId: string, tankId: string): { all: number; here: number } =>
      orm.get(sql`SELECT coalesce(sum(stock.quantity), 0) AS "all", coalesce(sum(CASE WHEN stock.place_id = ${tankId} THEN stock.quantity END), 0) AS here FROM stay JOIN stock ON stock.place_id = stay.place_id AND stock.lot_id = stay.lot_id WHERE stay.lot_id = ${lotId} AND stay.until_ms IS NULL`),
    /** Looks at a tank since a moment, oldest first. */
    looks: (tankId: string, sinceMs: number): number[] =>
      orm.all<{ atMs: number }>(sql`SELECT happened_at_ms AS atMs FROM "check" WHERE tank_id = ${tankId} AND happened_at_ms >= ${sinceMs} AND replaced_by_id IS NULL ORDER BY happened_at_ms`).map(({ atMs }) => atMs),
  }
}
export type PairingsStore = ReturnType<typeof createPairingsStore>
