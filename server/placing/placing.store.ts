import { and, desc, eq, sql } from 'drizzle-orm'
import { eachApart } from '../../core/collections/eachApart'
import { groupBy } from '../../core/collections/groupBy'
import { changesTankWater, isMadeReady } from '../../core/bench/runPlan'
import { fightsSince } from '../../core/facts/askFacts'
import { runningDay } from '../../core/holds/holdDay'
import type { LotFacts, NotedOfLot, TankFacts } from '../../core/facts/facts'
import type { Overruled } from '../../core/placing/overruled'
import { animalAs, sizeHoldsDays } from '../../core/species/animalAs'
import type { RegisterValues } from '../../core/setup/registers'
import { toleranceLevels, type Tolerance } from '../../core/setup/words'
import type { RescueView } from '../../core/today/todayView'
import type { BookedFish, Booking } from '../../core/tankChoice/bookings'
import type { Animal, ChoiceTank, Occupant } from '../../core/tankChoice/tankChoice'
import { run } from '../bench/bench.table'
import { openRunOf } from '../bench/onBench'
import { tankOverride } from '../crates/crates.table'
import type { Database } from '../db/open'
import { entriesById } from '../species/entriesById'
import { species } from '../species/species.table'

const dayMs = 86_400_000

/** Fish of a lot as choosing a tank looks at them. */
export interface LotAtHand {
  lotId: string
  animal: Animal
  supplier: string
  /** How much handling they bear; null where the book does not say. */
  tolerance?: Tolerance | null
}

/** Which bookings are looked past: those of the fish themselves. */
export interface LookingFor {
  nowMs: number
  /** What is known of the tanks that are asked about. */
  tanks: readonly TankFacts[]
  /** Days of its hold that a lot has served that is to come; null when it is not held. */
  heldDays: (lotId: string) => number | null
  /** How long a fight counts against a tank. */
  fightMemoryDays: number
  /** The run whose own fish come. */
  exceptRunId?: string | null
  /** The crate whose own lines are planned. */
  exceptCrateId?: string | null
  /** Lots that come, and from where: what stands of them in the tank itself does not meet itself. */
  coming?: readonly { lotId: string; placeId: string | null; quantity: number }[]
  /** Whether lines of other crates count as well; they do for plans, never for fish in the hand. */
  countsPlans: boolean
}

const toleranceOf = (entry: RegisterValues | undefined): Tolerance | null => toleranceLevels.find((level) => level === entry?.tolerance) ?? null

interface LotRow extends NotedOfLot {
  lotId: string
  /** 1 for fish of which no list says how they came: born here, or brought in at whatever size. */
  isOfNoCrate: number
  speciesId: string
  supplier: string
}

/** Fish of a crate are as long as they were traded for a while; of others nobody knows. */
const mayHaveGrown = ({ isOfNoCrate, atMs }: LotRow, nowMs: number): boolean => isOfNoCrate === 1 || nowMs - atMs > sizeHoldsDays * dayMs

const idsOf = (ids: readonly string[]) => sql`(SELECT value FROM json_each(${JSON.stringify(ids)}))`

