import { agentWord, agentWordsIn } from '../../core/dosing/agentWords'
import type { FactEvent, TankFacts } from '../../core/facts/facts'
import { foldAll, nothingKnown } from '../../core/facts/foldFacts'
import { runningDay, type HoldDay } from '../../core/holds/holdDay'
import { placeMark } from '../../core/holds/holdRoom'
import { groupBy } from '../../core/collections/groupBy'
import type { Limits } from '../../core/limits/houseLimits'
import type { Change } from '../events/changes'
import { fieldProblem } from '../http/problem'
import type { HoldsService } from '../holds/holds.service'
import type { FactsStore, Horizon } from './facts.store'

const [hourMs, dayMs] = [3_600_000, 86_400_000]
const hourOf = (nowMs: number): number => Math.floor(nowMs / hourMs)
/** Holds go by days, and somewhere midnight is at a quarter. */
const quarterOf = (nowMs: number): number => Math.floor(nowMs / (hourMs / 4))
/** Looks, readings and doses of so many days are judged together. */
const lookDays = 10
/** Losses speak for so long, whatever Today shows of them. */
const lossDays = 7

/** Commands that write nothing of tanks but movements and looks at them: what they touched is read anew, and nothing else. */
const touching = new Set(['tickHandover', 'leaveWord', 'takeWordOff', 'askChore', 'endChore', 'addChore', 'editChore', 'retireChore', 'doChore', 'undoChore', 'changeSupplies', 'tickKitchen', 'undoTick', 'changeFoodStock', 'orderFeeding', 'endFeeding', 'recordCheck', 'recordLoss', 'moveFish', 'moveTogether', 'releaseFish', 'correctCount', 'findFish', 'addFish', 'reverseMovement'])
/** More at once is read anew as a whole. */
const mostTouched = 200

const lowered = agentWord('lowSalinity')
/** What was read last of a water, in whichever of its tanks. */
const newestReading = (tanks: readonly TankFacts[], what: string): number | null => tanks.flatMap(({ readings }) => readings.filter((each) => each.what === what)).sort((a, b) => b.atMs - a.atMs)[0]?.value ?? null

/** Days in which nothing differs that anybody goes by. */
const isSameDay = (a: HoldDay | null, b: HoldDay | null): boolean => a === b || (a !== null && b !== null && a.day === b.day && a.of === b.of && a.isServed === b.isServed && a.earliest === b.earliest && a.waitsFor.join() === b.waitsFor.join() && a.added?.by === b.added?.by && a.added?.days === b.added?.days)

interface Collaborators {
  store: FactsStore
  limits: () => Pick<Limits, 'recentLossDays' | 'fightMemoryDays'>
  /** The clocks of all fish that are held, and what is in each water. */
  holds: Pick<HoldsService, 'daysAt' | 'dayOf' | 'agentsAt'>
  /** Waters in which an ammonia binder works, and until when. */
  binders: (nowMs: number) => readonly { waterId: string; untilMs: number }[]
}

