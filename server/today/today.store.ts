import { sql } from 'drizzle-orm'
import type { RoomCounts } from '../../core/today/todayView'
import type { Database } from '../db/open'

export interface LotInTank {
  tankId: string
  tankCode: string
  lotId: string
  lotCode: string
  species: string
  quantity: number
  sinceMs: number
  firstMealDays: number | null
  bearsHunger: string | null
  firstFoods: string | null
}

/** Queries of what a room needs now. */
export function createTodayStore({ orm }: Database) {
  const ofTank = (only: string | null) => (only === null ? sql`` : sql`WHERE tank.id = ${only}`)
  return {
    lotsInTanks: (only: string | null): LotInTank[] =>
      orm.all(sql`SELECT tank.id AS tankId, tank.code AS tankCode, lot.id AS lotId, lot.code AS lotCode, species.name AS species, stock.quantity, stock.since_ms AS sinceMs,
          species.first_meal_days AS firstMealDays, species.bears_hunger AS bearsHunger,
          coalesce((SELECT group_concat(value, ', ') FROM json_each(species.first_food_kinds)), species.first_foods) AS firstFoods
        FROM tank CROSS JOIN stock ON stock.place_id = tank.id JOIN lot ON lot.id = stock.lot_id JOIN species ON species.id = lot.species_id ${ofTank(only)} ORDER BY tank.code, lot.code`),
    /** When the first bag of each lot was opened; only of lots that stand in a tank. */
    openedAt: (only: string | null): Map<string, number> =>
      new Map(
        orm
          .all<{ lotId: string; openedAtMs: number }>(
            sql`SELECT line.lot_id AS lotId, min(r.happened_at_ms) AS openedAtMs FROM tank CROSS JOIN stock ON stock.place_id = tank.id JOIN line ON line.lot_id = stock.lot_id
              JOIN bag ON bag.line_id = line.id JOIN bag_record r ON r.bag_id = bag.id AND r.undone_at_ms IS NULL ${ofTank(only)} GROUP BY line.lot_id`,
          )
          .map((row) => [row.lotId, row.openedAtMs]),
      ),
    /** By tank: the newest feeding response, and when anything was eaten last. */
    appetite: (): Map<string, { lastAnswer: 'all' | 'some' | 'none' | null; lastAnswerMs: number | null; lastMealMs: number | null }> =>
      new Map(
        orm
          .all<{ tankId: string; lastAnswer: 'all' | 'some' | 'none' | null; lastAnswerMs: number | null; lastMealMs: number | null }>(
            sql`SELECT tank.id AS tankId,
              (SELECT ate FROM "check" c WHERE c.tank_id = tank.id AND c.replaced_by_id IS NULL AND c.ate <> 'not fed' ORDER BY c.happened_at_ms DESC, c.recorded_at_ms DESC LIMIT 1) AS lastAnswer,
              (SELECT happened_at_ms FROM "check" c WHERE c.tank_id = tank.id AND c.replaced_by_id IS NULL AND c.ate <> 'not fed' ORDER BY c.happened_at_ms DESC, c.recorded_at_ms DESC LIMIT 1) AS lastAnswerMs,
              (SELECT happened_at_ms FROM "check" c WHERE c.tank_id = tank.id AND c.replaced_by_id IS NULL AND c.ate IN ('all', 'some') ORDER BY c.happened_at_ms DESC, c.recorded_at_ms DESC LIMIT 1) AS lastMealMs FROM tank`,
          )
          .map(({ tankId, ...row }) => [tankId, row]),
      ),
    /** Losses since a moment, by tank and lot, newest first; those taken back do not count. */
    lossesSince: (sinceMs: number) =>
      orm.all<{ tankCode: string; lotId: string; lotCode: string; species: string; quantity: number; lastAtMs: number; causes: string | null; poisons: string | null }>(
        sql`SELECT tank.code AS tankCode, lot.id AS lotId, lot.code AS lotCode, species.name AS species, sum(m.quantity) AS quantity, max(m.happened_at_ms) AS lastAtMs, group_concat(DISTINCT m.cause) AS causes, species.poisons
          FROM movement m JOIN tank ON tank.id = m.from_place_id JOIN lot ON lot.id = m.lot_id JOIN species ON species.id = lot.species_id
          WHERE m.kind = 'loss' AND m.happened_at_ms >= ${sinceMs} AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = m.id)
          GROUP BY tank.id, lot.id ORDER BY lastAtMs DESC`,
      ),
    counts: (): RoomCounts => {
      const row = orm.get<RoomCounts>(
        sql`SELECT (SELECT count(*) FROM tank WHERE retired_at_ms IS NULL) AS tanks, (SELECT count(*) FROM supplier WHERE retired_at_ms IS NULL) AS suppliers,
          (SELECT count(*) FROM species WHERE retired_at_ms IS NULL) AS species, (SELECT count(*) FROM crate) AS crates`,
      )
      return { tanks: row?.tanks ?? 0, suppliers: row?.suppliers ?? 0, species: row?.species ?? 0, crates: row?.crates ?? 0 }
    },
  }
}
export type TodayStore = ReturnType<typeof createTodayStore>
