import { answers, command, named, read } from '../commands/declare'
import { changeLimitSchema, type ChangeLimit, type LimitView } from './houseLimits'
import type { Schema } from '../fields/validated'

/** The house's numbers. */
export const limitsApi = named({
  /** every limit with source and who changed it */
  readLimits: read({ path: '/api/house-limits', access: 'device', about: () => ['limit', 'staff'], staysMs: Infinity, answer: answers<{ limits: LimitView[] }>() }),
  changeLimit: command({ method: 'put', path: '/api/house-limits/:key', access: 'lead', schema: changeLimitSchema as unknown as Schema<ChangeLimit>, touches: () => ['limit'] }),
})
