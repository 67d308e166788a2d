import { and, desc, eq, isNull, sql } from 'drizzle-orm'
import type { TankPurpose } from '../../core/room/room.schema'
import type { KindInTank, TankToCount } from '../../core/stocktake/stocktakeView'
import type { Database } from '../db/open'
import { strainOf } from '../pools/ofLot'
import { stocktake, stocktakeCount, stocktakeTank } from './stocktake.table'

type TankRow = Omit<TankToCount, 'kinds'> & { purpose: TankPurpose | null }
/** A movement is where it happened; what takes another back, where that one happened: it never was. */
const happened = `coalesce((SELECT o.happened_at_ms FROM movement o WHERE o.id = m.reverses_id), m.happened_at_ms)`

/** Queries about stocktakes. */
export function createStocktakeStore({ orm }: Database) {
  const open = and(isNull(stocktake.bookedAtMs), isNull(stocktake.droppedAtMs))
  return {
    byId: (id: string) => orm.select().from(stocktake).where(eq(stocktake.id, id)).get() ?? null,
    underWay: () => orm.select().from(stocktake).where(open).orderBy(desc(stocktake.begunAtMs)).limit(1).get() ?? null,
    newest: () => orm.select().from(stocktake).where(isNull(stocktake.droppedAtMs)).orderBy(sql`${stocktake.bookedAtMs} IS NOT NULL`, desc(stocktake.begunAtMs)).limit(1).get() ?? null,
    insert: (row: typeof stocktake.$inferInsert) => void orm.insert(stocktake).values(row).run(),
    update: (id: string, values: Partial<typeof stocktake.$inferInsert>) => void orm.update(stocktake).set(values).where(eq(stocktake.id, id)).run(),
    nameOf: (staffId: string | null): string => orm.get<{ name: string } | undefined>(sql`SELECT name FROM staff WHERE id = ${staffId}`)?.name ?? '',

    /** Keeps what was counted in a tank instead of what was counted there before. */
    setTank(row: typeof stocktakeTank.$inferInsert, counts: readonly { speciesId: string; strain: string | null; counted: number }[]): void {
      const here = { stocktakeId: row.stocktakeId, tankId: row.tankId }
      orm.delete(stocktakeCount).where(and(eq(stocktakeCount.stocktakeId, row.stocktakeId), eq(stocktakeCount.tankId, row.tankId))).run()
      orm.insert(stocktakeTank).values(row).onConflictDoUpdate({ target: [stocktakeTank.stocktakeId, stocktakeTank.tankId], set: { source: row.source, countedAtMs: row.countedAtMs, countedById: row.countedById } }).run()
      for (const { speciesId, strain, counted } of counts) orm.insert(stocktakeCount).values({ ...here, speciesId, strain: strain ?? '', counted }).onConflictDoUpdate({ target: [stocktakeCount.stocktakeId, stocktakeCount.tankId, stocktakeCount.speciesId, stocktakeCount.strain], set: { counted: sql`counted + ${counted}` } }).run()
    },

    /** Tanks in use in rack order, counted or not. */
    tanks: (id: string): TankRow[] =>
      orm.all(sql`SELECT tank.id AS tankId, tank.code, tank.kind, tank.purpose, system.name AS systemName, system.water, t.source, t.counted_at_ms AS countedAtMs, staff.name AS countedBy
        FROM tank JOIN system ON system.id = tank.system_id LEFT JOIN stocktake_tank t ON t.stocktake_id = ${id} AND t.tank_id = tank.id LEFT JOIN staff ON staff.id = t.counted_by_id
        WHERE tank.retired_at_ms IS NULL OR t.tank_id IS NOT NULL ORDER BY tank.rack, tank.shelf, tank.position`),

    /** Kinds of fish in every tank, by the books of the moment it was counted (or now), and as they were counted. */
    kinds: (id: string): (KindInTank & { tankId: string })[] =>
      orm.all(sql`WITH counted AS (SELECT tank_id, counted_at_ms FROM stocktake_tank WHERE stocktake_id = ${id}),
          part(tank_id, lot_id, fish) AS (
            SELECT stock.place_id, stock.lot_id, stock.quantity FROM tank JOIN stock ON stock.place_id = tank.id
            UNION ALL SELECT c.tank_id, m.lot_id, m.quantity FROM counted c CROSS JOIN movement m ON m.from_place_id = c.tank_id AND m.happened_at_ms > c.counted_at_ms AND ${sql.raw(happened)} > c.counted_at_ms
            UNION ALL SELECT c.tank_id, m.lot_id, -m.quantity FROM counted c CROSS JOIN movement m ON m.to_place_id = c.tank_id AND m.happened_at_ms > c.counted_at_ms AND ${sql.raw(happened)} > c.counted_at_ms),
          booked AS (SELECT part.tank_id, lot.species_id, coalesce(${sql.raw(strainOf)}, '') AS strain, sum(part.fish) AS fish FROM part JOIN lot ON lot.id = part.lot_id LEFT JOIN line ON line.lot_id = lot.id GROUP BY 1, 2, 3 HAVING sum(part.fish) <> 0),
          each_kind AS (SELECT tank_id, species_id, strain FROM booked UNION SELECT tank_id, species_id, strain FROM stocktake_count WHERE stocktake_id = ${id})
        SELECT k.tank_id AS tankId, k.species_id AS speciesId, species.name AS species, nullif(k.strain, '') AS strain, max(0, coalesce(b.fish, 0)) AS booked,
          CASE WHEN c.tank_id IS NULL THEN NULL ELSE coalesce(n.counted, 0) END AS counted
        FROM each_kind k JOIN species ON species.id = k.species_id LEFT JOIN counted c ON c.tank_id = k.tank_id
          LEFT JOIN booked b ON b.tank_id = k.tank_id AND b.species_id = k.species_id AND b.strain = k.strain
          LEFT JOIN stocktake_count n ON n.stocktake_id = ${id} AND n.tank_id = k.tank_id AND n.species_id = k.species_id AND n.strain = k.strain
        ORDER BY booked DESC, species.name`),

    /** Tanks that fish were ever sold from. */
    soldFrom: (): ReadonlySet<string> => new Set(orm.all<{ id: string }>(sql`SELECT tank.id FROM tank WHERE EXISTS (SELECT 1 FROM movement m WHERE m.from_place_id = tank.id AND m.kind = 'release' AND m.reason = 'sold')`).map(({ id }) => id)),

    tankIdsByCode: (): ReadonlyMap<string, string> => new Map(orm.all<{ id: string; code: string }>(sql`SELECT id, code FROM tank WHERE retired_at_ms IS NULL`).map(({ id, code }) => [code.toUpperCase(), id])),
    suppliers: (): string[] => orm.all<{ name: string }>(sql`SELECT name FROM supplier ORDER BY name`).map(({ name }) => name),
    register: (): { name: string; otherNames: string | null; scientificName: string | null; waters: string; water: string | null }[] => orm.all(sql`SELECT name, other_names AS otherNames, scientific_name AS scientificName, waters, water FROM species ORDER BY name`),
  }
}
export type StocktakeStore = ReturnType<typeof createStocktakeStore>
