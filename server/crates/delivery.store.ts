import { and, eq, isNull, sql } from 'drizzle-orm'
import type { FoodOnHand, LineBook } from '../../core/crates/preparation'
import { animalAs } from '../../core/species/animalAs'
import type { RegisterValues } from '../../core/setup/registers'
import { figure, handlingOf, word, words } from '../../core/species/readEntry'
import type { ChoiceLine } from '../../core/tankChoice/tankChoice'
import type { Water } from '../../core/room/room.schema'
import type { Database } from '../db/open'
import { shippingOf } from './shippingOf'
import { food } from '../setup/setup.table'
import { entriesById } from '../species/entriesById'
import { species } from '../species/species.table'
import { staff } from '../staff/staff.table'
import { openRunOf } from '../bench/onBench'
import { isAlone } from '../room/waterOf'
import { prepared } from './crates.table'

/** A line as planning needs it: what it is, and where it is to go. */
export interface PlannedLine extends ChoiceLine {
  lotId: string
  tankId: string | null
  version: number
  /** Fish of it that are still in bags, opened or shut, and on no run. */
  open: number
  book: LineBook
}

const bookOf = (entry: RegisterValues): LineBook => ({
  ...{ firstFoods: word(entry.firstFoods), firstFoodKinds: words(entry.firstFoodKinds), shareSeenPercent: figure(entry.shareSeenPercent), bearsHunger: word(entry.bearsHunger) },
  ...{ needs: words(entry.needs), escapes: word(entry.escapes), law: words(entry.law), handling: handlingOf(entry) },
})

/** Queries for planning a delivery: lines with what the book knows, what is prepared, where tanks stand. */
export function createDeliveryStore({ orm }: Database) {
  const speciesOfCrate = orm.select().from(species).where(sql`${species.id} IN (SELECT species_id FROM line JOIN lot ON lot.id = line.lot_id WHERE line.crate_id = ${sql.placeholder('crateId')})`).prepare()

  return {
    lines(crateId: string): PlannedLine[] {
      const book = entriesById(speciesOfCrate.all({ crateId }))
      return orm
        .all<{ id: string; speciesId: string; count: number; supplier: string; tankId: string | null; version: number; sizeCm: number | null; strain: string | null; lotId: string; water: Water | null; open: number }>(
          sql`SELECT line.id, lot.species_id AS speciesId, line.tank_id AS tankId, line.version, supplier.name AS supplier, line.size_cm AS sizeCm, line.strain, lot.id AS lotId, lot.water,
            (SELECT coalesce(sum(CASE WHEN r.id IS NULL THEN bag.listed ELSE coalesce(stock.quantity, 0) END), 0) FROM bag LEFT JOIN bag_record r ON r.bag_id = bag.id AND r.undone_at_ms IS NULL LEFT JOIN stock ON stock.place_id = bag.id AND stock.lot_id = line.lot_id WHERE bag.line_id = line.id AND ${openRunOf(sql`bag.id`)} IS NULL) AS open,
            CASE WHEN line.count > 0 THEN line.count ELSE coalesce((SELECT sum(r.alive) FROM bag JOIN bag_record r ON r.bag_id = bag.id AND r.undone_at_ms IS NULL WHERE bag.line_id = line.id), 0) END AS count
          FROM line JOIN lot ON lot.id = line.lot_id JOIN crate ON crate.id = line.crate_id JOIN supplier ON supplier.id = crate.supplier_id
          WHERE line.crate_id = ${crateId} ORDER BY line.position`,
        )
        .filter(({ count }) => count > 0)
        .map(({ speciesId, sizeCm, strain, water, ...line }) => {
          const entry = book.get(speciesId) ?? {}
          return { ...line, book: bookOf(entry), animal: animalAs(entry, { sizeCm, strain, water, notedDaysAgo: 0, isResident: false }) }
        })
    },

    /** Foods that are kept, and what they serve as. */
    foods: (): FoodOnHand[] => orm.select({ name: food.name, servesAs: food.servesAs }).from(food).where(isNull(food.retiredAtMs)).orderBy(food.name).all(),

    shipping: (crateId: string): { tempC: number | null; salinityPpt: number | null; ph: number | null; usualWater: Water | null } =>
      orm.get(sql`SELECT ${sql.raw(shippingOf('shipping_temp_c'))} AS tempC, ${sql.raw(shippingOf('shipping_salinity_ppt'))} AS salinityPpt, ${sql.raw(shippingOf('shipping_ph'))} AS ph, usual_water AS usualWater FROM crate JOIN supplier ON supplier.id = crate.supplier_id WHERE crate.id = ${crateId}`) ?? { tempC: null, salinityPpt: null, ph: null, usualWater: null },

    /** Steps of the preparation that are done, by step. */
    doneSteps: (crateId: string): Map<string, { by: string; atMs: number }> =>
      new Map(
        orm.select({ step: prepared.step, by: staff.name, atMs: prepared.doneAtMs }).from(prepared).innerJoin(staff, eq(staff.id, prepared.staffId)).where(eq(prepared.crateId, crateId)).all().map(({ step, ...done }) => [step, done]),
      ),
    markDone: (values: typeof prepared.$inferInsert) => void orm.insert(prepared).values(values).onConflictDoNothing().run(),
    markOpen: (crateId: string, step: string) => void orm.delete(prepared).where(and(eq(prepared.crateId, crateId), eq(prepared.step, step))).run(),

    /** Where tanks stand and which tools serve them. */
    places: () =>
      orm.all<{ tankId: string; code: string; system: string; water: Water; tempC: number | null; salinityPpt: number | null; netVolumeL: number | null; isAlone: number; zone: string | null; toolSets: string | null }>(
        sql`SELECT tank.id AS tankId, tank.code, system.name AS system, system.water, system.temp_c AS tempC, system.salinity_ppt AS salinityPpt, tank.net_volume_l AS netVolumeL,
            ${isAlone} AS isAlone, zone.name AS zone, (SELECT group_concat(name, ', ') FROM tool_set WHERE tool_set.zone_id = zone.id AND tool_set.retired_at_ms IS NULL) AS toolSets
          FROM tank JOIN system ON system.id = tank.system_id LEFT JOIN zone ON zone.id = system.zone_id WHERE tank.retired_at_ms IS NULL`,
      ),
  }
}
export type DeliveryStore = ReturnType<typeof createDeliveryStore>
