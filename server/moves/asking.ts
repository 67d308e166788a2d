import type { HoldsService } from '../holds/holds.service'
import type { OpenPairing } from '../../core/moves/move'
import { runningDay } from '../../core/holds/holdDay'
import { groupBy } from '../../core/collections/groupBy'
import { sourceKnown } from '../../core/contacts/sourceKnown'
import type { TankFacts } from '../../core/facts/facts'
import type { Limits } from '../../core/limits/houseLimits'
import type { MoveFrom, MoveItem, MoveOccupant, MoveTo } from '../../core/moves/move'
import { mergeChecks, moveCheck, withoutReasons, type MoveChecked } from '../../core/moves/moveCheck'
import type { MoveRules } from '../../core/moves/moveRules'
import type { MovedFish, StandKind } from '../../core/moves/moves.schema'
import { roundStates } from '../../core/rounds/roundState'
import type { ChoiceTank } from '../../core/tankChoice/tankChoice'
import type { ContactsService } from '../contacts/contacts.service'
import type { FactsService } from '../facts/facts.service'
import { fieldProblem } from '../http/problem'
import type { PlansService } from '../plans/plans.service'
import type { PlacingStore } from '../placing/placing.store'
import { goingOf, type Planned } from '../pools/pools.service'
import type { LevelsService } from '../rounds/levels.service'
import type { VesselsService } from '../vessels/vessels.service'
import { fightDays } from './fights.service'
import type { MovesStore } from './moves.store'
import { ofHome } from './ruleSets'
import type { SourcesService } from './sources.service'

const [minuteMs, hourMs, dayMs] = [60_000, 3_600_000, 86_400_000]

/** Until when a binder works in the water of a tank, in minutes as moves are judged by. */
const binderOf = (tank: TankFacts | null | undefined): number | null => (tank?.binderUntilMs == null ? null : Math.floor(tank.binderUntilMs / minuteMs))

export interface AskingOf {
  facts: Pick<FactsService, 'requireTank' | 'inUse' | 'holdIn' | 'heldDays'>
  placing: Pick<PlacingStore, 'tanks' | 'lots'>
  sources: Pick<SourcesService, 'ruleOf' | 'met'>
  contacts: Pick<ContactsService, 'toolsAt'>
  vessels: Pick<VesselsService, 'byId' | 'lotsIn' | 'tankOf'>
  /** Plans that count on fish. */
  waiting: Pick<PlansService, 'fishBooked' | 'wordOf' | 'bookings'>
  store: Pick<MovesStore, 'fights'>
  levels: Pick<LevelsService, 'onWater'>
  limits: () => Limits
  rules: () => MoveRules
  /** What a move would do to holds. */
  clocks: Pick<HoldsService, 'supposeMoved'>
  /** Lots that stay apart until their pairing is passed. */
  openPairings: (nowMs: number) => OpenPairing[]
}

/** Where fish stand, or are to stand. */
export interface Stand {
  kind: StandKind
  id: string
}

/** A move as it is asked for. */
export interface WantedMove {
  from: Stand
  to: Stand | 'outside'
  fish: readonly MovedFish[]
  toolSetId?: string | null
  waterGoesAlong?: boolean
  /** The plan that is carried out. */
  planId?: string | null | undefined
}

/** A place as it stands: a tank, or a vessel with the tank whose water it has. */
export interface Standing extends Stand {
  code: string
  tank: TankFacts | null
  waterId: string
  vessel: ReturnType<VesselsService['byId']>
}

export interface Coming {
  lotId: string
  placeId: string
  quantity: number
}

