import type { Limits } from '../../core/limits/houseLimits'
import { isOverruled } from '../../core/placing/overruled'
import { rulesAgainst } from '../../core/tankChoice/explainChoice'
import { prepareChoice } from '../../core/tankChoice/prepareChoice'
import type { ChoiceInput } from '../../core/tankChoice/tankChoice'
import type { DeliveryStore, PlannedLine } from '../crates/delivery.store'
import type { FactsService } from '../facts/facts.service'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem } from '../http/problem'
import type { FightsService } from '../moves/fights.service'
import type { SourcesService } from '../moves/sources.service'
import type { PlacingService } from './placing.service'
import type { PlacingStore } from './placing.store'

/** A line whose planned tank is to be looked at, and where the answer stands in the request. */
export interface PlannedPick {
  lineId: string
  path: string
  override?: string | null | undefined
}

interface Collaborators {
  lines: DeliveryStore['lines']
  shipping: DeliveryStore['shipping']
  store: PlacingStore
  placing: Pick<PlacingService, 'refuseOrOverrule'>
  limits: () => Limits
  facts: Pick<FactsService, 'inUse' | 'tank' | 'heldDays'>
  sources: Pick<SourcesService, 'withUnmet'>
  fights: Pick<FightsService, 'withFought'>
}

/** Looks at the tanks that the lines of a crate are planned for, all of them together. */
export function createPlanService({ lines, shipping, store, placing, limits, facts, sources, fights }: Collaborators) {
  /** Lines whose fish are still in bags; what stands in tanks or on the bench is planned no more. */
  const openLines = (crateId: string): PlannedLine[] => lines(crateId).filter(({ open }) => open > 0).map((line) => ({ ...line, count: line.open }))

  /** What tanks are chosen from; `only` these tanks where it is said. */
  function input(crateId: string, planned: readonly PlannedLine[], nowMs: number, only?: readonly string[]): ChoiceInput {
    const known = only ? only.flatMap((id) => facts.tank(id, nowMs) ?? []).filter(({ isRetired }) => !isRetired) : facts.inUse(nowMs)
    const tanks = store.tanks({ nowMs, tanks: known, heldDays: (lotId) => facts.heldDays(lotId, nowMs), fightMemoryDays: limits().fightMemoryDays, exceptCrateId: crateId, countsPlans: true })
    const asSeen = sources.withUnmet(fights.withFought(tanks, nowMs), planned.map(({ supplier }) => supplier), nowMs)
    return { lines: planned.map(({ id, animal, count, supplier }) => ({ id, animal, count, supplier })), tanks: asSeen, shipping: shipping(crateId), limits: limits() }
  }

  return {
    openLines,
    input,

    /** Lets the planned tanks of these lines stand as they were written, or says beside the field which rule they break. */
    require(context: CommandContext, crateId: string, picks: readonly PlannedPick[]): void {
      const planned = openLines(crateId)
      const tankIds = [...new Set(planned.flatMap(({ tankId }) => tankId ?? []))]
      const seen = input(crateId, planned, context.nowMs, tankIds)
      const prepared = prepareChoice(seen)
      const chosen = planned.map(({ tankId }) => (tankId === null ? null : seen.tanks.findIndex(({ id }) => id === tankId)))
      for (const { lineId, path, override } of picks) {
        const index = planned.findIndex(({ id }) => id === lineId)
        const [line, at] = [planned[index], chosen[index] ?? null]
        if (!line || at === null) continue
        const tank = seen.tanks[at]
        if (!tank) throw fieldProblem(path, 'There is no such tank')
        const decided = store.overruled(line.lotId, tank.id)
        const broken = rulesAgainst(prepared, chosen, index, at).filter((rule) => !isOverruled(rule, decided))
        placing.refuseOrOverrule(context, { lots: [{ lotId: line.lotId, animal: line.animal, supplier: line.supplier }], tank, broken, path, override })
      }
    },
  }
}
export type PlanService = ReturnType<typeof createPlanService>
