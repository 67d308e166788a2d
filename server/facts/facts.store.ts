import { sql, type SQL } from 'drizzle-orm'
import type { FactEvent, Fight, KindCount, Look, Loss, LotStanding, Mark, OwnAnswer, Measured, NotedOfLot, SignDecision, TankSetUp, WaterFacts } from '../../core/facts/facts'
import { isHabit, mouthOf, type Mouth } from '../../core/rounds/roundRules'
import type { Sign } from '../../core/rounds/rounds.schema'
import type { Tolerance } from '../../core/setup/words'
import { listed } from '../db/listed'
import type { Database } from '../db/open'
import { isAlone, waterId } from '../room/waterOf'
import { arrivedAt, strainOf } from '../pools/ofLot'
import { handlingColumns, withHandling, type HandlingRow } from '../species/handling'

/** How far back what is read: everything older is in nobody's way, and a long history costs nothing. */
export interface Horizon {
  looksMs: number
  lossesMs: number
  fightsMs: number
}

type LookRow = Omit<Look, 'signs' | 'marks' | 'answers' | 'counts'> & { tankId: string; signs: string; marks: string | null; answers: string | null; counts: string | null }
type SetUpRow = Omit<TankSetUp, 'water' | 'agents' | 'isRetired'> & Omit<WaterFacts, 'id' | 'isAlone' | 'kind'> & { waterId: string; isAlone: number; water: WaterFacts['kind']; isRetired: number }
type LotRow = Omit<LotStanding, 'book' | 'noted' | 'isBeforeBooks' | 'hold'> & { isBeforeBooks: number } & Omit<NotedOfLot, 'atMs'> & { notedAtMs: number; tankId: string; firstMealDays: number | null; bearsHunger: string | null; firstFoods: string | null; shareSeenPercent: number | null; tolerance: Tolerance | null; habits: string; mouth: Mouth | null; usualMassG: number | null; tradedCm: number | null; adultCm: number | null } & HandlingRow

