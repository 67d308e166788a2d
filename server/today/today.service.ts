import { TZDate } from '@date-fns/tz'
import { startOfDay, subDays } from 'date-fns'
import type { RecheckView } from '../../core/bench/benchView'
import { eachApart } from '../../core/collections/eachApart'
import { groupBy } from '../../core/collections/groupBy'
import { openClaim } from '../../core/crates/claim'
import { summaryStage, type CrateSummary } from '../../core/crates/crateSummary'
import { speciesOfRun, type FollowedRun } from '../../core/due/due'
import { lastLook, lossesSince } from '../../core/facts/askFacts'
import type { LotFacts, TankFacts } from '../../core/facts/facts'
import type { Limits } from '../../core/limits/houseLimits'
import { triesWords } from '../../core/rounds/stopWords'
import { poisonsDead } from '../../core/species/handling'
import { dayInZone } from '../../core/time/dayInZone'
import type { HeldLot, HungryLot, RaisedTank, RecentLoss, RescueView, RunOnToday, TodayView } from '../../core/today/todayView'
import type { FactsService } from '../facts/facts.service'
import type { DueView } from '../due/due.service'
import type { RoomStore } from '../room/room.store'
import type { StopsService } from '../rounds/stops.service'
import type { TodayStore } from './today.store'

interface Collaborators {
  store: TodayStore
  facts: FactsService
  roomStore: RoomStore
  crates: (nowMs: number) => CrateSummary[]
  due: (nowMs: number) => DueView
  limits: () => Limits
  rechecks: (nowMs: number) => RecheckView[]
  rescues: () => RescueView[]
  /** What the looks at every tank mean. */
  stops: StopsService['all']
  appetiteOf: StopsService['appetiteOf']
}
/** A lot where it stands. */
interface StandingLot extends LotFacts {
  tank: TankFacts
}

