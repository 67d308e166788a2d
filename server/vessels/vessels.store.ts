import { desc, eq, isNull, sql } from 'drizzle-orm'
import type { Database } from '../db/open'
import { newId } from '../newId'
import { strainOf } from '../pools/ofLot'
import { vessel, vesselWater } from './vessels.table'

/** Fish of a lot in a vessel. */
export interface LotInVessel {
  lotId: string
  speciesId: string
  species: string
  strain: string | null
  origin: string
  quantity: number
  sinceMs: number
}

/** Whose water was in which vessel, in the order of time. */
export interface VesselWater {
  vesselId: string
  tankId: string | null
  atMs: number
}

/** Queries about buckets and boxes. */
export function createVesselsStore({ orm }: Database) {
  return {
    inUse: () => orm.select().from(vessel).where(isNull(vessel.retiredAtMs)).orderBy(vessel.name).all(),
    byId: (id: string) => orm.select().from(vessel).where(eq(vessel.id, id)).get() ?? null,
    /** What stands in it now. */
    lotsIn: (id: string): LotInVessel[] =>
      orm.all(sql`SELECT stock.lot_id AS lotId, lot.species_id AS speciesId, species.name AS species, ${sql.raw(strainOf)} AS strain, lot.origin, stock.quantity, stock.since_ms AS sinceMs
        FROM stock JOIN lot ON lot.id = stock.lot_id JOIN species ON species.id = lot.species_id LEFT JOIN line ON line.lot_id = lot.id WHERE stock.place_id = ${id} AND stock.quantity > 0 ORDER BY stock.quantity DESC, lot.code`),
    /** The tank whose water it has; null where that is not one tank's. */
    tankOf: (id: string): string | null => orm.select({ tankId: vesselWater.tankId }).from(vesselWater).where(eq(vesselWater.vesselId, id)).orderBy(desc(vesselWater.atMs), desc(sql`rowid`)).get()?.tankId ?? null,
    /** The last tank whose water it had. */
    lastTankOf: (id: string): string | null => orm.select({ tankId: vesselWater.tankId }).from(vesselWater).where(sql`${vesselWater.vesselId} = ${id} AND ${vesselWater.tankId} IS NOT NULL`).orderBy(desc(vesselWater.atMs)).get()?.tankId ?? null,
    waters: (): VesselWater[] => orm.select({ vesselId: vesselWater.vesselId, tankId: vesselWater.tankId, atMs: vesselWater.atMs }).from(vesselWater).orderBy(vesselWater.atMs, sql`rowid`).all(),
    insertWater: (row: Omit<typeof vesselWater.$inferInsert, 'id'>) => void orm.insert(vesselWater).values({ id: newId(), ...row }).run(),
  }
}
export type VesselsStore = ReturnType<typeof createVesselsStore>
