import { groupBy } from '../../core/collections/groupBy'
import { lossesSince } from '../../core/facts/askFacts'
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
import type { GivenToLot } from '../../core/rounds/givenFoods'
import { foodsKnown, type FoodsKnown } from '../../core/rounds/stopWords'
import { tankLevel, type TankLevel } from '../../core/rounds/tankLevel'
import type { Change } from '../events/changes'
import type { FactsService } from '../facts/facts.service'
import { dayStartIn } from '../room/dayStartIn'
import type { LevelsStore } from './levels.store'

const [minuteMs, dayMs] = [60_000, 86_400_000]
/** Hours of a course are reckoned anew so often; whatever is recorded counts at once. */
const slotMs = 10 * minuteMs
const [runDays, countDays, soldDays, givenDays] = [40, 120, 14, 10]
/** Commands that end no run, book no count and sell nothing: what is gathered beside the facts stands. */
const plain = new Set(['recordCheck', 'recordLoss', 'recordReading', 'leaveRound', 'closeRound', 'askChore', 'endChore', 'doChore', 'undoChore', 'changeSupplies', 'pollProbes', 'tickHandover', 'leaveWord', 'takeWordOff'])

interface Collaborators {
  store: LevelsStore
  facts: Pick<FactsService, 'inUse'>
  limits: () => Pick<Limits, 'newArrivalDays' | 'darkHours'>
  rules: () => RoundRules
  zone: () => string
  /** What the kitchen gave since a moment. */
  given: (sinceMs: number) => readonly GivenToLot[]
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
  /** Whether its looks could not be worked out: then nothing is known of its level. */
  isBroken: boolean
}

/** What is gathered of one water beside the facts of its tanks. */
interface Gathered {
  runs: ReadonlyMap<string, RunOfLot[]>
  counted: ReadonlyMap<string, number>
  isSold: boolean
}

/** A tank by itself: what its neighbours are judged by. */
interface Alone {
  asked: LevelAsked
  unseen: UnseenKind[]
  level: TankLevel
  isBroken: boolean
}

/** A water as it was judged last, and by what. */
interface JudgedWater {
  slot: number
  side: number
  tanks: readonly TankFacts[]
  about: Gathered
  judged: readonly JudgedTank[]
}

