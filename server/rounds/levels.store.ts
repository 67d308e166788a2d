import { sql } from 'drizzle-orm'
import { gapPpt, type AcclimationQuestion } from '../../core/acclimation/question'
import { crossingGapPpt } from '../../core/acclimation/schools'
import type { RunOfLot } from '../../core/rounds/lotEvents'
import { listed } from '../db/listed'
import type { Database } from '../db/open'

const hourMs = 3_600_000

interface RunRow {
  id: string
  lotId: string
  kind: RunOfLot['kind']
  schoolKey: string | null
  isDark: number
  question: string
  fromBag: number
  startedAtMs: number
  outAtMs: number | null
}

/** A run that cannot be reckoned explains no sign: what is seen after it counts in full. */
function crosses(question: string): boolean {
  try {
    return gapPpt(JSON.parse(question) as AcclimationQuestion) > crossingGapPpt
  } catch {
    return false
  }
}

/** Queries about what levels are judged by beside the facts of tanks: each goes by an index and reads days, not years. */
export function createLevelsStore({ orm, raw, version }: Database) {
  /** A plan is kept for good, so whether it is a crossing is reckoned once. */
  const crossings = new Map<string, boolean>()
  const isCrossing = ({ id, question }: RunRow): boolean => {
    const known = crossings.get(id) ?? crosses(question)
    crossings.set(id, known)
    return known
  }

  // Prepared once: they are asked of every water again after whatever is written.
  const runsOf = raw.prepare(`SELECT run.id, s.lot_id AS lotId, run.plan ->> '$.kind' AS kind, run.plan ->> '$.school.key' AS schoolKey, run.plan ->> '$.isDark' AS isDark, run.plan -> '$.question' AS question,
      EXISTS (SELECT 1 FROM bag WHERE bag.id = s.place_id) AS fromBag, run.started_at_ms AS startedAtMs, run.out_at_ms AS outAtMs
    FROM json_each(?1) AS asked CROSS JOIN run_source s ON s.lot_id = asked.value CROSS JOIN run ON run.id = s.run_id WHERE run.ended_at_ms IS NULL OR run.ended_at_ms >= ?2`)
  // Counts and sales are few beside moves and losses: their index by kind finds them.
  const countedSince = raw.prepare(`SELECT tankId, lotId, max(atMs) AS atMs FROM (
      SELECT m.from_place_id AS tankId, m.lot_id AS lotId, m.happened_at_ms AS atMs FROM movement m WHERE m.kind = 'count-correction' AND m.happened_at_ms >= ?1
      UNION ALL SELECT m.to_place_id, m.lot_id, m.happened_at_ms FROM movement m WHERE m.kind = 'count-correction' AND m.happened_at_ms >= ?1
      UNION ALL SELECT t.tank_id, stock.lot_id, t.counted_at_ms FROM stocktake JOIN stocktake_tank t ON t.stocktake_id = stocktake.id JOIN stock ON stock.place_id = t.tank_id WHERE stocktake.booked_at_ms >= ?1)
    GROUP BY tankId, lotId`)
  const soldSince = raw.prepare(`SELECT DISTINCT from_place_id AS tankId FROM movement WHERE kind = 'release' AND happened_at_ms >= ?1`)

  return {
    version,

    /** Runs that these lots were on since a moment. */
    runs: (lotIds: readonly string[], sinceMs: number, darkHours: number): { lotId: string; run: RunOfLot }[] =>
      (runsOf.all(JSON.stringify(lotIds), sinceMs) as RunRow[]).map((row) => ({
        lotId: row.lotId,
        run: { kind: row.kind, schoolKey: row.schoolKey, isDelivery: row.fromBag === 1, isCrossing: isCrossing(row), darkUntilMs: row.isDark && row.outAtMs !== null ? row.outAtMs + darkHours * hourMs : null, startedAtMs: row.startedAtMs, outAtMs: row.outAtMs },
      })),

    /** When fish of a lot were last counted in a tank, since a moment: a count that was booked, whatever it found. */
    counted: (sinceMs: number) => countedSince.all(sinceMs) as { tankId: string; lotId: string; atMs: number }[],

    /** Tanks from which fish were sold, sent out or given since a moment. */
    soldFrom: (sinceMs: number): string[] => (soldSince.all(sinceMs) as { tankId: string }[]).map(({ tankId }) => tankId),

    /** What sellers said of lots that stand in tanks, as it was written. */
    toldFoods: (): { lotId: string; ateBefore: string }[] => orm.all(sql`SELECT DISTINCT line.lot_id AS lotId, line.ate_before AS ateBefore FROM stock JOIN line ON line.lot_id = stock.lot_id WHERE line.ate_before IS NOT NULL`),

    /** Foods of the house with the words of the book that they serve as, and whether the last piece is gone. */
    foods: (): { name: string; servesAs: string[]; isOut: boolean }[] =>
      orm
        .all<{ name: string; servesAs: string; pieces: number | null }>(sql`SELECT name, serves_as AS servesAs, (SELECT after FROM food_stock s WHERE s.food_id = food.id ORDER BY s.seq DESC LIMIT 1) AS pieces FROM food WHERE retired_at_ms IS NULL`)
        .map(({ name, servesAs, pieces }) => ({ name, servesAs: listed<string>(servesAs), isOut: pieces === 0 })),

    /** Names of zones and systems, by id. */
    names: (): Map<string, string> => new Map(orm.all<{ id: string; name: string }>(sql`SELECT id, name FROM zone UNION ALL SELECT id, name FROM system`).map(({ id, name }) => [id, name])),
  }
}
export type LevelsStore = ReturnType<typeof createLevelsStore>
