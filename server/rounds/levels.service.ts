import { TZDate } from '@date-fns/tz'
import { startOfDay } from 'date-fns'
import { groupBy } from '../../core/collections/groupBy'
import { holdOf, lossesSince } from '../../core/facts/askFacts'
import type { LotFacts, Measured, TankFacts } from '../../core/facts/facts'
import type { Limits } from '../../core/limits/houseLimits'
import { lotDays } from '../../core/pools/lotAge'
import { levelFlag } from '../../core/rounds/levelFlag'
import type { TankFlag } from '../../core/room/tankFlag'
import { levelAsked, type UnseenKind } from '../../core/rounds/levelAsked'
import type { LevelAsked, Neighbour } from '../../core/rounds/levelReason'
import type { RunOfLot } from '../../core/rounds/lotEvents'
import type { RoundRules } from '../../core/rounds/roundRules'
import { isIllness, roundState, type RoundState } from '../../core/rounds/roundState'
import { foodsKnown, type FoodsKnown } from '../../core/rounds/stopWords'
import { tankLevel, type TankLevel } from '../../core/rounds/tankLevel'
import type { Change } from '../events/changes'
import type { FactsService } from '../facts/facts.service'
import type { LevelsStore } from './levels.store'

const [minuteMs, dayMs] = [60_000, 86_400_000]
/** Hours of a course are reckoned anew so often; whatever is recorded counts at once. */
const slotMs = 10 * minuteMs
const [runDays, countDays, soldDays] = [40, 120, 14]
/** Commands that end no run, book no count and sell nothing: what is gathered beside the facts stands. */
const plain = new Set(['recordCheck', 'recordLoss', 'recordReading', 'leaveRound', 'closeRound'])

interface Collaborators {
  store: LevelsStore
  facts: Pick<FactsService, 'inUse'>
  limits: () => Pick<Limits, 'newArrivalDays' | 'darkHours' | 'shopHoldDays'>
  rules: () => RoundRules
  zone: () => string
}

/** How a tank stands on the round. */
export interface JudgedTank {
  tank: TankFacts
  level: TankLevel
  asked: LevelAsked
  unseen: UnseenKind[]
  state: RoundState
  /** Whole days since its newest lot arrived; null when nobody knows. */
  daysSinceArrival: number | null
}

/** What is gathered for all tanks at once. */
interface Gathered {
  runs: ReadonlyMap<string, RunOfLot[]>
  counted: ReadonlyMap<string, number>
  soldFrom: ReadonlySet<string>
  foods: FoodsKnown
}

/** A tank by itself, and its level beside what its neighbours showed last. */
interface Alone {
  key: string
  asked: LevelAsked
  unseen: UnseenKind[]
  level: TankLevel
  beside: { key: string; level: TankLevel } | null
}

