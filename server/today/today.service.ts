import { TZDate } from '@date-fns/tz'
import { startOfDay, subDays } from 'date-fns'
import { alarmsOf, isForgotten } from '../../core/bench/alarms'
import type { RecheckView, RunView } from '../../core/bench/benchView'
import { followRun } from '../../core/bench/followRun'
import { eachApart } from '../../core/collections/eachApart'
import { openClaim } from '../../core/crates/claim'
import { summaryStage, type CrateSummary } from '../../core/crates/crateView'
import type { Limits } from '../../core/limits/houseLimits'
import { baseUnits, type DisplayUnits } from '../../core/units/units'
import type { HoldView } from '../../core/room/roomView'
import { poisonsDead } from '../../core/species/handling'
import { dayInZone } from '../../core/time/dayInZone'
import { notEatingForMs } from '../../core/today/notEating'
import { shopHold } from '../../core/today/shopHold'
import type { HeldLot, HungryLot, RescueView, RunOnToday, TodayView } from '../../core/today/todayView'
import type { RoomStore } from '../room/room.store'
import type { LotInTank, TodayStore } from './today.store'

interface Collaborators {
  store: TodayStore
  roomStore: RoomStore
  crates: () => CrateSummary[]
  limits: () => Limits
  runs: () => RunView[]
  rechecks: (nowMs: number) => RecheckView[]
  rescues: () => RescueView[]
}
/** A hold that ended stays in the list for so many days, so that nobody misses it. */
const servedDaysShown = 3

/** What the room needs now. */
export function createTodayService({ store, roomStore, crates, limits, runs, rechecks, rescues }: Collaborators) {
  const placeOf = ({ lotId, lotCode, species, tankCode, quantity }: LotInTank) => ({ lotId, lotCode, species, tankCode, quantity })

  function held(lots: LotInTank[], nowMs: number, days: number, timeZone: string, broken: Broken): HeldLot[] {
    const openedAt = store.openedAt(null)
    const holds = eachApart(lots, (lot): HeldLot[] => {
      const openedAtMs = openedAt.get(lot.lotId)
      const hold = openedAtMs === undefined ? null : shopHold(openedAtMs, nowMs, days, timeZone)
      return hold && hold.day <= hold.of + servedDaysShown ? [{ ...placeOf(lot), ...hold }] : []
    }, broken((lot) => `the hold of lot ${lot.lotCode}`)).flat()
    return holds.sort((a, b) => b.day - a.day)
  }

  function hungry(lots: LotInTank[], nowMs: number, notEatingDays: number, broken: Broken): HungryLot[] {
    const appetites = store.appetite()
    const found = eachApart(lots, (lot): HungryLot[] => {
      const { lastAnswer = null, lastAnswerMs = null, lastMealMs = null } = appetites.get(lot.tankId) ?? {}
      const forMs = notEatingForMs({ ...lot, lastAnswer, lastAnswerMs, lastMealMs }, nowMs, notEatingDays)
      return forMs === null ? [] : [{ ...placeOf(lot), forMs, isNew: lastMealMs === null || lastMealMs < lot.sinceMs, firstFoods: lot.firstFoods }]
    }, broken((lot) => `the appetite of lot ${lot.lotCode}`)).flat()
    return found.sort((a, b) => b.forMs - a.forMs)
  }

  return {
    view(nowMs: number): TodayView {
      const room = roomStore.room()
      const timeZone = room?.timeZone ?? 'UTC'
      const on = dayInZone(nowMs, timeZone)
      const { shopHoldDays, notEatingDays, recentLossDays } = limits()
      const lots = store.lotsInTanks(null)
      const checked = new Set(roomStore.lastChecks(null).filter((check) => check.roundOn === on).map((check) => check.tankId))
      const all = crates()
      const stocked = new Map(lots.map((lot) => [lot.tankId, lot.tankCode]))
      const notWorkedOut: string[] = []
      const broken: Broken = (nameOf) => (row) => (notWorkedOut.push(nameOf(row)), null)
      const lossesFromMs = subDays(startOfDay(new TZDate(nowMs, timeZone)), recentLossDays - 1).getTime()
      return {
        on,
        counts: store.counts(),
        crates: all.filter((crate) => ['due', 'opening', 'placing'].includes(summaryStage(crate))).sort(byUrgency),
        runs: eachApart(runs(), (run) => runOnToday(run, limits(), nowMs, room ?? baseUnits), brokenRun).sort((a, b) => (a.dueAtMs ?? Infinity) - (b.dueAtMs ?? Infinity) || a.number - b.number),
        rechecks: rechecks(nowMs).filter(({ dueAtMs, doneAtMs, look }) => (doneAtMs === null ? dueAtMs <= nowMs + soonMs : look === 'worse')),
        claims: eachApart(all, (crate) => openClaim(crate, nowMs), broken((crate) => `the claim of crate ${crate.number}`)).flat().sort((a, b) => a.leftMs - b.leftMs),
        unchecked: [...stocked].filter(([id]) => !checked.has(id)).map(([, code]) => code),
        stockedTanks: stocked.size,
        notEating: hungry(lots, nowMs, notEatingDays, broken),
        losses: store.lossesSince(lossesFromMs).map(({ causes, poisons, ...row }) => ({ ...row, causes: causes?.split(',') ?? [], isPoison: poisonsDead({ poisons }) && nowMs - row.lastAtMs < poisonMs })),
        lossDays: recentLossDays,
        holds: held(lots, nowMs, shopHoldDays, timeZone, broken),
        rescues: rescues(),
        broken: notWorkedOut,
      }
    },

    /** Days of its hold that each lot in a tank has served; null for those that are not held, or no longer. */
    heldDaysAt(nowMs: number): (lotId: string) => number | null {
      const openedAt = store.openedAt(null)
      const timeZone = roomStore.room()?.timeZone ?? 'UTC'
      const days = limits().shopHoldDays
      return (lotId) => {
        const openedAtMs = openedAt.get(lotId)
        const hold = openedAtMs === undefined ? null : shopHold(openedAtMs, nowMs, days, timeZone)
        return hold && !hold.isServed ? hold.day : null
      }
    },

    /** By tank: the shop hold of its newest lot, for the scale on the glass; of all tanks, or `only` one. */
    holdsByTank(nowMs: number, only: string | null): Map<string, HoldView> {
      const openedAt = store.openedAt(only)
      const timeZone = roomStore.room()?.timeZone ?? 'UTC'
      const days = limits().shopHoldDays
      const holds = new Map<string, HoldView>()
      for (const { tankId, lotId } of store.lotsInTanks(only)) {
        const openedAtMs = openedAt.get(lotId)
        const hold = openedAtMs === undefined ? null : shopHold(openedAtMs, nowMs, days, timeZone)
        const known = holds.get(tankId)
        if (hold && !hold.isServed && (!known || hold.day < known.day)) holds.set(tankId, { day: hold.day, of: hold.of })
      }
      return holds
    },
  }
}
export type TodayService = ReturnType<typeof createTodayService>

