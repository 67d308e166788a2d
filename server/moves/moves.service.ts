import { eachApart } from '../../core/collections/eachApart'
import { sourceKnown } from '../../core/contacts/sourceKnown'
import { byText } from '../../core/contacts/contact'
import type { TankFacts } from '../../core/facts/facts'
import type { Limits } from '../../core/limits/houseLimits'
import type { MoveAsked, MoveFrom, MoveItem, MoveOccupant, MoveReason, MoveTo } from '../../core/moves/move'
import { mergeChecks, moveCheck, withoutReasons, type MoveChecked } from '../../core/moves/moveCheck'
import type { MoveRules } from '../../core/moves/moveRules'
import type { MovedFish, StandKind } from '../../core/moves/moves.schema'
import type { MoveCheckView, MoveChoice } from '../../core/moves/moveView'
import { moveLines, sentenceOf, type MoveLine, type Names } from '../../core/moves/moveWords'
import type { BrokenRule, RuleCode } from '../../core/tankChoice/company'
import type { ChoiceTank } from '../../core/tankChoice/tankChoice'
import { eachOnce } from '../../core/tankChoice/rules'
import { doubt as doubtOfTank } from '../../core/rounds/walkingOrder'
import { daysBetween } from '../../core/time/daysBetween'
import { dayInZone } from '../../core/time/dayInZone'
import type { ContactsService } from '../contacts/contacts.service'
import type { FactsService } from '../facts/facts.service'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem } from '../http/problem'
import type { PlacingService } from '../placing/placing.service'
import type { PlacingStore } from '../placing/placing.store'
import { goingOf, type Planned, type PoolsService } from '../pools/pools.service'
import type { VesselsService } from '../vessels/vessels.service'
import { fightDays } from './fights.service'
import type { MovesStore } from './moves.store'
import type { SourcesService } from './sources.service'

const [hourMs, dayMs] = [3_600_000, 86_400_000]
/** The better first. */
const order: readonly MoveChecked['verdict'][] = ['allow', 'warn', 'lead', 'impossible']

/** Hard rules that only a move can break; the others are those of tank choice, in its words. */
const ofMoves: ReadonlySet<string> = new Set<RuleCode>(['agent-carried', 'vessel-load', 'sick-to-well', 'hold-open', 'course-open', 'promised', 'plan-fish-out'])

/** What nobody asks of fish that come back from a box into the tank they lived in: it was so before. */
const ofHome: ReadonlySet<string> = new Set<RuleCode>(['too-small', 'overload', 'own-kind', 'water-kind', 'water-unknown', 'salinity', 'temperature', 'no-common', 'not-clean', 'customer-tank'])

/** Why fish go somewhere against a rule; a keeper's counts as a rescue. */
interface AgainstRule {
  override?: string | null | undefined
  isRescue?: boolean | undefined
}

interface Collaborators {
  facts: Pick<FactsService, 'all' | 'tank' | 'inUse' | 'holdOn' | 'heldDays'>
  placing: Pick<PlacingStore, 'tanks' | 'lots'>
  pools: Pick<PoolsService, 'planOut'>
  /** The gate of tank choice, whose rules these are too. */
  gate: Pick<PlacingService, 'against' | 'refuseOrOverrule'>
  sources: Pick<SourcesService, 'ruleOf' | 'met'>
  contacts: Pick<ContactsService, 'toolsAt' | 'useBetween' | 'carryWater'>
  vessels: Pick<VesselsService, 'byId' | 'lotsIn' | 'tankOf' | 'lastTankOf' | 'filled' | 'view'>
  store: Pick<MovesStore, 'fights' | 'insertIndividual'>
  limits: () => Limits
  rules: () => MoveRules
  zone: () => string
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
}

/** A place as it stands: a tank, or a vessel with the tank whose water it has. */
interface Standing extends Stand {
  code: string
  tank: TankFacts | null
  waterId: string
  vessel: ReturnType<VesselsService['byId']>
}

interface Coming {
  lotId: string
  placeId: string
  quantity: number
}