/** What the room needs now. */
export function createTodayService({ store, facts, roomStore, crates, due, limits, rechecks, rescues, stops, appetiteOf }: Collaborators) {
  const placeOf = ({ lotId, lotCode, species, tank, quantity }: StandingLot) => ({ lotId, lotCode, species, tankCode: tank.code, quantity })

  const held = (lots: StandingLot[]): HeldLot[] => lots.flatMap((lot): HeldLot[] => (lot.hold ? [{ ...placeOf(lot), ...lot.hold }] : [])).sort((a, b) => b.day - a.day)

  function hungry(lots: StandingLot[], nowMs: number, broken: Broken): HungryLot[] {
    const found = eachApart(lots, (lot): HungryLot[] => {
      const { listed, forH, next } = appetiteOf(lot, lot.tank, nowMs)
      return listed && forH !== null ? [{ ...placeOf(lot), forMs: forH * 3_600_000, isNew: lot.lastMeal === null, tries: triesWords(next) }] : []
    }, broken((lot) => `the appetite of lot ${lot.lotCode}`)).flat()
    return found.sort((a, b) => b.forMs - a.forMs)
  }

  /** Losses since a moment, by tank and lot, and where nobody knew the lot by kind; newest first. */
  function lost(tanks: readonly TankFacts[], sinceMs: number, nowMs: number): RecentLoss[] {
    const rows = tanks.flatMap((tank) => [...groupBy(lossesSince(tank, sinceMs), ({ lotId, species, isAttributed }) => (isAttributed ? species : lotId))].map(([, losses]): RecentLoss => {
      const [{ lotId = '', lotCode = '', species = '', poisons = null, isAttributed = false, atMs: lastAtMs = 0 } = {}] = losses
      const causes = [...new Set(losses.flatMap(({ cause }) => cause ?? []))]
      return { tankCode: tank.code, lotId, lotCode, species, isAttributed, quantity: losses.reduce((sum, { quantity }) => sum + quantity, 0), lastAtMs, causes, isPoison: poisonsDead({ poisons }) && nowMs - lastAtMs < poisonMs }
    }))
    return rows.sort((a, b) => b.lastAtMs - a.lastAtMs)
  }

  /** What is at act stands above what is at watch; within, as the racks stand. */
  function raised(nowMs: number): RaisedTank[] {
    const all = [...stops(nowMs).values()].flatMap(({ tankId, code, stock, judged }): RaisedTank[] => (judged.level === 'quiet' ? [] : [{ tankId, code, species: stock[0]?.species ?? '', level: judged.level, reasons: judged.reasons, act: judged.act }]))
    return all.sort((a, b) => Number(b.level === 'act') - Number(a.level === 'act') || (a.code < b.code ? -1 : 1))
  }

  return {
    view(nowMs: number): TodayView {
      const timeZone = roomStore.room()?.timeZone ?? 'UTC'
      const on = dayInZone(nowMs, timeZone)
      const inForce = limits()
      const { recentLossDays } = inForce
      const tanks = [...facts.all(nowMs).values()].sort((a, b) => (a.code < b.code ? -1 : 1))
      const stocked = tanks.filter(({ lots }) => lots.length > 0)
      const lots = stocked.flatMap((tank) => [...tank.lots].sort((a, b) => (a.lotCode < b.lotCode ? -1 : 1)).map((lot): StandingLot => ({ ...lot, tank })))
      const [all, work] = [crates(nowMs), due(nowMs)]
      const notWorkedOut: string[] = []
      const broken: Broken = (nameOf) => (row) => (notWorkedOut.push(nameOf(row)), null)
      const lossesFromMs = subDays(startOfDay(new TZDate(nowMs, timeZone)), recentLossDays - 1).getTime()
      return {
        on,
        counts: store.counts(),
        crates: all.filter((crate) => ['due', 'opening', 'placing'].includes(summaryStage(crate))).sort(byUrgency),
        runs: work.runs.map(runOnToday).sort((a, b) => (a.dueAtMs ?? Infinity) - (b.dueAtMs ?? Infinity) || a.number - b.number),
        rechecks: rechecks(nowMs).filter(({ dueAtMs, doneAtMs, look }) => (doneAtMs === null ? dueAtMs <= nowMs + soonMs : look === 'worse')),
        claims: eachApart(all, (crate) => openClaim(crate, nowMs), broken((crate) => `the claim of crate ${crate.number}`)).flat().sort((a, b) => a.leftMs - b.leftMs),
        unchecked: stocked.filter((tank) => lastLook(tank)?.on !== on).map(({ tankId, code }) => ({ tankId, code })),
        raised: raised(nowMs),
        stockedTanks: stocked.length,
        notEating: hungry(lots, nowMs, broken),
        losses: lost(tanks, lossesFromMs, nowMs),
        lossDays: recentLossDays,
        holds: held(lots),
        rescues: rescues(),
        prepare: work.items.filter(({ kind, done, byMs }) => kind === 'preparation' && done === null && (byMs === null || byMs - nowMs <= prepareAheadMs)),
        onTheWay: work.items.filter(({ kind, urgency, byMs }) => (kind === 'vessel' || kind === 'introduction' || kind === 'plan' || kind === 'chore' || kind === 'feed' || kind === 'probe' || kind === 'hold' || kind === 'regimen') && (urgency !== 'later' || (byMs !== null && byMs - nowMs <= prepareAheadMs))),
        broken: [...notWorkedOut, ...work.broken],
      }
    },
  }
}
export type TodayService = ReturnType<typeof createTodayService>

/** Keeps the name of a row that cannot be worked out. */
type Broken = <Row>(nameOf: (row: Row) => string) => (row: Row) => null

/** So long after its death a poisoner is an alarm for everything on its water. */
const poisonMs = 24 * 3_600_000

/** Preparation is shown a day ahead. */
const prepareAheadMs = 24 * 3_600_000
/** A recheck is shown a little ahead. */
const soonMs = 15 * 60_000

/** A run that cannot be followed can be ended all the same, and its fish are where the books have them. */
function runOnToday({ run, now }: FollowedRun): RunOnToday {
  const of = { id: run.id, number: run.number, species: speciesOfRun(run) }
  if (!now) return { ...of, words: 'This run cannot be reckoned. Look at its fish, open it and end it.', dueAtMs: null, isForgotten: true, isAlarm: true }
  const { step, dueAtMs, alarm, isAlarm, isForgotten } = now
  return { ...of, words: alarm ?? step ?? '', dueAtMs, isForgotten, isAlarm }
}

/** Fish that stand in bags first, then opened crates, then by when they are due. */
function byUrgency(a: CrateSummary, b: CrateSummary): number {
  const rank = { placing: 0, opening: 0, due: 1, done: 2, closed: 3 }
  return rank[summaryStage(a)] - rank[summaryStage(b)] || (a.expectedAtMs ?? Infinity) - (b.expectedAtMs ?? Infinity) || a.number - b.number
}
