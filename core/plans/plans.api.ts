import { answers, command, named, read } from '../commands/declare'
import { countThingSchema, endPlanSchema, makePlanSchema, recordLengthSchema } from './plans.schema'
import type { PlanChoices, PlansView } from './planView'

/** What plans are held against. */
const aboutPlans = ['plan', 'look', 'tank', 'vessel', 'crate', 'bag', 'run', 'register', 'limit', 'staff', 'house'] as const

/** Moves that wait for a day or a fact. */
export const plansApi = named({
  /** open plans, and those that ended of late, with what each waits for */
  readPlans: read({ path: '/api/plans', access: 'device', about: () => aboutPlans, staysMs: 60_000, answer: answers<PlansView>() }),
  /** crates, things and other plans that one can wait for */
  readPlanChoices: read({ path: '/api/plan-choices', access: 'device', about: () => aboutPlans, staysMs: 60_000, answer: answers<PlanChoices>() }),
  /** 409 `breaks-rule` where it would be stuck, or counts on fish or a place that an earlier plan has: *override* is a lead's reason */
  makePlan: command({ method: 'post', path: '/api/plans', access: 'keeper', schema: makePlanSchema, touches: () => ['plan'], answer: answers<{ id: string; number: number }>() }),
  /** *as*: done by hand, dropped, or open again */
  endPlan: command({ method: 'post', path: '/api/plans/:planId/end', access: 'keeper', schema: endPlanSchema, touches: () => ['plan'] }),
  countThing: command({ method: 'post', path: '/api/things', access: 'keeper', schema: countThingSchema, touches: () => ['plan'] }),
  recordLength: command({ method: 'post', path: '/api/tanks/:tankId/lengths', access: 'keeper', schema: recordLengthSchema, touches: () => ['plan'] }),
})
