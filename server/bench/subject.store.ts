import { asc, eq, isNull, sql } from 'drizzle-orm'
import type { RunSource } from '../../core/bench/benchView'
import type { Agent } from '../../core/bench/specialRuns'
import type { BagFindings } from '../../core/crates/crateView'
import type { TankFacts } from '../../core/facts/facts'
import { countFish } from '../../core/ledger/stockView'
import type { Tolerance } from '../../core/setup/words'
import type { Water } from '../../core/room/room.schema'
import { shippingOf } from '../crates/shippingOf'
import { strainOf } from '../pools/ofLot'
import type { Database } from '../db/open'
import type { BenchFish } from '../../core/bench/fishRules'
import { benchFishColumns, toBenchFish, type BenchFishRow } from '../species/handling'
import { agent } from './bench.table'
import { openRunOf } from './onBench'

export interface SubjectSpecies {
  speciesId: string
  species: string
  waters: Water[]
  massG: number | null
  phMax: number | null
  tolerance: Tolerance | null
  temperament: string | null
}
export interface SubjectLine extends SubjectSpecies {
  lineId: string
  lotId: string
  crateId: string
  crateNumber: number
  tankId: string | null
  packedAtMs: number | null
  /** Usual shipping water of the supplier. */
  shippingTempC: number | null
  shippingSalinityPpt: number | null
  shippingPh: number | null
  shippingAlkalinityMeqL: number | null
  usualWater: Water | null
  hasWorkingPacks: boolean
  transitHours: number | null
}
export interface SubjectTank {
  id: string
  code: string
  netVolumeL: number | null
  water: Water
  /** Tanks of one body of water share it. */
  waterId: string
  agents: string[]
  isAlone: boolean
  tempC: number | null
  salinityPpt: number | null
  ph: number | null
  alkalinityMeqL: number | null
  fish: number
}
export interface SubjectBag extends RunSource {
  listed: number
  isOpened: number
  findings: Partial<BagFindings> | null
}

type RawLine = Omit<SubjectLine, 'waters' | 'hasWorkingPacks'> & { waters: string; hasWorkingPacks: number | null }
/** Lists are kept as JSON, answers as 0 and 1. */
function withLists<Row extends { waters: string; hasWorkingPacks?: number | null }>(row: Row | undefined): (Omit<Row, 'waters' | 'hasWorkingPacks'> & { waters: Water[]; hasWorkingPacks: boolean }) | null {
  return row ? { ...row, waters: JSON.parse(row.waters) as Water[], hasWorkingPacks: row.hasWorkingPacks === 1 } : null
}

const speciesColumns = sql`species.id AS speciesId, species.name AS species, CASE WHEN species.waters = '[]' AND species.water IS NULL AND lot.water IS NOT NULL THEN json_array(lot.water) ELSE species.waters END AS waters, species.usual_mass_g AS massG, species.ph_max AS phMax, species.tolerance, species.temperament`

