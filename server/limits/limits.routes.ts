import { limitsApi } from '../../core/limits/limits.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { LimitsService } from './limits.service'

/** Answers for the house's numbers. */
export const limitsEndpoints = (limits: LimitsService): Endpoint[] => serve(limitsApi, { readLimits: limits.list, changeLimit: limits.change })