/** The level of every tank, judged once for everybody until something is written. */
export function createLevelsService({ store, facts, limits, rules, zone }: Collaborators) {
  let gathered: { version: string; slot: number; about: Gathered } | null = null
  let judged: { version: string; slot: number; tanks: ReadonlyMap<string, JudgedTank> } | null = null
  /** Levels without neighbours, as long as nothing was written about the tank. */
  let alone = new WeakMap<TankFacts, Alone>()

  function listen({ command, written }: Pick<Change, 'command' | 'written'>): void {
    if (!written || !gathered) return
    if (plain.has(command) && written.before === gathered.version) gathered = { ...gathered, version: written.after }
    else gathered = null
  }

  function gather(nowMs: number, slot: number): Gathered {
    if (gathered?.version === store.version() && gathered.slot === slot) return gathered.about
    const about: Gathered = {
      runs: new Map([...groupBy(store.runs(nowMs - runDays * dayMs, limits().darkHours), ({ lotId }) => lotId)].map(([lotId, rows]) => [lotId, rows.map(({ run }) => run)])),
      counted: new Map(store.counted(nowMs - countDays * dayMs).map(({ tankId, lotId, atMs }) => [`${tankId} ${lotId}`, atMs])),
      soldFrom: new Set(store.soldFrom(nowMs - soldDays * dayMs)),
      foods: foodsKnown(store.foods(), store.toldFoods()),
    }
    gathered = { version: store.version(), slot, about }
    alone = new WeakMap()
    return about
  }

  const daysOf = (lot: LotFacts, nowMs: number): number => lotDays(lot, nowMs, zone())

  /** A tank by itself: what its neighbours are judged by. */
  function judgeAlone(tank: TankFacts, onWater: readonly TankFacts[], about: Gathered, nowMs: number, key: string): Alone {
    const readings: Measured[] = onWater.flatMap((each) => each.readings)
    const stocked = onWater.filter(({ lots }) => lots.length > 0).length
    const isSold = onWater.some(({ tankId }) => about.soldFrom.has(tankId))
    const ownKey = JSON.stringify([key, readings.map(({ seq }) => seq), stocked, isSold])
    const known = alone.get(tank)
    if (known?.key === ownKey) return known
    const isHeld = (lot: LotFacts): boolean => holdOf(lot, limits(), nowMs, zone())?.isServed === false
    const gatheredOf = levelAsked(tank, { nowMs, daysOf: (lot) => daysOf(lot, nowMs), isHeld, runsOf: (lotId) => about.runs.get(lotId) ?? [], countedAtMs: (lotId) => about.counted.get(`${tank.tankId} ${lotId}`) ?? null, readings, stockedOnWater: stocked, soldLately: isSold }, rules())
    const fresh: Alone = { key: ownKey, ...gatheredOf, level: tankLevel(gatheredOf.asked, rules()), beside: null }
    alone.set(tank, fresh)
    return fresh
  }

  /** Its level beside what the others on its water show. */
  function judgeBeside(each: Alone, neighbours: readonly Neighbour[]): TankLevel {
    if (neighbours.every(({ shows }) => shows.length === 0)) return each.level
    const key = JSON.stringify(neighbours)
    if (each.beside?.key !== key) each.beside = { key, level: tankLevel({ ...each.asked, neighbours }, rules()) }
    return each.beside.level
  }

  function judgeAll(nowMs: number, slot: number): ReadonlyMap<string, JudgedTank> {
    const about = gather(nowMs, slot)
    const key = String(slot)
    const tanks = new Map<string, JudgedTank>()
    for (const onWater of groupBy(facts.inUse(nowMs), ({ water }) => water.id).values()) {
      const stocked = onWater.filter(({ lots }) => lots.length > 0)
      const each = stocked.map((tank) => judgeAlone(tank, onWater, about, nowMs, key))
      const shown = each.map(({ level }, index): Neighbour => ({ tank: stocked[index]?.tankId ?? '', shows: level.shows, isAct: level.level === 'act' }))
      const levels = each.map((own, index) => judgeBeside(own, shown.filter((_, other) => other !== index)))
      const isIll = levels.map(({ reasons }) => reasons.some((reason) => isIllness(reason, rules())))
      const isSick = levels.map(({ level }, index) => level === 'act' && isIll[index] === true)
      stocked.forEach((tank, index) => {
        const [level, own] = [levels[index] as TankLevel, each[index] as Alone]
        const known = tank.lots.filter(({ isBeforeBooks }) => !isBeforeBooks)
        const daysSinceArrival = known.length === 0 ? null : Math.min(...known.map((lot) => daysOf(lot, nowMs)))
        const state = roundState({ level: level.level, isIllness: isIll[index] === true, isOnSickWater: isSick.some((sick, other) => sick && other !== index), daysSinceArrival, newArrivalDays: limits().newArrivalDays })
        const before = judged?.tanks.get(tank.tankId)
        // The same object as long as nothing changed: what is reckoned from it can be kept by it.
        tanks.set(tank.tankId, before && before.tank === tank && before.level === level && before.state === state && before.daysSinceArrival === daysSinceArrival ? before : { tank, level, asked: own.asked, unseen: own.unseen, state, daysSinceArrival })
      })
    }
    return tanks
  }

  const lostToday = (tank: TankFacts, nowMs: number): number => lossesSince(tank, startOfDay(new TZDate(nowMs, zone())).getTime()).reduce((sum, { quantity }) => sum + quantity, 0)

  /** Every tank with fish, by id. */
  function all(nowMs: number): ReadonlyMap<string, JudgedTank> {
    const [version, slot] = [store.version(), Math.floor(nowMs / slotMs)]
    if (judged?.version !== version || judged.slot !== slot) judged = { version, slot, tanks: judgeAll(nowMs, slot) }
    return judged.tanks
  }

  return {
    listen,
    /** What is in the house to feed, and what sellers said their fish ate. */
    foods: (nowMs: number): FoodsKnown => gather(nowMs, Math.floor(nowMs / slotMs)).foods,
    all,
    /** The word on the strip of a tank; null where there is nothing to say, or no fish. */
    flagOf(tankId: string, nowMs: number): TankFlag | null {
      const tank = all(nowMs).get(tankId)
      return tank ? levelFlag(tank.level, lostToday(tank.tank, nowMs)) : null
    },
  }
}
export type LevelsService = ReturnType<typeof createLevelsService>