/** Says what speaks against a move, from everything that is recorded. */
export function createMovesService({ facts, placing, gate, pools, sources, contacts, vessels, store, limits, rules, zone }: Collaborators) {
  /** The largest doubt of the tanks on a water. */
  function doubtOf(waterId: string, nowMs: number): number {
    const today = dayInZone(nowMs, zone())
    const doubts = facts.inUse(nowMs).filter(({ water }) => water.id === waterId).map(({ looks, lots }) => {
      const newest = Math.max(...lots.map(({ arrivedAtMs, isBeforeBooks }) => (isBeforeBooks ? -Infinity : arrivedAtMs)))
      return doubtOfTank({ signs: looks[0]?.signs ?? [], daysSinceArrival: Number.isFinite(newest) ? daysBetween(dayInZone(newest, zone()), today) : null }, limits().newArrivalDays)
    })
    return Math.max(0, ...doubts)
  }

  /** A place, or beside the field that there is none. */
  function stand({ kind, id }: Stand, path: string, nowMs: number): Standing {
    if (kind === 'tank') {
      const tank = facts.tank(id, nowMs)
      if (!tank || tank.isRetired) throw fieldProblem(path, 'There is no such tank')
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
    return going.flatMap(({ lotId, quantity }): MoveItem[] => {
      const [lot, here] = [known.get(lotId), standingOf(from, lotId)]
      if (!lot) return []
      const hold = facts.holdOn(lotId, nowMs)
      const isHeld = hold !== null && !hold.isServed
      return [
        {
          ...{ lot: lotId, n: quantity, have: Math.max(quantity, here?.quantity ?? 0), supplier: lot.supplier, source: sourceKnown(lot.supplier), animal: { ...lot.animal, ...(lot.tolerance ? { tolerance: lot.tolerance } : {}) } },
          ...{ heldDays: isHeld ? hold.day : null, holdDays: isHeld ? hold.of : null, restartsOnMove: false },
          movedHoursAgo: here ? Math.floor((nowMs - here.sinceMs) / hourMs) : null,
        },
      ]
    })
  }

  function asFrom(from: Standing, moving: ReadonlySet<string>, nowMs: number): MoveFrom {
    const { kind, id, waterId, tank } = from
    const others = kind === 'tank' ? (tank?.lots ?? []).filter(({ lotId }) => !moving.has(lotId)).map(({ species, quantity }) => ({ species, quantity })) : []
    return { kind, id, waterId, zoneId: tank?.zoneId ?? null, doubt: doubtOf(waterId, nowMs), tempC: tank?.water.tempC ?? null, salinityPpt: tank?.water.salinityPpt ?? null, agents: tank?.agents ?? [], others }
  }

  const onWater = (waterId: string, nowMs: number) => facts.inUse(nowMs).filter(({ water }) => water.id === waterId).flatMap(({ lots }) => lots.map(({ lotId, origin }) => ({ lot: lotId, source: sourceKnown(origin), heldDays: facts.heldDays(lotId, nowMs) })))

  const asChosen = (tanks: readonly TankFacts[], coming: Coming[], nowMs: number): ChoiceTank[] => placing.tanks({ nowMs, tanks, heldDays: (lotId) => facts.heldDays(lotId, nowMs), fightMemoryDays: limits().fightMemoryDays, coming, countsPlans: false })

  function asTank(to: Standing, coming: Coming[], nowMs: number, [known] = asChosen(to.tank ? [to.tank] : [], coming, nowMs)): MoveTo {
    if (!known || !to.tank) throw fieldProblem('to', 'There is no such tank')
    const { occupants, ...place } = known
    return {
      ...place,
      ...{ doubt: doubtOf(to.waterId, nowMs), sourcesRule: sources.ruleOf(to.tank, nowMs), onWater: onWater(to.waterId, nowMs) },
      occupants: occupants.map(({ lotId = '', animal, quantity, supplier, heldDays }): MoveOccupant => ({ lot: lotId, animal, quantity, supplier, source: sourceKnown(supplier), heldDays })),
    }
  }

  /** A vessel has the water of its tank; one that is empty is filled, or hung, where the fish are. */
  function asVessel(to: Standing, from: Standing, nowMs: number): MoveTo {
    const lots = vessels.lotsIn(to.id)
    const tank = lots.length === 0 ? from.tank : to.tank
    const known = new Map(placing.lots(lots.map(({ lotId }) => lotId), nowMs, true).map((lot) => [lot.lotId, lot]))
    const occupants = lots.flatMap(({ lotId, quantity }): MoveOccupant[] => {
      const lot = known.get(lotId)
      return lot ? [{ lot: lotId, animal: lot.animal, quantity, supplier: lot.supplier, heldDays: facts.heldDays(lotId, nowMs) }] : []
    })
    return {
      ...{ kind: 'vessel', id: to.id, code: to.code, waterId: lots.length === 0 ? from.waterId : to.waterId, zoneId: tank?.zoneId ?? null, agents: tank?.agents ?? [], netVolumeL: to.vessel?.litres ?? null, occupants },
      ...{ tempC: tank?.water.tempC ?? null, salinityPpt: tank?.water.salinityPpt ?? null, doubt: doubtOf(tank?.water.id ?? '', nowMs), onWater: [] },
      vessel: { kind: to.vessel?.kind ?? 'bucket', litres: to.vessel?.litres ?? 1, air: to.vessel?.air === 'yes', ph: tank?.water.ph ?? null },
    }
  }

  const fights = (fromId: string, toId: string, nowMs: number): MoveAsked['fights'] =>
    store.fights(nowMs - fightDays * dayMs).map(({ a, b, volumeL, harm, atMs, tankId }) => ({ a, b, volumeL, harm, daysAgo: Math.max(0, (nowMs - atMs) / dayMs), isSameFish: tankId === fromId || tankId === toId }))

  /** Everything that is asked of the check for fish that go, but where: of fish that nobody can tell apart, once for each way they may have been. */
  function asking(wanted: Omit<WantedMove, 'fish' | 'to'>, plans: readonly Planned[], nowMs: number) {
    const from = stand(wanted.from, 'from', nowMs)
    const ways = plans.map((plan) => goingOf(plan).map((going) => itemsOf(from, going, nowMs)))
    const first = ways.flatMap(([each]) => each ?? [])
    const others = ways.flatMap((all, kind) => all.slice(1).map((items) => [...ways.flatMap(([each], other) => (other === kind ? [] : (each ?? []))), ...items]))
    const coming = first.map(({ lot, n }): Coming => ({ lotId: lot, placeId: from.id, quantity: n }))
    const common = {
      from: asFrom(from, new Set(first.map(({ lot }) => lot)), nowMs),
      tools: wanted.toolSetId ? contacts.toolsAt(wanted.toolSetId, (waterId) => doubtOf(waterId, nowMs), nowMs) : null,
      ...{ now: Math.floor(nowMs / 60_000), waterGoesAlong: wanted.waterGoesAlong ?? false, met: sources.met(nowMs), roomC: limits().roomAirC },
      hospitalsFree: facts.inUse(nowMs).filter(({ purpose, lots, state }) => purpose === 'hospital' && lots.length === 0 && (state ?? 'ready') === 'ready').length,
    }
    const outside: MoveTo = { kind: 'outside', id: 'outside' }
    /** The answer for one place; `known` is the tank where it was read with others. */
    const answer = (to: Standing | null, known?: ChoiceTank): MoveChecked => {
      const place = to === null ? outside : to.kind === 'vessel' ? asVessel(to, from, nowMs) : known ? asTank(to, coming, nowMs, [known]) : asTank(to, coming, nowMs)
      const isHome = from.kind === 'vessel' && to !== null && from.tank?.tankId === to.id
      const judge = (checked: MoveChecked): MoveChecked => (isHome ? withoutReasons(checked, ofHome) : checked)
      return mergeChecks([first, ...others].map((items) => judge(moveCheck({ ...common, items, to: place, fights: fights(from.id, to?.id ?? '', nowMs) ?? [] }, limits(), rules()))))
    }
    return { coming, answer }
  }

  /** Which fish go, of each kind; beside the field where there are fewer. */
  function plansOf({ from, fish }: Pick<WantedMove, 'from' | 'fish'>, nowMs: number): Planned[] {
    const kinds = new Set<string>()
    return fish.map(({ speciesId, strain, lotIds = [], quantity }, index) => {
      const kind = JSON.stringify([speciesId, strain])
      if (kinds.has(kind)) throw fieldProblem(`fish[${index}].speciesId`, 'This kind is named twice')
      kinds.add(kind)
      const plan = pools.planOut({ placeId: from.id, kind: { speciesId, strain }, among: lotIds, quantity }, nowMs)
      if ('done' in plan) return plan
      throw fieldProblem(`fish[${index}].quantity`, plan.available === 0 ? 'None of these fish stand here now' : `Only ${plan.available} of these stand here now`)
    })
  }

  const checkPlanned = (wanted: Omit<WantedMove, 'fish'>, plans: readonly Planned[], nowMs: number): MoveChecked => asking(wanted, plans, nowMs).answer(wanted.to === 'outside' ? null : stand(wanted.to, 'to', nowMs))

  /** Names of what reasons speak of. */
  function names(nowMs: number): Names {
    const tanks = [...facts.all(nowMs).values()]
    const lots = new Map(tanks.flatMap((tank) => tank.lots.map(({ lotId, lotCode }) => [lotId, lotCode] as const)))
    const codes = new Map(tanks.map(({ tankId, code }) => [tankId, code]))
    const waterName = (id: string): string => tanks.filter(({ water, isRetired }) => !isRetired && water.id === id).map(({ code }) => code).sort(byText)[0] ?? id
    return { lot: (id) => (lots.has(id) ? `lot ${lots.get(id)}` : 'a lot'), place: (id) => codes.get(id) ?? vessels.byId(id)?.name ?? id, water: waterName }
  }

  /** Rules against which a lead decides: into a tank those of tank choice and of moves, into a vessel whatever the check says. */
  function broken(way: Omit<WantedMove, 'fish'> & { to: Stand }, plans: readonly Planned[], nowMs: number): BrokenRule[] {
    const named = names(nowMs)
    const found = checkPlanned(way, plans, nowMs).reasons.filter(({ level }) => level === 'lead')
    const inWords = (reasons: readonly MoveReason[]): BrokenRule[] => reasons.map((each) => ({ code: each.code as RuleCode, why: sentenceOf(each, named).replace(/\.$/, '') }))
    const more = inWords(found.filter(({ code }) => way.to.kind === 'vessel' || ofMoves.has(code)))
    if (way.to.kind === 'vessel') return more
    const from = stand(way.from, 'from', nowMs)
    const going = plans.flatMap(goingOf).map((all) => (from.kind === 'tank' ? all : all.map(({ lotId, quantity }) => ({ lotId, quantity, fromWaterId: from.waterId }))))
    const ofTank = eachOnce(going.flatMap((all) => gate.against({ going: all, tankId: way.to.id }, nowMs)))
    const isHome = from.kind === 'vessel' && from.tank?.tankId === way.to.id
    // Kinds that go together weigh together; each alone is asked of the gate.
    const heavy = plans.length > 1 && !isHome && !ofTank.some(({ code }) => code === 'overload') ? inWords(found.filter(({ code }) => code === 'overload')) : []
    return [...ofTank.filter(({ code }) => !isHome || !ofHome.has(code)), ...heavy, ...more]
  }

  return {
    stand,
    plansOf,

    /**
     * Lets fish move, or says beside the field why not: the check is made anew inside the transaction of the move, because
     * what two people saw may be old.
     * @throws Problem `breaks-rule` with the rules by code and in words.
     */
    require(context: CommandContext, { plans, path, override, isRescue, ...way }: Omit<WantedMove, 'fish' | 'to'> & { to: Stand; plans: readonly Planned[]; path: string } & AgainstRule): void {
      const { nowMs } = context
      const [from, to] = [stand(way.from, path, nowMs), stand(way.to, path, nowMs)]
      if (from.id === to.id) throw fieldProblem(path, 'They are there already')
      const lots = placing.lots([...new Set(plans.flatMap(goingOf).flat().map(({ lotId }) => lotId))], nowMs)
      const tankId = to.kind === 'tank' ? to.id : (to.tank?.tankId ?? from.tank?.tankId ?? vessels.lastTankOf(to.id) ?? vessels.lastTankOf(from.id) ?? '')
      gate.refuseOrOverrule(context, { lots, tank: { id: tankId, code: to.code }, isVessel: to.kind === 'vessel', broken: broken(way, plans, nowMs), path, override, isRescue })
    },

    /**
     * Writes down what goes with a move, before its fish are booked: which net was in both waters, what water went along, and
     * whose water a vessel has. An empty one is filled, or hung, where the fish are.
     */
    carried(context: CommandContext, { from, to, toolSetId = null, waterGoesAlong = false }: Omit<WantedMove, 'fish' | 'to'> & { to: Stand }, happenedAtMs: number): void {
      const [left, came] = [stand(from, 'from', context.nowMs), stand(to, 'to', context.nowMs)]
      const wasEmpty = to.kind === 'vessel' && vessels.lotsIn(to.id).length === 0
      const [fromNode, toNode] = [`water:${left.waterId}`, `water:${wasEmpty ? left.waterId : came.waterId}`]
      if (toolSetId !== null) contacts.useBetween(context, toolSetId, [fromNode, toNode], happenedAtMs)
      if (waterGoesAlong && fromNode !== toNode) contacts.carryWater(context, fromNode, toNode, happenedAtMs)
      if (to.kind === 'vessel') vessels.filled(context, { vesselId: to.id, tankId: left.tank?.tankId ?? null, wasEmpty, atMs: happenedAtMs })
    },

    /** Keeps which fish were chosen one by one. */
    chose({ key }: CommandContext, fish: readonly MovedFish[]): void {
      for (const { speciesId, chosen = [] } of fish) for (const { sex, mark } of chosen) store.insertIndividual({ speciesId, sex: sex ?? null, mark: mark?.trim() || null, commandKey: key })
    },

    /** What a place says of fish that stand in it, as if they came in: of such as are known to be something else now. */
    asIfCame(place: Stand, fish: readonly { lotId: string; quantity: number }[], nowMs: number): MoveLine[] {
      const to = stand(place, 'tankId', nowMs)
      const from: MoveFrom = { kind: 'bag', id: 'as if', waterId: to.waterId, tempC: to.tank?.water.tempC ?? null, salinityPpt: to.tank?.water.salinityPpt ?? null }
      const items = itemsOf(to, fish, nowMs)
      const coming = fish.map(({ lotId, quantity }): Coming => ({ lotId, placeId: to.id, quantity }))
      const here = to.kind === 'tank' ? asTank(to, coming, nowMs) : asVessel(to, to, nowMs)
      const occupants = (here.occupants ?? []).filter(({ lot }) => !fish.some(({ lotId }) => lotId === lot))
      const { reasons } = moveCheck({ items, from, to: { ...here, occupants }, now: Math.floor(nowMs / 60_000) }, limits(), rules())
      return moveLines(reasons.filter(({ level }) => level === 'lead' || level === 'warn'), names(nowMs))
    },

    /** Where fish may go: every other tank and vessel, where nothing speaks against it first, then by the costs of choosing it. */
    choices({ from, fish }: Pick<WantedMove, 'from' | 'fish'>, nowMs: number): { places: MoveChoice[] } {
      const doubt = doubtOf(stand(from, 'from', nowMs).waterId, nowMs)
      const { coming, answer } = asking({ from }, plansOf({ from, fish }, nowMs), nowMs)
      const named = names(nowMs)
      const tanks = facts.inUse(nowMs).filter(({ tankId }) => tankId !== from.id)
      const known = new Map(asChosen(tanks, coming, nowMs).map((tank) => [tank.id, tank]))
      const choice = (to: Stand, quantity: number, label: string | null, tank?: ChoiceTank): MoveChoice => {
        const standing = stand(to, 'to', nowMs)
        const { verdict, points, reasons } = answer(standing, tank)
        const [first] = moveLines(reasons, named)
        return { ...to, code: standing.code, verdict, points, words: first && first.level !== 'note' ? first.words : null, fish: quantity, label }
      }
      const places = [
        ...eachApart(tanks, (tank) => [choice({ kind: 'tank', id: tank.tankId }, tank.lots.reduce((sum, { quantity }) => sum + quantity, 0), tank.lots[0]?.species ?? null, known.get(tank.tankId))], () => []).flat(),
        ...eachApart(vessels.view(nowMs).vessels.filter(({ id }) => id !== from.id), ({ id, kind, fish: there }) => [choice({ kind: 'vessel', id }, there.reduce((sum, { quantity }) => sum + quantity, 0), there[0]?.species ?? kind)], () => []).flat(),
      ]
      // Nobody moves sound fish to the sick, or into a tank that is kept for them, because nothing speaks against it.
      const isApart = ({ kind, id }: MoveChoice): boolean => {
        const tank = kind === 'tank' ? facts.tank(id, nowMs) : null
        return tank !== null && (tank.purpose === 'hospital' || tank.purpose === 'quarantine' || tank.purpose === 'customer' || doubtOf(tank.water.id, nowMs) > doubt)
      }
      const ranked = places.map((place) => ({ place, rank: [Number(place.verdict === 'lead' || place.verdict === 'impossible'), Number(isApart(place)), order.indexOf(place.verdict), place.points] as const }))
      ranked.sort((a, b) => a.rank[0] - b.rank[0] || a.rank[1] - b.rank[1] || a.rank[2] - b.rank[2] || a.rank[3] - b.rank[3] || byText(a.place.code, b.place.code))
      return { places: ranked.map(({ place }) => place) }
    },

    /** The check as it is shown before anything is netted. */
    check(wanted: WantedMove, nowMs: number): MoveCheckView {
      const { verdict, reasons, points, looks } = checkPlanned(wanted, plansOf(wanted, nowMs), nowMs)
      return { verdict, points, looks, lines: moveLines(reasons, names(nowMs)), needsIntroduction: reasons.some(({ code }) => code === 'introduce') }
    },
  }
}
export type MovesService = ReturnType<typeof createMovesService>
