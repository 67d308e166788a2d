import { changeLimitSchema } from '../../core/limits/houseLimits'
import { command, read, type Endpoint } from '../http/endpoint'
import type { LimitsService } from './limits.service'

/** Addresses of the house's numbers. */
export const limitsEndpoints = (limits: LimitsService): Endpoint[] => [
  read({ path: '/api/house-limits', access: 'device', read: limits.list }),
  command({ method: 'put', path: '/api/house-limits/:key', access: 'lead', name: 'changeLimit', schema: changeLimitSchema, run: limits.change }),
]