/** What the books know of fish that are to be acclimated, and of where they go; `tankFacts` says what is known of a tank. */
export function createSubjectStore({ orm }: Database, tankFacts: (tankId: string) => TankFacts | null) {
  return {
    line: (lineId: string): SubjectLine | null =>
      withLists(orm.get<RawLine | undefined>(sql`SELECT line.id AS lineId, line.lot_id AS lotId, crate.id AS crateId, crate.number AS crateNumber, line.tank_id AS tankId, crate.packed_at_ms AS packedAtMs,
          ${sql.raw(shippingOf('shipping_temp_c'))} AS shippingTempC, ${sql.raw(shippingOf('shipping_salinity_ppt'))} AS shippingSalinityPpt, ${sql.raw(shippingOf('shipping_ph'))} AS shippingPh, ${sql.raw(shippingOf('shipping_alkalinity_meq_l'))} AS shippingAlkalinityMeqL, supplier.usual_water AS usualWater, supplier.transit_hours AS transitHours, crate.box ->> '$.packs' = 'working' AS hasWorkingPacks, ${speciesColumns}
        FROM line JOIN crate ON crate.id = line.crate_id JOIN supplier ON supplier.id = crate.supplier_id JOIN lot ON lot.id = line.lot_id JOIN species ON species.id = lot.species_id WHERE line.id = ${lineId}`)),
    /** Bags of a line that still hold fish or are still shut, and are on no open run. */
    bags: (lineId: string): SubjectBag[] =>
      orm
        .all<Omit<SubjectBag, 'findings'> & Record<string, unknown>>(
          sql`SELECT bag.id AS placeId, line.lot_id AS lotId, lot.code AS lotCode, species.name AS species, 'bag ' || bag.number AS "from", coalesce(stock.quantity, 0) AS quantity, bag.listed, r.id IS NOT NULL AS isOpened,
            r.alive, r.dead, r.concerns, r.body, r.behaviour, r.skin_temp_c AS skinTempC, r.water_temp_c AS waterTempC, r.salinity_ppt AS salinityPpt, r.salinity_by AS salinityBy, r.ph, r.ph_by AS phBy, r.ammonia_mg_l AS ammoniaMgL, r.has_binder AS hasBinder
          FROM bag JOIN line ON line.id = bag.line_id JOIN lot ON lot.id = line.lot_id JOIN species ON species.id = lot.species_id LEFT JOIN bag_record r ON r.bag_id = bag.id AND r.undone_at_ms IS NULL
            LEFT JOIN stock ON stock.place_id = bag.id AND stock.lot_id = line.lot_id
          WHERE bag.line_id = ${lineId} AND (r.id IS NULL OR stock.quantity > 0)
            AND ${openRunOf(sql`bag.id`)} IS NULL ORDER BY bag.number`,
        )
        .map(({ placeId, lotId, lotCode, species, from, quantity, listed, isOpened, concerns, hasBinder, ...found }) => ({
          ...{ placeId, lotId, lotCode, species, from, quantity, listed, isOpened },
          findings: isOpened ? ({ ...found, concerns: JSON.parse(String(concerns)) as string[], hasBinder: hasBinder === null ? null : hasBinder === 1 } as unknown as BagFindings) : null,
        })),
    /** What was found in every opened bag of a line, wherever its fish are now. */
    openedBags: (lineId: string): { lotId: string; alive: number; dead: number }[] =>
      orm.all(sql`SELECT line.lot_id AS lotId, r.alive, r.dead FROM bag JOIN line ON line.id = bag.line_id JOIN bag_record r ON r.bag_id = bag.id AND r.undone_at_ms IS NULL WHERE bag.line_id = ${lineId}`),
    /** Lines of a crate that are planned for a tank and whose opened bags wait for it. */
    company: (crateId: string, tankId: string): { lineId: string; species: string; bags: number; fish: number }[] =>
      orm.all(sql`SELECT line.id AS lineId, species.name AS species, count(*) AS bags, sum(stock.quantity) AS fish
        FROM bag JOIN line ON line.id = bag.line_id JOIN lot ON lot.id = line.lot_id JOIN species ON species.id = lot.species_id JOIN stock ON stock.place_id = bag.id AND stock.lot_id = line.lot_id AND stock.quantity > 0
        WHERE line.crate_id = ${crateId} AND line.tank_id = ${tankId} AND ${openRunOf(sql`bag.id`)} IS NULL GROUP BY line.id ORDER BY line.position`),
    /** A lot that stands in a tank. */
    lotInTank: (lotId: string, tankId: string): (SubjectSpecies & RunSource) | null =>
      withLists(orm.get<(Omit<SubjectSpecies, 'waters'> & { waters: string } & RunSource) | undefined>(sql`SELECT stock.place_id AS placeId, stock.lot_id AS lotId, lot.code AS lotCode, tank.code AS "from", stock.quantity, ${speciesColumns}
        FROM stock JOIN tank ON tank.id = stock.place_id JOIN lot ON lot.id = stock.lot_id JOIN species ON species.id = lot.species_id WHERE stock.lot_id = ${lotId} AND stock.place_id = ${tankId} AND stock.quantity > 0`)),
    /** How many fish of the kind that a lot is of stand in a tank, and of how many lots. */
    kindInTank: (lotId: string, tankId: string): { quantity: number; lots: number } =>
      orm.get(sql`SELECT coalesce(sum(stock.quantity), 0) AS quantity, count(*) AS lots FROM stock JOIN lot ON lot.id = stock.lot_id LEFT JOIN line ON line.lot_id = lot.id
        WHERE stock.place_id = ${tankId} AND (lot.species_id, coalesce(${sql.raw(strainOf)}, '')) = (SELECT lot.species_id, coalesce(${sql.raw(strainOf)}, '') FROM lot LEFT JOIN line ON line.lot_id = lot.id WHERE lot.id = ${lotId})`),
    /** A tank in use, as a run goes into it. */
    tank(tankId: string): SubjectTank | null {
      const known = tankFacts(tankId)
      if (!known || known.isRetired) return null
      const { code, netVolumeL, agents, lots, water: { id: bodyOfWater, kind, isAlone, tempC, salinityPpt, ph, alkalinityMeqL } } = known
      return { id: tankId, code, netVolumeL, agents, water: kind, waterId: bodyOfWater, isAlone, tempC, salinityPpt, ph, alkalinityMeqL, fish: countFish(lots) }
    },
    /** Mean temperature of the water of a crate's bags, other than these lines', that was read lately; null when none was. */
    otherBagsC: (crateId: string, lineIds: readonly string[], sinceMs: number): number | null =>
      orm.get<{ mean: number | null }>(sql`SELECT avg(r.water_temp_c) AS mean FROM bag_record r JOIN bag ON bag.id = r.bag_id WHERE bag.crate_id = ${crateId} AND r.undone_at_ms IS NULL AND r.water_temp_c IS NOT NULL AND r.happened_at_ms >= ${sinceMs}
        AND bag.line_id NOT IN (SELECT value FROM json_each(${JSON.stringify(lineIds)}))`)?.mean ?? null,
    /** Whether the tank's step of the crate's preparation was ticked. */
    wasMadeReady: (crateId: string, tankId: string): boolean => orm.get(sql`SELECT 1 AS yes FROM prepared WHERE crate_id = ${crateId} AND step = ${`tank-${tankId}-ready`}`) !== undefined,
    /** What the book says of the species of lots, each species once. */
    kindsOf: (lotIds: readonly string[]): BenchFish[] =>
      orm.all<BenchFishRow>(sql`SELECT ${benchFishColumns} FROM species WHERE species.id IN (SELECT species_id FROM lot WHERE lot.id IN (SELECT value FROM json_each(${JSON.stringify(lotIds)}))) ORDER BY species.name`).map(toBenchFish),
    agents: (): Agent[] => orm.select().from(agent).where(isNull(agent.retiredAtMs)).orderBy(asc(agent.name)).all().map(({ note: _, version: __, retiredAtMs: ___, ...row }) => row),
    agentById: (id: string): Agent | null => orm.select().from(agent).where(eq(agent.id, id)).get() ?? null,
  }
}
export type SubjectStore = ReturnType<typeof createSubjectStore>
