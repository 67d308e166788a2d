import { eachApart } from '../../core/collections/eachApart'
import { byText } from '../../core/contacts/contact'
import type { MoveFrom, MoveReason } from '../../core/moves/move'
import { moveCheck, type MoveChecked } from '../../core/moves/moveCheck'
import type { MovedFish } from '../../core/moves/moves.schema'
import type { MoveCheckView, MoveChoice } from '../../core/moves/moveView'
import { moveLines, sentenceOf, type MoveLine, type Names } from '../../core/moves/moveWords'
import type { BrokenRule, RuleCode } from '../../core/tankChoice/company'
import type { ChoiceTank } from '../../core/tankChoice/tankChoice'
import { eachOnce } from '../../core/tankChoice/rules'
import type { ContactsService } from '../contacts/contacts.service'
import type { FactsService } from '../facts/facts.service'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem } from '../http/problem'
import type { PlacingService } from '../placing/placing.service'
import { goingOf, type Planned, type PoolsService } from '../pools/pools.service'
import type { VesselsService } from '../vessels/vessels.service'
import { createAsking, type AskingOf, type Coming, type Stand, type WantedMove } from './asking'
import type { MovesStore } from './moves.store'
import { ofHome, ofMoves } from './ruleSets'

/** The better first. */
const order: readonly MoveChecked['verdict'][] = ['allow', 'warn', 'lead', 'impossible']

/** Why fish go somewhere against a rule; a keeper's counts as a rescue. */
interface AgainstRule {
  override?: string | null | undefined
  isRescue?: boolean | undefined
}

interface Collaborators extends AskingOf {
  facts: AskingOf['facts'] & Pick<FactsService, 'all'>
  pools: Pick<PoolsService, 'planOut'>
  /** The gate of tank choice, whose rules these are too. */
  gate: Pick<PlacingService, 'against' | 'refuseOrOverrule'>
  contacts: AskingOf['contacts'] & Pick<ContactsService, 'useBetween' | 'carryWater'>
  vessels: AskingOf['vessels'] & Pick<VesselsService, 'lastTankOf' | 'filled' | 'view'>
  store: AskingOf['store'] & Pick<MovesStore, 'insertIndividual'>
}

/** Says what speaks against a move, from everything that is recorded. */
export function createMovesService({ facts, placing, gate, pools, contacts, vessels, store, limits, rules, ...others }: Collaborators) {
  const { stand, seen, itemsOf, asChosen, asPlace, asking } = createAsking({ facts, placing, vessels, contacts, store, limits, rules, ...others })

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
      const here = asPlace(to, to, coming, seen(nowMs))
      const occupants = (here.occupants ?? []).filter(({ lot }) => !fish.some(({ lotId }) => lotId === lot))
      const { reasons } = moveCheck({ items, from, to: { ...here, occupants }, now: Math.floor(nowMs / 60_000) }, limits(), rules())
      return moveLines(reasons.filter(({ level }) => level === 'lead' || level === 'warn'), names(nowMs))
    },

    /** Where fish may go: every other tank and vessel, where nothing speaks against it first, then by the costs of choosing it. */
    choices({ from, fish, planId }: Pick<WantedMove, 'from' | 'fish' | 'planId'>, nowMs: number): { places: MoveChoice[] } {
      const { waterId } = stand(from, 'from', nowMs)
      const { coming, room, answer } = asking({ from, planId }, plansOf({ from, fish }, nowMs), nowMs)
      const named = names(nowMs)
      const tanks = room.tanks.filter(({ tankId }) => tankId !== from.id)
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
      const doubt = room.doubtOf(waterId)
      const apart = new Set(tanks.filter(({ purpose, water }) => purpose === 'hospital' || purpose === 'quarantine' || purpose === 'customer' || room.doubtOf(water.id) > doubt).map(({ tankId }) => tankId))
      const ranked = places.map((place) => ({ place, rank: [Number(place.verdict === 'lead' || place.verdict === 'impossible'), Number(apart.has(place.id)), order.indexOf(place.verdict), place.points] as const }))
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
