import { recordCheckSchema } from '../../core/rounds/rounds.schema'
import { command, read, type Endpoint } from '../http/endpoint'
import type { RoundsService } from './rounds.service'

/** Addresses of the round. */
export const roundsEndpoints = (rounds: RoundsService): Endpoint[] => [
  read({ path: '/api/rounds/today', access: 'device', read: ({ query, nowMs }) => rounds.view(query.number, nowMs) }),
  command({ method: 'post', path: '/api/checks', access: 'keeper', name: 'recordCheck', schema: recordCheckSchema, run: rounds.recordCheck }),
]
