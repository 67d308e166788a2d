import { groupBy } from '../../core/collections/groupBy'
import type { Limits } from '../../core/limits/houseLimits'
import { isOverruled } from '../../core/placing/overruled'
import type { RuleRefusal } from '../../core/placing/ruleRefusal'
import type { BrokenRule } from '../../core/tankChoice/company'
import { brokenRules, eachOnce, isWaterUnsaid, rulesTogether } from '../../core/tankChoice/rules'
import type { ChoiceLine, ChoiceTank } from '../../core/tankChoice/tankChoice'
import type { AuditStore } from '../audit/audit.store'
import type { FactsService } from '../facts/facts.service'
import { requireFreshPin, type CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import type { SourcesService } from '../moves/sources.service'
import type { LotAtHand, PlacingStore } from './placing.store'

/** Fish of one lot on their way into a tank. */
export interface Going {
  lotId: string
  quantity: number
  /** Where they stand, or stood before a vessel: who shares a water already meets nothing new in it. */
  fromPlaceId?: string | null
  /** The water they come from, where it is not that of the place they stand in: of a vessel that hangs in a tank. */
  fromWaterId?: string | null
}

/** Fish that go into a tank together, and where the answer stands in the request. */
export interface GoingInto {
  going: readonly Going[]
  tankId: string
  /** Field beside which a refusal is said. */
  path: string
  /** Why they go there against a rule; null where nobody said. */
  override?: string | null | undefined
  /** Whether a keeper says so of fish in distress. */
  isRescue?: boolean | undefined
  /** The run that brings them: its own reservation does not stand in its way. */
  runId?: string | null
  /** Whether this is planned only; other plans count then. */
  isPlan?: boolean
}

type Asked = Pick<GoingInto, 'going' | 'tankId' | 'runId' | 'isPlan'> & { path?: string }

interface Refused {
  lots: readonly LotAtHand[]
  tank: Pick<ChoiceTank, 'id' | 'code'>
  /** A vessel that has the tank's water: what is decided for it says nothing about the tank. */
  isVessel?: boolean
  broken: readonly BrokenRule[]
  path: string
  override?: string | null | undefined
  isRescue?: boolean | undefined
}

interface Collaborators {
  store: PlacingStore
  audit: AuditStore
  limits: () => Limits
  facts: Pick<FactsService, 'tank' | 'heldDays'>
  sources: Pick<SourcesService, 'withUnmet'>
}

/** The one gate into a tank: the same rules, the same words and a lead's reason, whichever way fish come. */
export function createPlacingService({ store, audit, limits, facts, sources }: Collaborators) {
  function lookAt({ going, tankId, path = 'tankId', runId = null, isPlan = false }: Asked, nowMs: number): { lots: LotAtHand[]; lines: ChoiceLine[]; tank: ChoiceTank } {
    const coming = going.map(({ lotId, quantity, fromPlaceId = null }) => ({ lotId, quantity, placeId: fromPlaceId }))
    const known = facts.tank(tankId, nowMs)
    const [tank] = store.tanks({ nowMs, tanks: known && !known.isRetired ? [known] : [], heldDays: (lotId) => facts.heldDays(lotId, nowMs), fightMemoryDays: limits().fightMemoryDays, exceptRunId: runId, coming, countsPlans: isPlan })
    if (!tank) throw fieldProblem(path, 'There is no such tank')
    const own = new Set(going.map(({ lotId }) => lotId))
    // A line's own plan for these very fish is no other plan; other lines of its crate are.
    const bookings = (tank.bookings ?? []).map((each) => (each.isReady ? each : { ...each, fish: each.fish.filter(({ lotId }) => !own.has(lotId)) })).filter(({ isReady, fish }) => isReady || fish.length > 0)
    const occupants = tank.occupants.filter(({ booked, lotId = '' }) => booked === undefined || bookings.some(({ plan, fish }) => plan === booked && fish.some((each) => each.lotId === lotId)))
    // Fish that stand in a tank of the house already may have grown since they came.
    const standsHere = going.some(({ fromPlaceId = null, fromWaterId = null }) => fromWaterId !== null || (fromPlaceId !== null && facts.tank(fromPlaceId, nowMs) !== null))
    const lots = store.lots([...own], nowMs, standsHere)
    // Bags of one lot are one line, as they are in a plan: the same rule in the same words.
    const lines = [...groupBy(going, ({ lotId }) => lotId)].flatMap(([lotId, parts]): ChoiceLine[] => {
      const [quantity, { fromPlaceId = null, fromWaterId: said = null } = {}] = [parts.reduce((sum, part) => sum + part.quantity, 0), parts[0]]
      const lot = lots.find((each) => each.lotId === lotId)
      const fromWaterId = said ?? (fromPlaceId ? (facts.tank(fromPlaceId, nowMs)?.water.id ?? null) : null)
      return lot && quantity > 0 ? [{ id: lotId, animal: lot.animal, count: quantity, supplier: lot.supplier, ...(fromWaterId === null ? {} : { fromWaterId }) }] : []
    })
    const [seen = tank] = sources.withUnmet([tank], lines.map(({ supplier }) => supplier), nowMs)
    return { lots, lines, tank: { ...seen, bookings, occupants } }
  }

  /** Rules that nobody overruled yet. What no lot may do alone is asked of each lot, what they do together once. */
  function openRules(lines: readonly ChoiceLine[], tank: ChoiceTank): BrokenRule[] {
    const allowed = new Map(lines.map(({ id }) => [id, store.overruled(id, tank.id)]))
    const mayNot = (id: string, rule: BrokenRule): boolean => !isOverruled(rule, allowed.get(id) ?? [])
    const own = lines.flatMap((line) => brokenRules(line, tank, limits()).map((rule) => ({ id: line.id, rule })))
    const together = rulesTogether(lines, tank, limits()).filter((rule) => !own.some((each) => each.rule.code === rule.code && each.rule.why === rule.why))
    return eachOnce([...own.filter(({ id, rule }) => mayNot(id, rule)).map(({ rule }) => rule), ...together.filter((rule) => lines.every(({ id }) => mayNot(id, rule)))])
  }

  /** Refuses what breaks a rule, or keeps a lead's reason and lets it pass. */
  function refuseOrOverrule({ actor, key, nowMs }: CommandContext, { lots, tank, isVessel = false, broken, path, override, isRescue = false }: Refused): void {
    if (broken.length === 0) return
    const names = [...new Set(lots.map(({ animal }) => animal.species))].join(', ')
    const rules = broken.map(({ why }) => why).join('; ')
    const unsaid = lots.filter(({ animal }) => isWaterUnsaid(animal)).map(({ lotId, animal }) => ({ lotId, species: animal.species }))
    const isUnsaid = broken.some(({ code }) => code === 'water-unknown')
    const isDistress = isRescue && actor.role !== 'lead'
    if (!isUnsaid && (actor.role === 'lead' || isDistress) && override?.trim()) {
      if (!isDistress) requireFreshPin(actor)
      const reason = override.trim()
      for (const { lotId } of lots) store.insertOverride({ id: newId(), lotId, tankId: tank.id, codes: isVessel ? [] : [...new Set(broken.map(({ code }) => code))], broken: rules, reason, isRescue: Number(isDistress), staffId: actor.id, commandKey: key, recordedAtMs: nowMs })
      audit.insert({ atMs: nowMs, staffId: actor.id, action: isDistress ? 'rescued' : 'overruled', subject: `${names} to ${tank.code}`, changes: { rule: [rules, reason] }, commandKey: key })
      return
    }
    const then = isUnsaid ? 'Say first whether it lives in fresh, brackish or sea water.' : actor.role === 'lead' ? 'Say why it goes there all the same.' : 'A lead may decide it all the same, with a reason.'
    const message = `${names} must not go to ${tank.code}: ${rules}. ${then}`
    // Whoever is told of a rule reads it in words.
    const current: RuleRefusal = { rules: broken.map(({ code, why }) => ({ code, why })), tank: { id: tank.id, code: tank.code }, unsaid, mayOverrule: !isUnsaid }
    throw new Problem('breaks-rule', message, { errors: [{ path, message }], current })
  }

  return {
    refuseOrOverrule,

    /** Names the rules that fish would break in a tank and that nobody overruled. */
    against(asked: Asked, nowMs: number): BrokenRule[] {
      const { lines, tank } = lookAt(asked, nowMs)
      return openRules(lines, tank)
    },

    /**
     * Lets fish into a tank, or says beside the field why not.
     * @throws Problem `breaks-rule` with the rules by code and in words.
     */
    require(context: CommandContext, asked: GoingInto): void {
      const { lots, lines, tank } = lookAt(asked, context.nowMs)
      const here = lots.filter(({ lotId }) => lines.some(({ id }) => id === lotId))
      refuseOrOverrule(context, { lots: here, tank, broken: openRules(lines, tank), path: asked.path, override: asked.override, isRescue: asked.isRescue })
    },

    /** A lead has looked at what a keeper alone did in distress. */
    seeRescue({ params, actor, nowMs }: CommandContext) {
      if (!store.seeRescue(params.key ?? '', { seenById: actor.id, seenAtMs: nowMs })) throw new Problem('conflict', 'Somebody has looked at this already')
      return {}
    },

    /** Refuses a run that changes the water of a tank on which others count, or that is not its own. */
    requireOwnWater(context: CommandContext, asked: GoingInto, isMadeReady: boolean): void {
      const { lots, tank } = lookAt({ ...asked, isPlan: true }, context.nowMs)
      const crates = new Set(lots.map(({ lotId }) => store.crateOfLot(lotId)))
      const isOfTheirs = ({ lotId = '' }: { lotId?: string }): boolean => isMadeReady && crates.has(store.crateOfLot(lotId) ?? 'none')
      const others = [...new Set(tank.occupants.filter((each) => !isOfTheirs(each)).map(({ booked, animal }) => (booked === undefined ? `${animal.species} stand in it` : `${booked} counts on it as it is`)))]
      const reasons = [...(facts.tank(tank.id, context.nowMs)?.water.isAlone ? [] : ['other tanks hang on its water']), ...others]
      if (reasons.length === 0) return
      const message = `The water of ${tank.code} must not be changed for ${[...new Set(lots.map(({ animal }) => animal.species))].join(', ')}: ${reasons.join('; ')}. Choose a tank of its own water that nobody counts on.`
      const current: RuleRefusal = { rules: [{ code: 'plan-water', why: reasons.join('; ') }], tank: { id: tank.id, code: tank.code }, unsaid: [], mayOverrule: false }
      throw new Problem('breaks-rule', message, { errors: [{ path: asked.path, message }], current })
    },
  }
}
export type PlacingService = ReturnType<typeof createPlacingService>
