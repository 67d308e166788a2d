import { plansApi } from '../../core/plans/plans.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { PlansService } from './plans.service'

/** Answers for moves that wait. */
export const plansEndpoints = ({ view, choices, make, end, countThing, recordLength }: PlansService): Endpoint[] =>
  serve(plansApi, { readPlans: ({ nowMs }) => view(nowMs), readPlanChoices: ({ nowMs }) => choices(nowMs), makePlan: make, endPlan: end, countThing, recordLength })
