import { byText } from '../../core/contacts/contact'
import type { TankFacts } from '../../core/facts/facts'
import type { Limits } from '../../core/limits/houseLimits'
import type { MoveAsked, MoveItem, MoveOccupant, SourcesMet } from '../../core/moves/move'
import { mergeChecks, moveCheck, type MoveChecked } from '../../core/moves/moveCheck'
import type { MoveRules, SourcesRule } from '../../core/moves/moveRules'
import type { MovedFish } from '../../core/moves/moves.schema'
import type { MoveCheckView } from '../../core/moves/moveView'
import { moveLines, sentenceOf, type Names } from '../../core/moves/moveWords'
import type { BrokenRule, RuleCode } from '../../core/tankChoice/company'
import { eachOnce } from '../../core/tankChoice/rules'
import { doubt } from '../../core/rounds/walkingOrder'
import { daysBetween } from '../../core/time/daysBetween'
import { dayInZone } from '../../core/time/dayInZone'
import type { ContactsService } from '../contacts/contacts.service'
import type { FactsService } from '../facts/facts.service'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem } from '../http/problem'
import type { PlacingService } from '../placing/placing.service'
import type { PlacingStore } from '../placing/placing.store'
import { goingOf, type Planned, type PoolsService } from '../pools/pools.service'

const hourMs = 3_600_000

/** Hard rules that only a move can break; the others are those of tank choice, in its words. */
const ofMoves: ReadonlySet<string> = new Set<RuleCode>(['agent-carried', 'vessel-load', 'sick-to-well', 'hold-open', 'sources', 'course-open', 'promised', 'plan-fish-out'])

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
  contacts: Pick<ContactsService, 'meetings' | 'toolsAt' | 'useBetween' | 'carryWater'>
  limits: () => Limits
  rules: () => MoveRules
  zone: () => string
}

/** A move as it is asked for. */
export interface WantedMove {
  fromTankId: string
  toTankId: string
  fish: readonly MovedFish[]
  toolSetId?: string | null
  waterGoesAlong?: boolean
}

