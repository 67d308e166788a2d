import { sql } from 'drizzle-orm'
import type { ClaimState } from '../../core/crates/claim'
import type { Database } from '../db/open'

/** A line of a crate that was opened, with what came of its bags. */
export interface PaidLine {
  lotId: string
  crateId: string
  supplier: string
  billed: number
  priceEach: number | null
  /** Fish the opened bags were to hold, and held. */
  listed: number
  alive: number
  dead: number
  wrong: number
}

/** Queries about what losses cost. */
export function createMoneyStore({ orm }: Database) {
  return {
    lines: (): PaidLine[] =>
      orm.all(sql`SELECT line.lot_id AS lotId, crate.id AS crateId, supplier.name AS supplier, coalesce(line.billed, line.count) AS billed, line.price_each AS priceEach, sum(bag.listed) AS listed, sum(r.alive) AS alive, sum(r.dead) AS dead, sum(CASE WHEN r.mishap = 'wrong species' THEN r.alive ELSE 0 END) AS wrong
        FROM bag_record r JOIN bag ON bag.id = r.bag_id JOIN line ON line.id = bag.line_id JOIN crate ON crate.id = line.crate_id JOIN supplier ON supplier.id = crate.supplier_id WHERE r.undone_at_ms IS NULL GROUP BY line.id`),
    claims: (): { crateId: string; state: ClaimState; settled: number | null; sentAtMs: number | null; settledAtMs: number | null }[] =>
      orm.all(sql`SELECT crate_id AS crateId, state, settled_amount AS settled, sent_at_ms AS sentAtMs, settled_at_ms AS settledAtMs FROM claim`),
    /** Tanks in which fish stood on days of a window, and days on which somebody looked at them. */
    stays: (fromMs: number, toMs: number): { tankId: string; fromMs: number; untilMs: number | null }[] =>
      orm.all(sql`SELECT s.place_id AS tankId, s.from_ms AS fromMs, s.until_ms AS untilMs FROM stay s JOIN tank ON tank.id = s.place_id WHERE s.from_ms < ${toMs} AND coalesce(s.until_ms, ${toMs}) >= ${fromMs} AND coalesce(tank.purpose, '') <> 'customer' AND s.is_possible = 0`),
    looked: (fromMs: number, toMs: number): { tankId: string; atMs: number }[] => orm.all(sql`SELECT tank_id AS tankId, happened_at_ms AS atMs FROM "check" WHERE happened_at_ms >= ${fromMs} AND happened_at_ms < ${toMs} AND replaced_by_id IS NULL`),
  }
}
export type MoneyStore = ReturnType<typeof createMoneyStore>
