import { plansApi } from '../../core/plans/plans.api'
import type { MakePlan, PlanEnd } from '../../core/plans/plans.schema'
import type { ToMeasure } from '../../core/plans/planView'
import { nowMs } from '../api/clock'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

/** Moves that wait, and those that ended of late. */
export function usePlans() {
  const { data, problem } = useRead(plansApi.readPlans, {}, { everyMs: 60_000 })
  return { plans: data?.plans, problem }
}

/** What a plan can be told to wait for. */
export const usePlanChoices = () => useRead(plansApi.readPlanChoices, {}).data ?? { crates: [], things: [], plans: [] }

const form = { refusals: 'form' } as const

/** Writes of plans; all wait for the server's word, because the screen says beside the field what does not fit. */
export function usePlanWrites() {
  const write = useWrite()
  return {
    make: (body: MakePlan) => write(plansApi.makePlan, { label: 'a plan', body }, form),
    end: (planId: string, as: PlanEnd) => write(plansApi.endPlan, { params: { planId }, label: as === 'open' ? 'a plan opened again' : `a plan ${as}`, body: { as } }, form),
    count: (thing: string, have: number) => write(plansApi.countThing, { label: `${have} ${thing}`, body: { thing, have } }, form),
    measured: ({ tankId, speciesId, strain, species }: ToMeasure, cm: number) => write(plansApi.recordLength, { params: { tankId }, label: `${species} measured`, body: { speciesId, strain, cm, happenedAtMs: nowMs() } }, form),
  }
}
