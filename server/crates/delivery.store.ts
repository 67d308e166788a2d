import { and, desc, eq, isNull, sql } from 'drizzle-orm'
import { groupBy } from '../../core/collections/groupBy'
import type { FoodOnHand, LineBook } from '../../core/crates/preparation'
import { animalAs } from '../../core/species/animalAs'
import type { RegisterValues } from '../../core/setup/registers'
import { figure, handlingOf, word, words } from '../../core/species/readEntry'
import type { ChoiceLine, ChoiceTank, Occupant } from '../../core/tankChoice/tankChoice'
import type { TankPurpose, TankState, Water } from '../../core/room/room.schema'
import type { Database } from '../db/open'
import { food } from '../setup/setup.table'
import { species } from '../species/species.table'
import { staff } from '../staff/staff.table'
import { prepared, tankOverride } from './crates.table'

const dayMs = 86_400_000

/** A line as planning needs it: what it is, and where it is to go. */
export interface PlannedLine extends ChoiceLine {
  tankId: string | null
  version: number
  book: LineBook
}

const bookOf = (entry: RegisterValues): LineBook => ({
  ...{ firstFoods: word(entry.firstFoods), firstFoodKinds: words(entry.firstFoodKinds), shareSeenPercent: figure(entry.shareSeenPercent), bearsHunger: word(entry.bearsHunger) },
  ...{ needs: words(entry.needs), escapes: word(entry.escapes), law: words(entry.law), handling: handlingOf(entry) },
})