/** Says what speaks against a move, from everything that is recorded. */
export function createMovesService({ facts, placing, gate, pools, contacts, limits, rules, zone }: Collaborators) {
  /** The largest doubt of the tanks on a water. */
  function doubtOf(waterId: string, nowMs: number): number {
    const today = dayInZone(nowMs, zone())
    const doubts = facts.inUse(nowMs).filter(({ water }) => water.id === waterId).map(({ looks, lots }) => {
      const newest = Math.max(...lots.map(({ arrivedAtMs, isBeforeBooks }) => (isBeforeBooks ? -Infinity : arrivedAtMs)))
      return doubt({ signs: looks[0]?.signs ?? [], daysSinceArrival: Number.isFinite(newest) ? daysBetween(dayInZone(newest, zone()), today) : null }, limits().newArrivalDays)
    })
    return Math.max(0, ...doubts)
  }

  /** A water whose tanks all sell, show or grow mixes on purpose; what its zone says comes before that. */
  function sourcesRuleOf(tank: TankFacts, nowMs: number): SourcesRule {
    const alike = facts.inUse(nowMs).filter(({ zoneId, water }) => (tank.zoneId === null ? water.id === tank.water.id : zoneId === tank.zoneId))
    return alike.every(({ purpose }) => purpose === null || purpose === 'sale' || purpose === 'display' || purpose === 'grow-out') ? 'warn' : rules().sourcesRule
  }

  function met(nowMs: number): SourcesMet[] {
    return contacts.meetings(nowMs).map(({ a, b, togetherMinutes }) => (togetherMinutes > 0 ? { a, b, state: 'together', days: Math.floor(togetherMinutes / 1440) } : { a, b, state: 'contact', days: null }))
  }

  function itemsOf(from: TankFacts, going: readonly { lotId: string; quantity: number }[], nowMs: number): MoveItem[] {
    // They stand here already, and may have grown.
    const known = new Map(placing.lots(going.map(({ lotId }) => lotId), nowMs, true).map((lot) => [lot.lotId, lot]))
    return going.flatMap(({ lotId, quantity }): MoveItem[] => {
      const [lot, here] = [known.get(lotId), from.lots.find((each) => each.lotId === lotId)]
      if (!lot) return []
      const hold = facts.holdOn(lotId, nowMs)
      const isHeld = hold !== null && !hold.isServed
      return [
        {
          ...{ lot: lotId, n: quantity, have: Math.max(quantity, here?.quantity ?? 0), supplier: lot.supplier, animal: { ...lot.animal, ...(lot.tolerance ? { tolerance: lot.tolerance } : {}) } },
          ...{ heldDays: isHeld ? hold.day : null, holdDays: isHeld ? hold.of : null, restartsOnMove: false },
          movedHoursAgo: here ? Math.floor((nowMs - here.sinceMs) / hourMs) : null,
        },
      ]
    })
  }

  /** What is asked of the check for fish that go; of fish that nobody can tell apart, once for each way they may have been. */
  function asked(wanted: WantedMove, plans: readonly Planned[], nowMs: number): MoveAsked[] {
    const [from, to] = [requireTank(wanted.fromTankId, 'tankId', nowMs), requireTank(wanted.toTankId, 'toTankId', nowMs)]
    const ways = plans.map((plan) => goingOf(plan).map((going) => itemsOf(from, going, nowMs)))
    const first = ways.flatMap(([each]) => each ?? [])
    const others = ways.flatMap((all, kind) => all.slice(1).map((items) => [...ways.flatMap(([each], other) => (other === kind ? [] : (each ?? []))), ...items]))
    const moving = new Set(first.map(({ lot }) => lot))
    const [tank] = placing.tanks({ nowMs, tanks: [to], heldDays: (lotId) => facts.heldDays(lotId, nowMs), fightMemoryDays: limits().fightMemoryDays, coming: first.map(({ lot, n }) => ({ lotId: lot, placeId: from.tankId, quantity: n })), countsPlans: false })
    if (!tank) throw fieldProblem('toTankId', 'There is no such tank')
    const { occupants, ...place } = tank
    const tools = wanted.toolSetId ? contacts.toolsAt(wanted.toolSetId, (waterId) => doubtOf(waterId, nowMs), nowMs) : null
    const common = {
      from: { id: from.tankId, waterId: from.water.id, zoneId: from.zoneId, doubt: doubtOf(from.water.id, nowMs), tempC: from.water.tempC, salinityPpt: from.water.salinityPpt, agents: from.agents, others: from.lots.filter(({ lotId }) => !moving.has(lotId)).map(({ species, quantity }) => ({ species, quantity })) },
      to: {
        ...place,
        ...{ doubt: doubtOf(to.water.id, nowMs), sourcesRule: sourcesRuleOf(to, nowMs) },
        occupants: occupants.map(({ lotId = '', animal, quantity, supplier, heldDays }): MoveOccupant => ({ lot: lotId, animal, quantity, supplier, heldDays })),
        onWater: facts.inUse(nowMs).filter(({ water }) => water.id === to.water.id).flatMap(({ lots }) => lots.map(({ lotId, origin }) => ({ lot: lotId, source: origin, heldDays: facts.heldDays(lotId, nowMs) }))),
      },
      ...{ now: Math.floor(nowMs / 60_000), tools, waterGoesAlong: wanted.waterGoesAlong ?? false, met: met(nowMs), roomC: limits().roomAirC },
      hospitalsFree: facts.inUse(nowMs).filter(({ purpose, lots, state }) => purpose === 'hospital' && lots.length === 0 && (state ?? 'ready') === 'ready').length,
    }
    return [first, ...others].map((items) => ({ ...common, items }))
  }

  function requireTank(id: string, path: string, nowMs: number): TankFacts {
    const tank = facts.tank(id, nowMs)
    if (!tank || tank.isRetired) throw fieldProblem(path, 'There is no such tank')
    return tank
  }

  /** Which fish go, of each kind; beside the field where there are fewer. */
  function plansOf({ fromTankId, fish }: WantedMove, nowMs: number): Planned[] {
    return fish.map(({ speciesId, strain, lotIds = [], quantity }, index) => {
      const plan = pools.planOut({ placeId: fromTankId, kind: { speciesId, strain }, among: lotIds, quantity }, nowMs)
      if ('done' in plan) return plan
      throw fieldProblem(`fish[${index}].quantity`, plan.available === 0 ? 'None of these fish stand in this tank now' : `Only ${plan.available} of these stand in this tank now`)
    })
  }

  function checkPlanned(wanted: WantedMove, plans: readonly Planned[], nowMs: number): MoveChecked {
    return mergeChecks(asked(wanted, plans, nowMs).map((each) => moveCheck(each, limits(), rules())))
  }

  /** Names of what reasons speak of. */
  function names(nowMs: number): Names {
    const tanks = [...facts.all(nowMs).values()]
    const lots = new Map(tanks.flatMap((tank) => tank.lots.map(({ lotId, lotCode }) => [lotId, lotCode] as const)))
    const codes = new Map(tanks.map(({ tankId, code }) => [tankId, code]))
    const waterName = (id: string): string => tanks.filter(({ water, isRetired }) => !isRetired && water.id === id).map(({ code }) => code).sort(byText)[0] ?? id
    return { lot: (id) => `lot ${lots.get(id) ?? id}`, place: (id) => codes.get(id) ?? id, water: waterName }
  }

  return {
    /**
     * Lets fish move, or says beside the field why not: the check is made anew inside the transaction of the move, because
     * what two people saw may be old.
     * @throws Problem `breaks-rule` with the rules by code and in words.
     */
    require(context: CommandContext, { plans, path, override, isRescue, ...way }: Omit<WantedMove, 'fish'> & { plans: readonly Planned[]; path: string } & AgainstRule): void {
      const { nowMs } = context
      const ways = plans.flatMap(goingOf)
      const rules = eachOnce(ways.flatMap((going) => gate.against({ going, tankId: way.toTankId }, nowMs)))
      const named = names(nowMs)
      const more = checkPlanned({ ...way, fish: [] }, plans, nowMs).reasons.filter(({ level, code }) => level === 'lead' && ofMoves.has(code)).map((each): BrokenRule => ({ code: each.code as RuleCode, why: sentenceOf(each, named).replace(/\.$/, '') }))
      const tank = requireTank(way.toTankId, path, nowMs)
      const lots = placing.lots([...new Set(ways.flat().map(({ lotId }) => lotId))], nowMs)
      gate.refuseOrOverrule(context, { lots, tank: { id: tank.tankId, code: tank.code }, broken: [...rules, ...more], path, override, isRescue })
    },

    /** Writes down which net was in both waters, and what water went along. */
    carried(context: CommandContext, { fromTankId, toTankId, toolSetId = null, waterGoesAlong = false }: Omit<WantedMove, 'fish'>, happenedAtMs: number): void {
      if (toolSetId !== null) contacts.useBetween(context, toolSetId, [fromTankId, toTankId], happenedAtMs)
      if (waterGoesAlong) contacts.carryWater(context, fromTankId, toTankId, happenedAtMs)
    },

    /** The check as it is shown before anything is netted. */
    check(wanted: WantedMove, nowMs: number): MoveCheckView {
      const { verdict, reasons, points, looks } = checkPlanned(wanted, plansOf(wanted, nowMs), nowMs)
      return { verdict, points, looks, lines: moveLines(reasons, names(nowMs)) }
    },
  }
}
export type MovesService = ReturnType<typeof createMovesService>
