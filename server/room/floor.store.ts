import { and, asc, eq, isNull, sql } from 'drizzle-orm'
import type { FloorSpot } from '../../core/room/floor'
import type { Water } from '../../core/room/room.schema'
import type { Spot } from '../../core/room/arrangeRack'
import type { Database } from '../db/open'
import { rack, sink, tank } from './room.table'

export type RackRow = typeof rack.$inferSelect

/** Queries about where racks and tanks stand. */
export function createFloorStore({ orm, version }: Database) {
  return {
    version,
    racks: (): RackRow[] => orm.select().from(rack).orderBy(asc(rack.name)).all(),
    sinks: (): FloorSpot[] => orm.select({ x: sink.x, y: sink.y }).from(sink).orderBy(sink.id).all(),
    /** Which zones and waters the tanks of each rack belong to. */
    belongings: (): { rack: string; zone: string | null; water: Water }[] => orm.all(sql`SELECT DISTINCT tank.rack, zone.name AS zone, system.water FROM tank JOIN system ON system.id = tank.system_id LEFT JOIN zone ON zone.id = system.zone_id WHERE tank.retired_at_ms IS NULL ORDER BY zone.name, system.water`),
    tanks: () => orm.select({ id: tank.id, code: tank.code, kind: tank.kind, rack: tank.rack, shelf: tank.shelf, position: tank.position, version: tank.version }).from(tank).where(isNull(tank.retiredAtMs)).orderBy(tank.rack, tank.shelf, tank.position).all(),
    keepRack: (row: RackRow): void => void orm.insert(rack).values(row).onConflictDoUpdate({ target: rack.name, set: row }).run(),
    keepSinks(sinks: readonly FloorSpot[]): void {
      orm.delete(sink).run()
      for (const spot of sinks) orm.insert(sink).values(spot).run()
    },
    /** Puts tanks into their new places. Each spot is held once at a time, so all of them leave for a spare one first. */
    placeTanks(placed: readonly ({ id: string } & Spot)[]): void {
      placed.forEach(({ id }, index) => orm.update(tank).set({ position: -1 - index }).where(eq(tank.id, id)).run())
      for (const { id, rack: name, shelf, position } of placed) orm.update(tank).set({ rack: name, shelf, position, version: sql`${tank.version} + 1` }).where(and(eq(tank.id, id), isNull(tank.retiredAtMs))).run()
    },
  }
}
export type FloorStore = ReturnType<typeof createFloorStore>