/** Gathers from everything that is recorded what the check of a move is asked. */
export function createAsking({ facts, placing, sources, contacts, vessels, waiting, store, levels, limits, rules, clocks, openPairings }: AskingOf) {
  /** What is read of the whole room once, however many places are asked about. */
  function seen(nowMs: number) {
    const tanks = facts.inUse(nowMs)
    const byWater = groupBy(tanks, ({ water }) => water.id)
    return {
      nowMs,
      tanks,
      /** The largest doubt of the tanks on a water. */
      doubtOf: (waterId: string): number => Math.max(0, ...levels.onWater(waterId, byWater.get(waterId) ?? [], nowMs).map(({ state }) => roundStates.indexOf(state))),
      onWater: (waterId: string) => (byWater.get(waterId) ?? []).flatMap(({ lots }) => lots.map(({ lotId, origin, hold }) => ({ lot: lotId, source: sourceKnown(origin), heldDays: runningDay(hold) }))),
      fights: store.fights(nowMs - fightDays * dayMs).map(({ a, b, volumeL, harm, atMs, tankId }) => ({ a, b, volumeL, harm, daysAgo: Math.max(0, (nowMs - atMs) / dayMs), tankId })),
    }
  }

  /** A place, or beside the field that there is none. */
  function stand({ kind, id }: Stand, path: string, nowMs: number): Standing {
    if (kind === 'tank') {
      const tank = facts.requireTank(id, path, nowMs)
      return { kind, id, code: tank.code, tank, waterId: tank.water.id, vessel: null }
    }
    const vessel = vessels.byId(id)
    if (!vessel) throw fieldProblem(path, 'There is no such bucket or box')
    const tank = vessels.lotsIn(id).length === 0 ? null : vessels.tankOf(id, nowMs)
    return { kind, id, code: vessel.name, tank, waterId: tank?.water.id ?? id, vessel }
  }

  /** When the fish of a lot came to where they stand, and how many are there. */
  function standingOf(from: Standing, lotId: string): { quantity: number; sinceMs: number } | undefined {
    const lots: readonly { lotId: string; quantity: number; sinceMs: number }[] = from.kind === 'tank' ? (from.tank?.lots ?? []) : vessels.lotsIn(from.id)
    return lots.find((each) => each.lotId === lotId)
  }

  function itemsOf(from: Standing, going: readonly { lotId: string; quantity: number }[], nowMs: number): MoveItem[] {
    // They stand here already, and may have grown.
    const known = new Map(placing.lots(going.map(({ lotId }) => lotId), nowMs, true).map((lot) => [lot.lotId, lot]))
    const booked = waiting.fishBooked(from.id, going, nowMs)
    return going.flatMap(({ lotId, quantity }): MoveItem[] => {
      const [lot, here] = [known.get(lotId), standingOf(from, lotId)]
      if (!lot) return []
      const hold = facts.holdIn(lotId, from.id, nowMs)
      return [
        {
          ...{ lot: lotId, n: quantity, have: Math.max(quantity, here?.quantity ?? 0), supplier: lot.supplier, source: sourceKnown(lot.supplier), animal: { ...lot.animal, ...(lot.tolerance ? { tolerance: lot.tolerance } : {}) } },
          ...{ heldDays: runningDay(hold), holdDays: runningDay(hold) === null ? null : (hold?.of ?? null), restartsOnMove: false },
          bookings: (booked.get(lotId) ?? []).map((each) => ({ ...each, why: 'plan' as const })),
          movedHoursAgo: here ? Math.floor((nowMs - here.sinceMs) / hourMs) : null,
        },
      ]
    })
  }

  function asFrom(from: Standing, moving: ReadonlySet<string>, { doubtOf }: Seen): MoveFrom {
    const { kind, id, waterId, tank } = from
    const others = kind === 'tank' ? (tank?.lots ?? []).filter(({ lotId }) => !moving.has(lotId)).map(({ species, quantity }) => ({ species, quantity })) : []
    return { kind, id, waterId, zoneId: tank?.zoneId ?? null, doubt: doubtOf(waterId), tempC: tank?.water.tempC ?? null, salinityPpt: tank?.water.salinityPpt ?? null, agents: tank?.agents ?? [], binderUntil: binderOf(tank), others }
  }

  const asChosen = (tanks: readonly TankFacts[], coming: Coming[], nowMs: number): ChoiceTank[] => placing.tanks({ nowMs, tanks, heldDays: (lotId) => facts.heldDays(lotId, nowMs), fightMemoryDays: limits().fightMemoryDays, coming, countsPlans: false })

  function asTank(to: Standing, known: ChoiceTank | undefined, coming: readonly Coming[], { doubtOf, onWater, nowMs }: Seen): MoveTo {
    if (!known || !to.tank) throw fieldProblem('to', 'There is no such tank')
    const { occupants, bookings = [], ...place } = known
    const planned = waiting.bookings(nowMs).filter(({ tankId, isReady, fish }) => tankId === to.id && !isReady && !coming.some(({ lotId }) => fish.some((each) => each.lotId === lotId)))
    return {
      ...{ ...place, bookings: [...bookings, ...planned] },
      ...{ doubt: doubtOf(to.waterId), sourcesRule: sources.ruleOf(to.tank, nowMs), onWater: onWater(to.waterId), binderUntil: binderOf(to.tank) },
      occupants: occupants.map(({ lotId = '', animal, quantity, supplier, heldDays }): MoveOccupant => ({ lot: lotId, animal, quantity, supplier, source: sourceKnown(supplier), heldDays })),
    }
  }

  /** A vessel has the water of its tank; one that is empty is filled, or hung, where the fish are. */
  function asVessel(to: Standing, from: Standing, { doubtOf, nowMs }: Seen): MoveTo {
    const lots = vessels.lotsIn(to.id)
    const tank = lots.length === 0 ? from.tank : to.tank
    const known = new Map(placing.lots(lots.map(({ lotId }) => lotId), nowMs, true).map((lot) => [lot.lotId, lot]))
    const occupants = lots.flatMap(({ lotId, quantity }): MoveOccupant[] => {
      const lot = known.get(lotId)
      return lot ? [{ lot: lotId, animal: lot.animal, quantity, supplier: lot.supplier, heldDays: runningDay(facts.holdIn(lotId, to.id, nowMs)) }] : []
    })
    return {
      ...{ kind: 'vessel', id: to.id, code: to.code, waterId: lots.length === 0 ? from.waterId : to.waterId, zoneId: tank?.zoneId ?? null, agents: tank?.agents ?? [], netVolumeL: to.vessel?.litres ?? null, occupants },
      ...{ tempC: tank?.water.tempC ?? null, salinityPpt: tank?.water.salinityPpt ?? null, doubt: doubtOf(tank?.water.id ?? ''), onWater: [] },
      vessel: { kind: to.vessel?.kind ?? 'bucket', litres: to.vessel?.litres ?? 1, air: to.vessel?.air === 'yes', ph: tank?.water.ph ?? null },
    }
  }

  /** A place that fish come to; a tank is read unless it was with others. */
  function asPlace(to: Standing, from: Standing, coming: Coming[], room: Seen, known?: ChoiceTank): MoveTo {
    if (to.kind === 'vessel') return asVessel(to, from, room)
    return asTank(to, known ?? asChosen(to.tank ? [to.tank] : [], coming, room.nowMs)[0], coming, room)
  }

  /** What the move would do to holds, by playing it: who begins again there, and who would stand with held fish unprotected. */
  function withClocks(to: MoveTo, coming: readonly Coming[], fromId: string, nowMs: number): MoveTo {
    if (to.kind === 'vessel' || to.id === undefined) return to
    const { rows, unprotected } = clocks.supposeMoved(coming, fromId, to.id, nowMs)
    const ownLost = rows.flatMap(({ lot, tank, lost }) => (tank === to.id && lost > 0 && coming.some(({ lotId }) => lotId === lot) ? [[lot, lost] as const] : []))
    const lostOn = (lot: string): number => Math.max(0, ...rows.filter((row) => row.lot === lot).map((row) => row.lost))
    return {
      ...to,
      onWater: (to.onWater ?? []).map((each) => ({ ...each, restarts: lostOn(each.lot) > 0, lostDays: lostOn(each.lot) })),
      ownLost: Object.fromEntries(ownLost),
      unprotected: [...new Set(unprotected.map(({ lot }) => lot))],
    }
  }

  /** Everything that is asked of the check for fish that go, but where: of fish that nobody can tell apart, once for each way they may have been. */
  function asking(wanted: Omit<WantedMove, 'fish' | 'to'>, plans: readonly Planned[], nowMs: number) {
    const from = stand(wanted.from, 'from', nowMs)
    const room = seen(nowMs)
    const ways = plans.map((plan) => goingOf(plan).map((going) => itemsOf(from, going, nowMs)))
    const first = ways.flatMap(([each]) => each ?? [])
    const others = ways.flatMap((all, kind) => all.slice(1).map((items) => [...ways.flatMap(([each], other) => (other === kind ? [] : (each ?? []))), ...items]))
    const coming = first.map(({ lot, n }): Coming => ({ lotId: lot, placeId: from.id, quantity: n }))
    const common = {
      from: asFrom(from, new Set(first.map(({ lot }) => lot)), room),
      tools: wanted.toolSetId ? contacts.toolsAt(wanted.toolSetId, room.doubtOf, nowMs) : null,
      ...{ now: Math.floor(nowMs / 60_000), waterGoesAlong: wanted.waterGoesAlong ?? false, met: sources.met(nowMs), pairings: openPairings(nowMs), roomC: limits().roomAirC, byPlan: waiting.wordOf(wanted.planId, nowMs) },
      hospitalsFree: room.tanks.filter(({ purpose, lots, state }) => purpose === 'hospital' && lots.length === 0 && (state ?? 'ready') === 'ready').length,
    }
    const outside: MoveTo = { kind: 'outside', id: 'outside' }
    /** The answer for one place; `known` is the tank where it was read with others. */
    const answer = (to: Standing | null, known?: ChoiceTank): MoveChecked => {
      const place = to === null ? outside : withClocks(asPlace(to, from, coming, room, known), coming, from.id, nowMs)
      const fights = room.fights.map(({ tankId, ...fight }) => ({ ...fight, isSameFish: tankId === from.id || tankId === to?.id }))
      const isHome = from.kind === 'vessel' && to !== null && from.tank?.tankId === to.id
      const judge = (checked: MoveChecked): MoveChecked => (isHome ? withoutReasons(checked, ofHome) : checked)
      return mergeChecks([first, ...others].map((items) => judge(moveCheck({ ...common, items, to: place, fights }, limits(), rules()))))
    }
    return { coming, room, answer }
  }

  type Seen = ReturnType<typeof seen>

  return { stand, seen, itemsOf, asChosen, asPlace, asking }
}