/** What is known of tanks, of all in use or of `only` one, each kind in one statement that goes by an index. */
export function createFactsStore({ orm, version }: Database) {
  const tanks = (only: string | null): SQL => (only === null ? sql`1` : sql`tank.id = ${only}`)
  const place = (only: string | null): SQL => (only === null ? sql`1` : sql`place_id = ${only}`)
  const newest = (where: SQL): SQL => sql`(SELECT id FROM "check" WHERE tank_id = tank.id AND replaced_by_id IS NULL AND ${where} ORDER BY happened_at_ms DESC, recorded_at_ms DESC, id DESC LIMIT 1)`

  return {
    version,

    /** Tanks that a command moved fish into or out of, or looked at. */
    tanksTouchedBy: (key: string): string[] =>
      orm
        .all<{ id: string }>(
          sql`SELECT tank.id FROM movement m JOIN tank ON tank.id IN (m.from_place_id, m.to_place_id) WHERE m.command_key = ${key}
            UNION SELECT tank_id FROM "check" WHERE id = (SELECT answer ->> '$.id' FROM command WHERE key = ${key})`,
        )
        .map(({ id }) => id),

    /** Tanks in rack order, those out of use as well; what is in their water follows from what was put into it. */
    tanks: (only: string | null): TankSetUp[] =>
      orm
        .all<SetUpRow>(
          sql`SELECT tank.id AS tankId, tank.code, tank.kind, tank.system_id AS systemId, tank.rack, tank.shelf, tank.position, tank.net_volume_l AS netVolumeL, tank.purpose, tank.state, tank.decor, tank.retired_at_ms IS NOT NULL AS isRetired,
              system.zone_id AS zoneId, (SELECT sources_rule FROM zone WHERE zone.id = system.zone_id) AS sourcesRule, ${waterId} AS waterId, ${isAlone} AS isAlone, system.water, system.temp_c AS tempC, system.salinity_ppt AS salinityPpt, system.ph, system.alkalinity_meq_l AS alkalinityMeqL
            FROM tank JOIN system ON system.id = tank.system_id WHERE ${tanks(only)} ORDER BY tank.rack, tank.shelf, tank.position`,
        )
        .map(({ waterId: id, isAlone: alone, water: kind, tempC, salinityPpt, ph, alkalinityMeqL, isRetired, ...tank }) => ({ ...tank, isRetired: isRetired === 1, agents: [], water: { id, isAlone: alone === 1, kind, tempC, salinityPpt, houseSalinityPpt: salinityPpt, ph, alkalinityMeqL } })),

    /** What was decided of signs, of those seen since a moment or known still. */
    decisions: (only: string | null, sinceMs: number): (SignDecision & { tankId: string })[] =>
      orm.all(sql`SELECT d.tank_id AS tankId, d.id, d.sign, d.lot_id AS lotId, d.decision AS "as", d.severity, d.first_ms AS firstMs, d.last_ms AS lastMs, d.until_ms AS untilMs, d.note, staff.name AS "by", d.happened_at_ms AS atMs
            FROM sign_decision d JOIN staff ON staff.id = d.staff_id WHERE d.last_ms >= ${sinceMs} AND d.undone_at_ms IS NULL AND ${only === null ? sql`1` : sql`d.tank_id = ${only}`} ORDER BY d.happened_at_ms DESC, d.id`),

    standing: (only: string | null): FactEvent[] =>
      orm
        .all<LotRow>(
          sql`SELECT tank.id AS tankId, lot.id AS lotId, lot.code AS lotCode, lot.species_id AS speciesId, species.name AS species, lot.origin, line.size_cm AS sizeCm, ${sql.raw(strainOf)} AS strain, lot.water, lot.created_at_ms AS notedAtMs,
              coalesce(stock.quantity, 0) AS quantity, coalesce(stock.since_ms, lot.created_at_ms) AS sinceMs, coalesce(e.millionths, 0) AS expected, ${sql.raw(arrivedAt)} AS arrivedAtMs, lot.is_before_books AS isBeforeBooks,
              species.first_meal_days AS firstMealDays, species.bears_hunger AS bearsHunger, coalesce((SELECT group_concat(value, ', ') FROM json_each(species.first_food_kinds)), species.first_foods) AS firstFoods,
              species.share_seen_percent AS shareSeenPercent, species.tolerance, species.habits, species.mouth, species.usual_mass_g AS usualMassG, species.traded_cm AS tradedCm, species.adult_cm AS adultCm, ${handlingColumns}
            FROM tank CROSS JOIN (SELECT place_id, lot_id FROM stock WHERE ${place(only)} UNION SELECT place_id, lot_id FROM expected_stock WHERE ${place(only)}) AS here ON here.place_id = tank.id
              LEFT JOIN stock ON stock.place_id = here.place_id AND stock.lot_id = here.lot_id LEFT JOIN expected_stock e ON e.place_id = here.place_id AND e.lot_id = here.lot_id JOIN lot ON lot.id = here.lot_id JOIN species ON species.id = lot.species_id LEFT JOIN line ON line.lot_id = lot.id WHERE ${tanks(only)}`,
        )
        .map((row) => {
          const { handling, tankId, isBeforeBooks, sizeCm, strain, water, notedAtMs, firstMealDays, bearsHunger, firstFoods, shareSeenPercent, tolerance, habits, mouth, usualMassG, tradedCm, adultCm, ...lot } = withHandling(row)
          const ways = { shareSeen: shareSeenPercent === null ? null : shareSeenPercent / 100, tolerance, habits: listed<string>(habits).filter(isHabit), mouth: mouth ?? mouthOf(usualMassG), massG: usualMassG, tradedCm, adultCm }
          return { kind: 'stands', tankId, lot: { ...lot, isBeforeBooks: isBeforeBooks === 1, hold: null, noted: { sizeCm, strain, water, atMs: notedAtMs }, book: { handling, firstMealDays, bearsHunger, firstFoods, ways } } }
        }),

    /** Looks since a moment; besides, of each tank, the newest, the newest of an earlier round, the newest of a fed tank and the newest with a meal. */
    looks: (only: string | null, sinceMs: number): FactEvent[] =>
      orm
        .all<LookRow>(
          sql`WITH seen(id) AS (SELECT c.id FROM tank CROSS JOIN "check" c ON c.tank_id = tank.id AND c.happened_at_ms >= ${sinceMs} AND c.replaced_by_id IS NULL WHERE ${tanks(only)}
              UNION SELECT ${newest(sql`1`)} FROM tank WHERE ${tanks(only)}
              UNION SELECT ${newest(sql`(round_on, round_number) < (SELECT round_on, round_number FROM "check" l WHERE l.tank_id = tank.id AND l.replaced_by_id IS NULL ORDER BY l.happened_at_ms DESC, l.recorded_at_ms DESC, l.id DESC LIMIT 1)`)} FROM tank WHERE ${tanks(only)}
              UNION SELECT ${newest(sql`ate <> 'not fed'`)} FROM tank WHERE ${tanks(only)}
              UNION SELECT ${newest(sql`ate IN ('all', 'most', 'some')`)} FROM tank WHERE ${tanks(only)})
            SELECT c.tank_id AS tankId, c.id, c.round_on AS "on", c.round_number AS number, c.ate, c.signs, c.answers, c.counts, c.seen, c.expected, c.note, c.happened_at_ms AS atMs, c.recorded_at_ms AS recordedAtMs,
              CASE WHEN c.signs <> '[]' THEN (SELECT json_group_array(json_object('sign', o.word, 'severity', o.severity, 'lotId', o.lot_id)) FROM observation o WHERE o.tank_id = c.tank_id AND o.kind = 'sign' AND o.happened_at_ms = c.happened_at_ms AND o.check_id = c.id) END AS marks
            FROM seen CROSS JOIN "check" c ON c.id = seen.id`,
        )
        .map(({ tankId, signs, marks, answers, counts, ...look }) => ({ kind: 'checked', tankId, replacesId: null, look: { ...look, signs: JSON.parse(signs) as Sign[], marks: listed<Mark>(marks), answers: listed<OwnAnswer>(answers), counts: listed<KindCount>(counts) } })),

    losses: (only: string | null, sinceMs: number): FactEvent[] =>
      orm
        .all<Omit<Loss, 'isAttributed'> & { tankId: string; isAttributed: number }>(
          sql`SELECT m.from_place_id AS tankId, m.id, m.lot_id AS lotId, lot.code AS lotCode, species.name AS species, species.poisons, m.quantity, m.cause, m.happened_at_ms AS atMs,
              EXISTS (SELECT 1 FROM pool_movement pm JOIN pool_event e ON e.id = pm.event_id WHERE pm.movement_id = m.id AND e.how = 'attributed') AS isAttributed
            FROM movement m JOIN lot ON lot.id = m.lot_id JOIN species ON species.id = lot.species_id
            WHERE m.kind = 'loss' AND m.happened_at_ms >= ${sinceMs} AND ${only === null ? sql`1` : sql`m.from_place_id = ${only}`} AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = m.id)`,
        )
        .map(({ tankId, isAttributed, ...loss }) => ({ kind: 'lost', tankId, loss: { ...loss, isAttributed: isAttributed === 1 } })),

    /** Looks at which fish were chased, and fish that were eaten. */
    fights: (only: string | null, sinceMs: number): (Fight & { tankId: string })[] =>
      orm.all(sql`SELECT o.tank_id AS tankId, o.check_id AS id, o.happened_at_ms AS atMs FROM observation o
            WHERE o.kind = 'sign' AND o.word IN ('chased', 'chasing') AND o.happened_at_ms >= ${sinceMs} AND o.replaced_by_seq IS NULL AND ${only === null ? sql`1` : sql`o.tank_id = ${only}`} GROUP BY o.check_id
          UNION ALL SELECT m.from_place_id, m.id, m.happened_at_ms FROM movement m
            WHERE m.cause = 'eaten' AND m.kind = 'loss' AND m.happened_at_ms >= ${sinceMs} AND ${only === null ? sql`1` : sql`m.from_place_id = ${only}`} AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = m.id)`),

    measured: (only: string | null, sinceMs: number): FactEvent[] =>
      orm
        .all<Measured & { tankId: string; kind: 'reading' | 'dose' }>(
          sql`SELECT tank.id AS tankId, o.kind, o.seq, o.word AS what, o.value, o.instrument, o.lot_id AS lotId, o.happened_at_ms AS atMs
            FROM tank CROSS JOIN observation o ON o.tank_id = tank.id AND o.kind IN ('reading', 'dose') AND o.happened_at_ms >= ${sinceMs} WHERE o.replaced_by_seq IS NULL AND ${tanks(only)}`,
        )
        .map(({ tankId, kind, ...measured }) => ({ kind: kind === 'dose' ? 'dosed' : 'read', tankId, measured, replacesSeq: null })),
  }
}
export type FactsStore = ReturnType<typeof createFactsStore>
