import type { FactEvent, LotFacts, TankFacts } from '../../core/facts/facts'
import { foldAll, nothingKnown } from '../../core/facts/foldFacts'
import { holdOf } from '../../core/facts/askFacts'
import { groupBy } from '../../core/collections/groupBy'
import type { Limits } from '../../core/limits/houseLimits'
import type { Change } from '../events/changes'
import { fieldProblem } from '../http/problem'
import type { FactsStore, Horizon } from './facts.store'

const [hourMs, dayMs] = [3_600_000, 86_400_000]
const hourOf = (nowMs: number): number => Math.floor(nowMs / hourMs)
/** Looks, readings and doses of so many days are judged together. */
const lookDays = 10
/** Losses speak for so long, whatever Today shows of them. */
const lossDays = 7

/** Commands that write nothing of tanks but movements and looks at them: what they touched is read anew, and nothing else. */
const touching = new Set(['tickHandover', 'leaveWord', 'takeWordOff', 'askChore', 'endChore', 'addChore', 'editChore', 'retireChore', 'doChore', 'undoChore', 'changeSupplies', 'tickKitchen', 'undoTick', 'changeFoodStock', 'orderFeeding', 'endFeeding', 'recordCheck', 'recordLoss', 'moveFish', 'moveTogether', 'releaseFish', 'correctCount', 'findFish', 'addFish', 'reverseMovement'])
/** More at once is read anew as a whole. */
const mostTouched = 200

interface Collaborators {
  store: FactsStore
  limits: () => Pick<Limits, 'recentLossDays' | 'fightMemoryDays' | 'shopHoldDays'>
  zone: () => string
}

/** What is known of tanks, read once for everybody until something is written. */
export function createFactsService({ store, limits, zone }: Collaborators) {
  let known: { version: string; hour: number; tanks: ReadonlyMap<string, TankFacts> } | null = null

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

  /** What was read before, as long as nothing was written since; null where it is to be read anew. */
  const keptAt = (nowMs: number): ReadonlyMap<string, TankFacts> | null => (known?.version === store.version() && known.hour === hourOf(nowMs) ? known.tanks : null)

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
    const [version, hour] = [store.version(), hourOf(nowMs)]
    if (known?.hour === hour && touched?.version === version) {
      const ids = [...new Set(touched.keys.flatMap(store.tanksTouchedBy))]
      known = { version, hour, tanks: new Map([...known.tanks, ...ids.flatMap((id) => [...readAll(id, nowMs)])]) }
    } else known = { version, hour, tanks: readAll(null, nowMs) }
    touched = { version, keys: [] }
    return known.tanks
  }

  const tank = (id: string, nowMs: number): TankFacts | null => (keptAt(nowMs) ?? readAll(id, nowMs)).get(id) ?? null

  /** The day of its hold that a lot is in at a moment; null for one that came in no bag. */
  const holdOn = (lotId: string, atMs: number) => holdOf({ openedAtMs: store.openedAt(lotId), restartsMs: store.restarts(lotId) }, limits(), atMs, zone())

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
    holdOn,
    /** Whether a lot is in its hold. */
    isHeld: (lot: LotFacts, nowMs: number): boolean => holdOf(lot, limits(), nowMs, zone())?.isServed === false,

    /** Days of its hold that a lot has served; null for one that is not held, not any more, or stands in no tank. */
    heldDays(lotId: string, nowMs: number): number | null {
      const hold = holdOn(lotId, nowMs)
      return hold && !hold.isServed ? hold.day : null
    },
  }
}
export type FactsService = ReturnType<typeof createFactsService>