/** Queries for planning a delivery: lines with what the book knows, tanks with who stands in them. */
export function createDeliveryStore({ orm }: Database) {
  /** What the book says, by the id of the species. */
  const entries = (): Map<string, RegisterValues> => new Map(orm.select().from(species).all().map(({ id, createdAtMs: _, nameKey: __, version: ___, retiredAtMs: ____, ...entry }) => [id, entry]))

  return {
    lines(crateId: string): PlannedLine[] {
      const book = entries()
      return orm
        .all<{ id: string; speciesId: string; count: number; supplier: string; tankId: string | null; version: number; sizeCm: number | null; strain: string | null }>(
          sql`SELECT line.id, lot.species_id AS speciesId, line.tank_id AS tankId, line.version, supplier.name AS supplier, line.size_cm AS sizeCm, line.strain,
            CASE WHEN line.count > 0 THEN line.count ELSE coalesce((SELECT sum(r.alive) FROM bag JOIN bag_record r ON r.bag_id = bag.id AND r.undone_at_ms IS NULL WHERE bag.line_id = line.id), 0) END AS count
          FROM line JOIN lot ON lot.id = line.lot_id JOIN crate ON crate.id = line.crate_id JOIN supplier ON supplier.id = crate.supplier_id
          WHERE line.crate_id = ${crateId} ORDER BY line.position`,
        )
        .filter(({ count }) => count > 0)
        .map(({ speciesId, sizeCm, strain, ...line }) => {
          const entry = book.get(speciesId) ?? {}
          return { ...line, book: bookOf(entry), animal: animalAs(entry, { sizeCm, strain, notedDaysAgo: 0, isResident: false }) }
        })
    },

    /**
     * Tanks in use, in rack order, with who stands in them.
     * @param heldDays - days of its hold that a lot has served; null when it is not held.
     * @param crateId - its own fish do not count as occupants: they are what is being placed.
     */
    tanks(heldDays: (lotId: string) => number | null, crateId: string, fightsSinceMs: number, nowMs: number): ChoiceTank[] {
      const book = entries()
      const occupants = orm.all<{ tankId: string; lotId: string; speciesId: string; quantity: number; supplier: string; sizeCm: number | null; strain: string | null; sinceMs: number }>(
        sql`SELECT tank.id AS tankId, lot.id AS lotId, lot.species_id AS speciesId, stock.quantity, lot.origin AS supplier, line.size_cm AS sizeCm, line.strain, lot.created_at_ms AS sinceMs
          FROM tank JOIN stock ON stock.place_id = tank.id AND stock.quantity > 0 JOIN lot ON lot.id = stock.lot_id LEFT JOIN line ON line.lot_id = lot.id
          WHERE line.crate_id IS NULL OR line.crate_id <> ${crateId}`,
      )
      const byTank = groupBy(occupants, ({ tankId }) => tankId)
      const toOccupant = ({ lotId, speciesId, quantity, supplier, sizeCm, strain, sinceMs }: (typeof occupants)[number]): Occupant => ({
        ...{ animal: animalAs(book.get(speciesId) ?? {}, { sizeCm, strain, notedDaysAgo: (nowMs - sinceMs) / dayMs, isResident: true }), quantity, supplier },
        heldDays: heldDays(lotId),
      })
      return orm
        .all<Omit<ChoiceTank, 'occupants' | 'agents'> & { agents: string; purpose: TankPurpose | null; state: TankState | null }>(
          sql`SELECT tank.id, tank.code, CASE WHEN system.sump_l IS NULL THEN tank.id ELSE system.id END AS waterId, system.water, system.temp_c AS tempC, system.salinity_ppt AS salinityPpt, system.ph, system.alkalinity_meq_l AS alkalinityMeqL, system.agents, system.zone_id AS zoneId,
              tank.net_volume_l AS netVolumeL, tank.purpose, tank.state,
              (SELECT count(*) FROM "check" c WHERE c.tank_id = tank.id AND c.replaced_by_id IS NULL AND c.happened_at_ms >= ${fightsSinceMs} AND c.signs LIKE '%"chased"%')
                + (SELECT count(*) FROM movement m WHERE m.from_place_id = tank.id AND m.kind = 'loss' AND m.cause = 'eaten' AND m.happened_at_ms >= ${fightsSinceMs}) AS fights
            FROM tank JOIN system ON system.id = tank.system_id WHERE tank.retired_at_ms IS NULL ORDER BY tank.rack, tank.shelf, tank.position`,
        )
        .map(({ agents, ...tank }) => ({ ...tank, agents: JSON.parse(agents) as string[], fights: Math.min(3, tank.fights), occupants: (byTank.get(tank.id) ?? []).map(toOccupant) }))
    },

    /** Foods that are kept, and what they serve as. */
    foods: (): FoodOnHand[] => orm.select({ name: food.name, servesAs: food.servesAs }).from(food).where(isNull(food.retiredAtMs)).orderBy(food.name).all(),

    shipping: (crateId: string): { tempC: number | null; salinityPpt: number | null; ph: number | null; usualWater: Water | null } =>
      orm.get(sql`SELECT shipping_temp_c AS tempC, shipping_salinity_ppt AS salinityPpt, shipping_ph AS ph, usual_water AS usualWater FROM crate JOIN supplier ON supplier.id = crate.supplier_id WHERE crate.id = ${crateId}`) ?? { tempC: null, salinityPpt: null, ph: null, usualWater: null },

    /** Steps of the preparation that are done, by step. */
    doneSteps: (crateId: string): Map<string, { by: string; atMs: number }> =>
      new Map(
        orm.select({ step: prepared.step, by: staff.name, atMs: prepared.doneAtMs }).from(prepared).innerJoin(staff, eq(staff.id, prepared.staffId)).where(eq(prepared.crateId, crateId)).all().map(({ step, ...done }) => [step, done]),
      ),
    markDone: (values: typeof prepared.$inferInsert) => void orm.insert(prepared).values(values).onConflictDoNothing().run(),
    markOpen: (crateId: string, step: string) => void orm.delete(prepared).where(and(eq(prepared.crateId, crateId), eq(prepared.step, step))).run(),

    /** Why a lead planned a line into a tank against a rule; null when nobody did. */
    overrideReason: (lineId: string, tankId: string): string | null =>
      orm.select({ reason: tankOverride.reason }).from(tankOverride).where(and(eq(tankOverride.lineId, lineId), eq(tankOverride.tankId, tankId))).orderBy(desc(tankOverride.recordedAtMs)).get()?.reason ?? null,
    insertOverride: (values: typeof tankOverride.$inferInsert) => void orm.insert(tankOverride).values(values).run(),

    /** Where tanks stand and which tools serve them. */
    places: () =>
      orm.all<{ tankId: string; code: string; system: string; water: Water; tempC: number | null; salinityPpt: number | null; netVolumeL: number | null; isAlone: number; zone: string | null; toolSets: string | null }>(
        sql`SELECT tank.id AS tankId, tank.code, system.name AS system, system.water, system.temp_c AS tempC, system.salinity_ppt AS salinityPpt, tank.net_volume_l AS netVolumeL,
            system.sump_l IS NULL AS isAlone, zone.name AS zone, (SELECT group_concat(name, ', ') FROM tool_set WHERE tool_set.zone_id = zone.id AND tool_set.retired_at_ms IS NULL) AS toolSets
          FROM tank JOIN system ON system.id = tank.system_id LEFT JOIN zone ON zone.id = system.zone_id WHERE tank.retired_at_ms IS NULL`,
      ),
  }
}
export type DeliveryStore = ReturnType<typeof createDeliveryStore>