/** The level of every tank, judged water by water, and again only when something was written that it goes by. */
export function createLevelsService({ store, facts, limits, rules, zone, given }: Collaborators) {
  const waters = new Map<string, JudgedWater>()
  let everything: { version: string; slot: number; tanks: ReadonlyMap<string, JudgedTank> } | null = null
  let foods: { side: number; known: FoodsKnown } | null = null
  let room: { side: number; counted: Gathered['counted']; soldFrom: ReadonlySet<string> } | null = null

  /** Counts what was written beside looks and losses: runs, counts, sales, limits, the book. */
  let side = { version: '', number: 0 }
  function sideNow(): number {
    if (side.version !== store.version()) side = { version: store.version(), number: side.number + 1 }
    return side.number
  }
  function listen({ command, written }: Pick<Change, 'command' | 'written'>): void {
    if (written && plain.has(command) && written.before === side.version) side = { ...side, version: written.after }
  }

  const daysOf = (lot: LotFacts, nowMs: number): number => lotDays(lot, nowMs, zone())

  /** Counts and sales of the whole room: read once, they are few. */
  function gatherRoom(nowMs: number): Pick<Gathered, 'counted'> & { soldFrom: ReadonlySet<string> } {
    if (room?.side !== sideNow()) room = { side: sideNow(), counted: new Map(store.counted(nowMs - countDays * dayMs).map(({ tankId, lotId, atMs }) => [`${tankId} ${lotId}`, atMs])), soldFrom: new Set(store.soldFrom(nowMs - soldDays * dayMs)) }
    return room
  }

  function gather(tanks: readonly TankFacts[], nowMs: number): Gathered {
    const { counted, soldFrom } = gatherRoom(nowMs)
    const runs = store.runs(tanks.flatMap(({ lots }) => lots.map(({ lotId }) => lotId)), nowMs - runDays * dayMs, limits().darkHours)
    return { counted, isSold: tanks.some(({ tankId }) => soldFrom.has(tankId)), runs: new Map([...groupBy(runs, ({ lotId }) => lotId)].map(([lotId, rows]) => [lotId, rows.map(({ run }) => run)])) }
  }

  /** One that cannot be judged takes no other with it: somebody looks at it, and it is said. */
  function judgeAlone(tank: TankFacts, { runs, counted, isSold }: Gathered, readings: readonly Measured[], stocked: number, nowMs: number): Alone {
    try {
      const of = levelAsked(tank, { nowMs, daysOf: (lot) => daysOf(lot, nowMs), runsOf: (lotId) => runs.get(lotId) ?? [], countedAtMs: (lotId) => counted.get(`${tank.tankId} ${lotId}`) ?? null, readings, stockedOnWater: stocked, soldLately: isSold }, rules())
      return { ...of, level: tankLevel(of.asked, rules()), isBroken: false }
    } catch {
      return { asked: { lots: [], rounds: [] }, unseen: [], level: { level: 'watch', points: 0, lots: [], reasons: [], shows: [], act: [] }, isBroken: true }
    }
  }

  /** All tanks of one water, each beside what the others show. */
  function judgeWater(onWater: readonly TankFacts[], about: Gathered, nowMs: number): JudgedTank[] {
    const tanks = onWater.filter(({ lots }) => lots.length > 0)
    const readings = onWater.flatMap((each) => each.readings)
    const alone = tanks.map((tank) => judgeAlone(tank, about, readings, tanks.length, nowMs))
    const shown = alone.map(({ level }, index): Neighbour => ({ tank: tanks[index]?.tankId ?? '', shows: level.shows, isAct: level.level === 'act' }))
    const levels = alone.map(({ asked, level, isBroken }, index) => {
      const neighbours = shown.filter((_, other) => other !== index)
      return isBroken || neighbours.every(({ shows }) => shows.length === 0) ? level : tankLevel({ ...asked, neighbours }, rules())
    })
    const isIll = levels.map(({ reasons }) => reasons.some((reason) => isIllness(reason, rules())))
    return tanks.map((tank, index) => {
      const [level, own] = [levels[index] as TankLevel, alone[index] as Alone]
      const known = tank.lots.filter(({ isBeforeBooks }) => !isBeforeBooks)
      const daysSinceArrival = known.length === 0 ? null : Math.min(...known.map((lot) => daysOf(lot, nowMs)))
      const isOnSickWater = levels.some((other, at) => at !== index && other.level === 'act' && isIll[at] === true)
      const state = roundState({ level: level.level, isIllness: isIll[index] === true, isOnSickWater, daysSinceArrival, newArrivalDays: limits().newArrivalDays })
      return { tank, level, asked: own.asked, unseen: own.unseen, state, daysSinceArrival, isBroken: own.isBroken }
    })
  }

  /** A water as it stands: judged again where one of its tanks, or what is gathered, is not what it was. */
  function ofWater(id: string, onWater: readonly TankFacts[], nowMs: number): readonly JudgedTank[] {
    const [known, slot, number] = [waters.get(id), Math.floor(nowMs / slotMs), sideNow()]
    const isSame = known !== undefined && known.slot === slot && known.side === number
    if (isSame && known.tanks.length === onWater.length && onWater.every((tank, index) => tank === known.tanks[index])) return known.judged
    const about = isSame ? known.about : gather(onWater, nowMs)
    const judged = judgeWater(onWater, about, nowMs)
    waters.set(id, { slot, side: number, tanks: onWater, about, judged })
    return judged
  }

  /** Every tank with fish, by id. */
  function all(nowMs: number): ReadonlyMap<string, JudgedTank> {
    const [version, slot] = [store.version(), Math.floor(nowMs / slotMs)]
    if (everything?.version === version && everything.slot === slot) return everything.tanks
    const byWater = groupBy(facts.inUse(nowMs), ({ water }) => water.id)
    const tanks = new Map([...byWater].flatMap(([id, onWater]) => ofWater(id, onWater, nowMs)).map((each) => [each.tank.tankId, each]))
    everything = { version, slot, tanks }
    return tanks
  }

  /** The tanks with fish on the water of one; no other is judged. */
  function besides(tank: TankFacts, nowMs: number): readonly JudgedTank[] {
    const isCurrent = everything?.version === store.version() && everything.slot === Math.floor(nowMs / slotMs)
    const known = isCurrent ? waters.get(tank.water.id) : undefined
    return known?.judged ?? ofWater(tank.water.id, facts.inUse(nowMs).filter(({ water }) => water.id === tank.water.id), nowMs)
  }

  /** One tank; null where no fish stand in it. */
  const one = (tank: TankFacts, nowMs: number): JudgedTank | null => besides(tank, nowMs).find((each) => each.tank.tankId === tank.tankId) ?? null

  /** When today began; a clock of the room is asked once a minute, not for every tank. */
  let today = { minute: -1, fromMs: 0 }
  function dayStart(nowMs: number): number {
    const minute = Math.floor(nowMs / minuteMs)
    if (today.minute !== minute) today = { minute, fromMs: dayStartIn(nowMs, zone()) }
    return today.fromMs
  }
  const lostToday = (tank: TankFacts, nowMs: number): number => lossesSince(tank, dayStart(nowMs)).reduce((sum, { quantity }) => sum + quantity, 0)

  return {
    listen,
    all,
    /** The tanks with fish on one water; no other is judged. */
    onWater: ofWater,
    /** What is in the house to feed, what sellers said their fish ate, and how it was taken here. */
    foods(nowMs: number): FoodsKnown {
      if (foods?.side !== sideNow()) foods = { side: sideNow(), known: foodsKnown(store.foods(), store.toldFoods(), given(nowMs - givenDays * dayMs), facts.inUse(nowMs)) }
      return foods.known
    },
    besides,
    one,
    /** The word on the strip of a tank; null where there is nothing to say, or no fish. */
    flagOf(tank: TankFacts, nowMs: number): TankFlag | null {
      const judged = one(tank, nowMs)
      return judged ? levelFlag(judged.level, lostToday(tank, nowMs)) : null
    },
  }
}
export type LevelsService = ReturnType<typeof createLevelsService>