/** What every check of fish and tanks looks at: who stands where, who is to come, what a lead allowed. */
export function createPlacingStore({ orm }: Database, planned: (nowMs: number) => readonly (Booking & { tankId: string })[]) {
  const speciesByIds = orm.select().from(species).where(sql`${species.id} IN (SELECT value FROM json_each(${sql.placeholder('ids')}))`).prepare()
  /** What the book says of these species, by id. */
  const entriesOf = (ids: readonly string[]): Map<string, RegisterValues> =>
    entriesById(ids.length === 0 ? [] : speciesByIds.all({ ids: JSON.stringify([...new Set(ids)]) }))

  const animalOf = (book: ReadonlyMap<string, RegisterValues>, { speciesId, sizeCm, strain, water, atMs }: NotedOfLot & { speciesId: string }, nowMs: number, isResident: boolean): Animal =>
    animalAs(book.get(speciesId) ?? {}, { sizeCm, strain, water, notedDaysAgo: (nowMs - atMs) / dayMs, isResident })

  /** Fish on open runs that go to a tank of the room, and tanks whose water a run changes. */
  function runBookings(): (Booking & { tankId: string })[] {
    const rows = orm.all<BookedFish & { runId: string }>(sql`SELECT x.runId, x.lotId, species.name AS species, sum(x.quantity) AS quantity FROM (
        SELECT run.id AS runId, stock.lot_id AS lotId, stock.quantity FROM run JOIN stock ON stock.place_id = run.id WHERE run.ended_at_ms IS NULL
        UNION ALL SELECT run.id, stock.lot_id, stock.quantity FROM run JOIN run_source s ON s.run_id = run.id JOIN place p ON p.id = s.place_id AND p.kind = 'bag' JOIN stock ON stock.place_id = s.place_id AND stock.lot_id = s.lot_id WHERE run.ended_at_ms IS NULL AND run.out_at_ms IS NULL
      ) x JOIN lot ON lot.id = x.lotId JOIN species ON species.id = lot.species_id WHERE x.quantity > 0 GROUP BY x.runId, x.lotId`)
    const byRun = groupBy(rows, ({ runId }) => runId)
    return orm.select({ id: run.id, number: run.number, tankId: run.tankId, plan: run.plan }).from(run).where(sql`${run.endedAtMs} IS NULL AND ${run.tankId} IS NOT NULL`).all().flatMap(({ id, number, tankId, plan }) => {
      const fish = (byRun.get(id) ?? []).map(({ lotId, species: name, quantity }) => ({ lotId, species: name, quantity }))
      // A plan that cannot be read may change anything.
      const isWhole = eachApart([plan], changesTankWater, () => true)[0] ?? true
      return fish.length > 0 || isWhole ? [{ id, tankId: String(tankId), plan: `run ${number}`, takes: isWhole ? ('whole' as const) : ('share' as const), isReady: true, fish, withCrate: isMadeReady(plan) ? crateOfRun(id) : null }] : []
    })
  }

  /** Lines of open crates that are planned for a tank, as far as their fish are still in bags, opened or shut. */
  const lineBookings = (): (Booking & { tankId: string })[] =>
    orm
      .all<{ crateId: string; number: number; tankId: string; lotId: string; species: string; due: number }>(sql`SELECT crate.id AS crateId, crate.number, line.tank_id AS tankId, line.lot_id AS lotId, species.name AS species, sum(CASE WHEN r.id IS NULL THEN bag.listed ELSE coalesce(stock.quantity, 0) END) AS due
        FROM crate CROSS JOIN line ON line.crate_id = crate.id AND line.tank_id IS NOT NULL JOIN lot ON lot.id = line.lot_id JOIN species ON species.id = lot.species_id JOIN bag ON bag.line_id = line.id
          LEFT JOIN bag_record r ON r.bag_id = bag.id AND r.undone_at_ms IS NULL LEFT JOIN stock ON stock.place_id = bag.id AND stock.lot_id = line.lot_id
        WHERE crate.closed_at_ms IS NULL AND ${openRunOf(sql`bag.id`)} IS NULL GROUP BY line.id HAVING due > 0 ORDER BY crate.number, line.position`)
      .map(({ crateId, number, tankId, lotId, species: name, due }) => ({ id: crateId, tankId, plan: `crate ${number}`, takes: 'share' as const, isReady: false, fish: [{ lotId, species: name, quantity: due }] }))

  /** Who counts on each tank, by its id: the one answer that choosing, the bench and the glass read. */
  function bookings(nowMs: number): Map<string, Booking[]> {
    const byPlan = groupBy([...runBookings(), ...lineBookings(), ...planned(nowMs)], ({ id, tankId }) => `${id} ${tankId}`)
    const merged = [...byPlan.values()].flatMap(([first, ...rest]) => (first ? [{ ...first, fish: [first, ...rest].flatMap(({ fish }) => fish) }] : []))
    return new Map([...groupBy(merged, ({ tankId }) => tankId)].map(([tankId, rows]) => [tankId, rows.map(({ tankId: _, ...booking }) => booking)]))
  }

  const crateOfRun = (runId: string): string | null => orm.get<{ crateId: string } | undefined>(sql`SELECT bag.crate_id AS crateId FROM run_source s JOIN bag ON bag.id = s.place_id WHERE s.run_id = ${runId} LIMIT 1`)?.crateId ?? null
  const crateOfLot = (lotId: string): string | null => orm.get<{ crateId: string } | undefined>(sql`SELECT crate_id AS crateId FROM line WHERE lot_id = ${lotId}`)?.crateId ?? null

  function bookedFor({ nowMs, exceptRunId = null, exceptCrateId = null, coming = [], countsPlans }: LookingFor): Map<string, Booking[]> {
    const crates = new Set([exceptCrateId, ...coming.map(({ lotId }) => crateOfLot(lotId))])
    const counts = ({ id, isReady }: Booking): boolean => id !== exceptRunId && id !== exceptCrateId && (isReady || countsPlans)
    const asSeen = (booking: Booking): Booking => (booking.withCrate && crates.has(booking.withCrate) ? { ...booking, takes: 'share' } : booking)
    const own = new Set(coming.map(({ lotId }) => lotId))
    const withoutOwn = (booking: Booking): Booking[] => {
      if (!booking.isPlan) return [booking]
      const fish = booking.fish.filter(({ lotId }) => !own.has(lotId))
      return fish.length > 0 ? [{ ...booking, fish }] : []
    }
    return new Map([...bookings(nowMs)].map(([tankId, all]) => [tankId, all.filter(counts).map(asSeen).flatMap(withoutOwn)]))
  }

  function lotRows(lotIds: readonly string[]): LotRow[] {
    return orm.all<LotRow>(sql`SELECT lot.id AS lotId, lot.species_id AS speciesId, lot.origin AS supplier, line.size_cm AS sizeCm, line.strain, lot.water, lot.created_at_ms AS atMs, line.id IS NULL AS isOfNoCrate FROM lot LEFT JOIN line ON line.lot_id = lot.id WHERE lot.id IN ${idsOf(lotIds)} ORDER BY lot.code`)
  }

  return {
    bookings,
    crateOfLot,

    /** Lots as they would come into a tank; `standsHere` where they are in the house already, and may have grown. */
    lots(lotIds: readonly string[], nowMs: number, standsHere = false): LotAtHand[] {
      const rows = lotRows(lotIds)
      const book = entriesOf(rows.map(({ speciesId }) => speciesId))
      return rows.map((row) => ({ lotId: row.lotId, supplier: row.supplier, tolerance: toleranceOf(book.get(row.speciesId)), animal: animalOf(book, row, nowMs, standsHere && mayHaveGrown(row, nowMs)) }))
    },

    /** Tanks with who stands in them and who is to come. */
    tanks(asked: LookingFor): ChoiceTank[] {
      const { nowMs, tanks, heldDays, coming = [] } = asked
      const booked = bookedFor(asked)
      const bookedLots = new Map(lotRows(tanks.flatMap(({ tankId }) => (booked.get(tankId) ?? []).flatMap(({ fish }) => fish.map(({ lotId }) => lotId)))).map((row) => [row.lotId, row]))
      const book = entriesOf([...tanks.flatMap(({ lots }) => lots), ...bookedLots.values()].map(({ speciesId }) => speciesId))
      const leaves = (tankId: string, lotId: string): number => coming.filter((each) => each.lotId === lotId && each.placeId === tankId).reduce((sum, { quantity }) => sum + quantity, 0)
      const toOccupant = (tankId: string, { lotId, speciesId, origin, quantity, noted, hold }: LotFacts): Occupant => ({ animal: animalOf(book, { speciesId, ...noted }, nowMs, true), quantity: quantity - leaves(tankId, lotId), supplier: origin, heldDays: runningDay(hold), restart: hold?.added ?? null, lotId })
      const toBooked = ({ plan, fish }: Booking): Occupant[] =>
        fish.flatMap(({ lotId, quantity }) => {
          const row = bookedLots.get(lotId)
          return row ? [{ animal: animalOf(book, row, nowMs, false), quantity, supplier: row.supplier, heldDays: heldDays(lotId), lotId, booked: plan }] : []
        })
      return tanks.map((tank) => {
        const { tankId: id, code, water, agents, zoneId, netVolumeL, purpose, state, lots } = tank
        const counted = booked.get(id) ?? []
        const { id: bodyOfWater, kind, tempC, salinityPpt, ph, alkalinityMeqL } = water
        return {
          ...{ id, code, waterId: bodyOfWater, water: kind, tempC, salinityPpt, ph, alkalinityMeqL, agents, zoneId, netVolumeL, purpose, state, bookings: counted },
          fights: Math.min(3, fightsSince(tank, nowMs - asked.fightMemoryDays * dayMs)),
          occupants: [...lots.map((lot) => toOccupant(id, lot)).filter(({ quantity }) => quantity > 0), ...counted.flatMap(toBooked)],
        }
      })
    },

    /** What was decided against rules for a lot in a tank. */
    overruled: (lotId: string, tankId: string): Overruled[] => orm.select({ codes: tankOverride.codes, broken: tankOverride.broken }).from(tankOverride).where(and(eq(tankOverride.lotId, lotId), eq(tankOverride.tankId, tankId))).all(),
    /** Why a lead put a lot into a tank against a rule; null when nobody did. */
    overrideReason: (lotId: string, tankId: string): string | null =>
      orm.select({ reason: tankOverride.reason }).from(tankOverride).where(and(eq(tankOverride.lotId, lotId), eq(tankOverride.tankId, tankId))).orderBy(desc(tankOverride.recordedAtMs)).get()?.reason ?? null,
    /** Fish that a keeper alone put somewhere against a rule, until a lead has looked at it; newest first. */
    rescues: (): RescueView[] =>
      orm.all(sql`SELECT o.command_key AS key, group_concat(DISTINCT species.name) AS species, tank.code AS tankCode, o.broken AS rules, o.reason, staff.name AS staffName, o.recorded_at_ms AS atMs
        FROM tank_override o JOIN tank ON tank.id = o.tank_id JOIN lot ON lot.id = o.lot_id JOIN species ON species.id = lot.species_id JOIN staff ON staff.id = o.staff_id
        WHERE o.is_rescue = 1 AND o.seen_at_ms IS NULL GROUP BY +o.command_key ORDER BY o.recorded_at_ms DESC`),
    seeRescue: (key: string, by: { seenById: string; seenAtMs: number }): boolean => orm.update(tankOverride).set(by).where(and(eq(tankOverride.commandKey, key), eq(tankOverride.isRescue, 1), sql`${tankOverride.seenAtMs} IS NULL`)).returning({ id: tankOverride.id }).all().length > 0,
    insertOverride: (values: typeof tankOverride.$inferInsert) => void orm.insert(tankOverride).values(values).run(),
  }
}
export type PlacingStore = ReturnType<typeof createPlacingStore>
