import { eq, sql } from 'drizzle-orm'
import type { HouseFood } from '../../core/kitchen/houseFoods'
import type { KitchenStep } from '../../core/kitchen/kitchen.schema'
import type { OrderView, TickView } from '../../core/kitchen/kitchenView'
import type { StockChange } from '../../core/kitchen/larder'
import type { FedSystem } from '../../core/kitchen/smallWaters'
import type { Mouth } from '../../core/rounds/roundRules'
import { listed } from '../db/listed'
import type { Database } from '../db/open'
import { newId } from '../newId'
import { feedingOrder, foodStock, given, kitchenTick } from './kitchen.table'

type FoodRow = Omit<HouseFood, 'mouths' | 'servesAs'> & { mouths: string; servesAs: string }
/** A feed of the register. */
export interface FeedRow {
  id: string
  name: string
  hour: number
  minute: number | null
  dayPercent: number
}
export interface OrderRow extends OrderView {
  /** Code and species of the lot, or code of the tank. */
  whom: string
}

/** Queries of the kitchen. */
export function createKitchenStore({ orm, version }: Pick<Database, 'orm' | 'version'>) {
  return {
    version,
    feeds: (): FeedRow[] => orm.all(sql`SELECT id, name, hour, minute, day_percent AS dayPercent FROM feed WHERE retired_at_ms IS NULL ORDER BY hour, coalesce(minute, 0), name`),
    foods: (): HouseFood[] =>
      orm
        .all<FoodRow>(
          sql`SELECT id, name, kind, thaw_minutes AS thawMinutes, piece_g AS pieceG, dry_percent AS dryPercent, protein_percent AS proteinPercent, mouths, out_minutes AS outMinutes, serves_as AS servesAs,
              (SELECT after FROM food_stock s WHERE s.food_id = food.id ORDER BY s.seq DESC LIMIT 1) AS pieces FROM food WHERE retired_at_ms IS NULL ORDER BY name`,
        )
        .map(({ mouths, servesAs, ...food }) => ({ ...food, mouths: listed<Mouth>(mouths), servesAs: listed<string>(servesAs) })),
    piecesOf: (foodId: string): number | null => orm.get<{ after: number } | undefined>(sql`SELECT after FROM food_stock WHERE food_id = ${foodId} ORDER BY seq DESC LIMIT 1`)?.after ?? null,
    isFood: (id: string): boolean => orm.get<{ n: number } | undefined>(sql`SELECT 1 AS n FROM food WHERE id = ${id} AND retired_at_ms IS NULL`) !== undefined,
    systems: (): FedSystem[] => orm.all(sql`SELECT id, name, sump_l AS sumpL, filter FROM system WHERE retired_at_ms IS NULL`),

    ticks: (on: string, feedId: string): TickView[] =>
      orm.all(sql`SELECT t.id, t.step, t.what, -coalesce((SELECT sum(s.pieces) FROM food_stock s WHERE s.tick_id = t.id AND s.food_id = t.what), 0) AS pieces, staff.name AS "by", t.happened_at_ms AS atMs
        FROM kitchen_tick t JOIN staff ON staff.id = t.staff_id WHERE t.feed_on = ${on} AND t.feed_id = ${feedId} AND t.undone_at_ms IS NULL ORDER BY t.happened_at_ms, t.rowid`),
    openTick: (on: string, feedId: string, step: KitchenStep, what: string): string | null =>
      orm.get<{ id: string } | undefined>(sql`SELECT id FROM kitchen_tick WHERE feed_on = ${on} AND feed_id = ${feedId} AND step = ${step} AND what = ${what} AND undone_at_ms IS NULL`)?.id ?? null,
    tickById: (id: string) => orm.select().from(kitchenTick).where(eq(kitchenTick.id, id)).get() ?? null,
    insertTick: (row: typeof kitchenTick.$inferInsert) => void orm.insert(kitchenTick).values(row).run(),
    undoTick: (id: string, undone: { undoneAtMs: number; undoneById: string }) => void orm.update(kitchenTick).set(undone).where(eq(kitchenTick.id, id)).run(),
    /** What a tick took off the stock, by food. */
    takenBy: (tickId: string): { foodId: string; pieces: number }[] => orm.all(sql`SELECT food_id AS foodId, -sum(pieces) AS pieces FROM food_stock WHERE tick_id = ${tickId} GROUP BY food_id`),
    insertStock: (row: typeof foodStock.$inferInsert) => void orm.insert(foodStock).values(row).run(),
    /** Changes since a moment. */
    stockSince: (sinceMs: number): StockChange[] =>
      orm.all(sql`SELECT s.food_id AS foodId, s.pieces, s.after, s.why, staff.name AS "by", s.at_ms AS atMs FROM food_stock s JOIN staff ON staff.id = s.staff_id WHERE s.at_ms >= ${sinceMs} ORDER BY s.at_ms DESC, s.seq DESC`),

    insertGiven: (tickId: string, atMs: number, rows: readonly { tankId: string; lotId: string; foods: readonly string[] }[]): void => {
      for (const { tankId, lotId, foods } of rows) orm.insert(given).values({ id: newId(), tickId, tankId, lotId, foods: JSON.stringify(foods), atMs }).run()
    },
    /** Foods that lots were given since a moment, as far as it was not taken back. */
    givenSince: (sinceMs: number): { tankId: string; lotId: string; speciesId: string; foods: string[]; atMs: number }[] =>
      orm
        .all<{ tankId: string; lotId: string; speciesId: string; foods: string; atMs: number }>(
          sql`SELECT g.tank_id AS tankId, g.lot_id AS lotId, lot.species_id AS speciesId, g.foods, g.at_ms AS atMs FROM given g JOIN kitchen_tick t ON t.id = g.tick_id AND t.undone_at_ms IS NULL JOIN lot ON lot.id = g.lot_id WHERE g.at_ms >= ${sinceMs} ORDER BY g.at_ms DESC`,
        )
        .map((row) => ({ ...row, foods: listed<string>(row.foods) })),

    /** What is said of fish or tanks on a day. */
    orders: (on: string): OrderRow[] =>
      orm.all(sql`SELECT o.id, o.kind, o.lot_id AS lotId, o.tank_id AS tankId, food.name AS food, o.from_on AS fromOn, o.until_on AS untilOn, o.note, staff.name AS "by", coalesce(tank.code, lot.code || ' ' || species.name) AS whom
        FROM feeding_order o JOIN staff ON staff.id = o.staff_id LEFT JOIN food ON food.id = o.food_id LEFT JOIN tank ON tank.id = o.tank_id LEFT JOIN lot ON lot.id = o.lot_id LEFT JOIN species ON species.id = lot.species_id
        WHERE o.ended_at_ms IS NULL AND (o.until_on IS NULL OR o.until_on >= ${on}) AND o.from_on <= ${on} ORDER BY o.at_ms, o.id`),
    orderById: (id: string) => orm.select().from(feedingOrder).where(eq(feedingOrder.id, id)).get() ?? null,
    insertOrder: (row: typeof feedingOrder.$inferInsert) => void orm.insert(feedingOrder).values(row).run(),
    endOrder: (id: string, ended: { endedAtMs: number; endedById: string }) => void orm.update(feedingOrder).set(ended).where(eq(feedingOrder.id, id)).run(),
    isLot: (id: string): boolean => orm.get<{ n: number } | undefined>(sql`SELECT 1 AS n FROM lot WHERE id = ${id}`) !== undefined,
  }
}
export type KitchenStore = ReturnType<typeof createKitchenStore>