/** Keeps the name of a row that cannot be worked out. */
type Broken = <Row>(nameOf: (row: Row) => string) => (row: Row) => null

const speciesOf = (run: RunView): string => [...new Set(run.sources.map(({ species }) => species))].join(', ')

/** Stands for a run that cannot be followed. It can be ended all the same, and its fish are where the books have them. */
const brokenRun = (run: RunView): RunOnToday => ({ id: run.id, number: run.number, species: speciesOf(run), words: 'This run cannot be reckoned. Look at its fish, open it and end it.', dueAtMs: null, isForgotten: true, isAlarm: true })

/** So long after its death a poisoner is an alarm for everything on its water. */
const poisonMs = 24 * 3_600_000

/** A recheck is shown a little ahead. */
const soonMs = 15 * 60_000

function runOnToday(run: RunView, limits: Limits, nowMs: number, units: DisplayUnits): RunOnToday {
  const now = followRun(run, limits, nowMs, units)
  const alarms = alarmsOf(run, now, limits, nowMs)
  const dueAtMs = now.dueAtMs !== null && Number.isFinite(now.dueAtMs) ? now.dueAtMs : null
  return { id: run.id, number: run.number, species: speciesOf(run), words: alarms[0]?.words ?? now.step?.title ?? '', dueAtMs, isForgotten: isForgotten(now, limits, nowMs), isAlarm: alarms[0]?.level === 'act' }
}

/** Fish that stand in bags first, then opened crates, then by when they are due. */
function byUrgency(a: CrateSummary, b: CrateSummary): number {
  const rank = { placing: 0, opening: 0, due: 1, done: 2, closed: 3 }
  return rank[summaryStage(a)] - rank[summaryStage(b)] || (a.expectedAtMs ?? Infinity) - (b.expectedAtMs ?? Infinity) || a.number - b.number
}