/** What is known of tanks, read once for everybody until something is written. */
export function createFactsService({ store, limits, holds, binders }: Collaborators) {
  let known: { version: string; hour: number; quarter: number; tanks: ReadonlyMap<string, TankFacts> } | null = null

  /** Whole hours, so that the minutes passing are nothing that changed. */
  function horizonOf(nowMs: number): Horizon {
    const hourAgoMs = hourOf(nowMs) * hourMs
    const { recentLossDays, fightMemoryDays } = limits()
    return { looksMs: hourAgoMs - lookDays * dayMs, lossesMs: hourAgoMs - (Math.max(recentLossDays, lossDays) + 1) * dayMs, fightsMs: hourAgoMs - fightMemoryDays * dayMs }
  }

  function readAll(only: string | null, nowMs: number): Map<string, TankFacts> {
    const { looksMs, lossesMs, fightsMs } = horizonOf(nowMs)
    const events: FactEvent[] = [...store.standing(only), ...store.looks(only, looksMs), ...store.losses(only, lossesMs), ...store.measured(only, looksMs)]
    const [byTank, fights, decisions] = [groupBy(events, ({ tankId }) => tankId), groupBy(store.fights(only, fightsMs), ({ tankId }) => tankId), groupBy(store.decisions(only, looksMs), ({ tankId }) => tankId)]
    return new Map(store.tanks(only).map((tank) => [tank.tankId, { ...foldAll({ ...tank, ...nothingKnown }, byTank.get(tank.tankId) ?? []), fights: (fights.get(tank.tankId) ?? []).map(({ id, atMs }) => ({ id, atMs })).sort((a, b) => b.atMs - a.atMs), decisions: (decisions.get(tank.tankId) ?? []).map(({ tankId: _of, ...decision }) => decision) }]))
  }

  /** Tanks with the day of its hold that each lot is in, and what is in their water; one of which none is another stays the same. */
  function withHolds(tanks: ReadonlyMap<string, TankFacts>, nowMs: number): Map<string, TankFacts> {
    const [dayOf, agentsAt, inWater] = [holds.daysAt(nowMs), holds.agentsAt(nowMs), new Map<string, string[]>()]
    const agentsOf = (waterId: string): string[] => {
      const known = inWater.get(waterId) ?? agentWordsIn(agentsAt(waterId))
      inWater.set(waterId, known)
      return known
    }
    const salinityOf = ({ water }: TankFacts): number | null => (agentsOf(water.id).includes(lowered) ? (newestReading([...tanks.values()].filter((each) => each.water.id === water.id), 'salinityPpt') ?? water.houseSalinityPpt ?? null) : (water.houseSalinityPpt ?? null))
    const untilOf = new Map(binders(nowMs).map(({ waterId, untilMs }) => [waterId, untilMs]))
    return new Map([...tanks].map(([id, tank]) => {
      const [days, agents, binderUntilMs, salinityPpt] = [tank.lots.map(({ lotId }) => dayOf(lotId, id)), agentsOf(tank.water.id), untilOf.get(tank.water.id) ?? null, salinityOf(tank)]
      const isSame = agents.join() === tank.agents.join() && salinityPpt === tank.water.salinityPpt && binderUntilMs === (tank.binderUntilMs ?? null) && days.every((day, index) => isSameDay(day, tank.lots[index]?.hold ?? null))
      return [id, isSame ? tank : { ...tank, agents, binderUntilMs, water: { ...tank.water, salinityPpt }, lots: tank.lots.map((lot, index) => ({ ...lot, hold: days[index] ?? null })) }]
    }))
  }

  /** What was read before, as long as nothing was written since; null where it is to be read anew. */
  const keptAt = (nowMs: number): ReadonlyMap<string, TankFacts> | null => (known?.version === store.version() && known.quarter === quarterOf(nowMs) ? known.tanks : null)

  /** Commands since the tanks were read, in one unbroken row of changes; null once something else was written. */
  let touched: { version: string; keys: string[] } | null = null
  function listen({ command, written }: Pick<Change, 'command' | 'written'>): void {
    if (!written) return
    if (!touched || written.before !== touched.version || !touching.has(command) || touched.keys.length >= mostTouched) touched = null
    else touched = { version: written.after, keys: [...touched.keys, written.key] }
  }

  /** All tanks there ever were, by id and in rack order. */
  function all(nowMs: number): ReadonlyMap<string, TankFacts> {
    const kept = keptAt(nowMs)
    if (kept) return kept
    const [version, hour, quarter] = [store.version(), hourOf(nowMs), quarterOf(nowMs)]
    if (known?.version === version && known.hour === hour) known = { ...known, quarter, tanks: withHolds(known.tanks, nowMs) }
    else if (known?.hour === hour && touched?.version === version) {
      const ids = [...new Set(touched.keys.flatMap(store.tanksTouchedBy))]
      // What one command did may have begun holds again far from the tank it was about.
      known = { version, hour, quarter, tanks: withHolds(new Map([...known.tanks, ...ids.flatMap((id) => [...readAll(id, nowMs)])]), nowMs) }
    } else known = { version, hour, quarter, tanks: withHolds(readAll(null, nowMs), nowMs) }
    touched = { version, keys: [] }
    return known.tanks
  }

  const tank = (id: string, nowMs: number): TankFacts | null => (keptAt(nowMs) ?? withHolds(readAll(id, nowMs), nowMs)).get(id) ?? null

  return {
    listen,
    all,
    /** Tanks in use, in rack order. */
    inUse: (nowMs: number): TankFacts[] => [...all(nowMs).values()].filter(({ isRetired }) => !isRetired),
    /** One tank; null where there is none. Nothing is read of any other. */
    tank,

    /** A tank in use that somebody named; beside the field where there is none. */
    requireTank(id: string, path: string, nowMs: number): TankFacts {
      const named = tank(id, nowMs)
      if (!named || named.isRetired) throw fieldProblem(path, 'There is no such tank')
      return named
    },
    /** The day of its hold that a lot is in, wherever it stands; null for one that is not held. */
    holdOn: (lotId: string, nowMs: number): HoldDay | null => holds.dayOf(lotId, nowMs),
    /** The same of its fish in one place, a tank or a vessel. */
    holdIn: (lotId: string, placeId: string, nowMs: number): HoldDay | null => holds.daysAt(nowMs)(lotId, placeMark(placeId, all(nowMs).has(placeId))),

    /** Days of its hold that a lot has served; null for one that is not held, not any more, or stands in no tank. */
    heldDays: (lotId: string, nowMs: number): number | null => runningDay(holds.dayOf(lotId, nowMs)),
  }
}
export type FactsService = ReturnType<typeof createFactsService>
