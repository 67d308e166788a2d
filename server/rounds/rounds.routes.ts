import { closeRoundSchema, leaveRoundSchema, recordCheckSchema } from '../../core/rounds/rounds.schema'
import { command, read, type Endpoint } from '../http/endpoint'
import type { RoundsService } from './rounds.service'

/** Addresses of the round. */
export const roundsEndpoints = (rounds: RoundsService): Endpoint[] => [
  read({ path: '/api/rounds/today', access: 'device', read: ({ query, nowMs }) => rounds.view(query.round, nowMs) }),
  command({ method: 'post', path: '/api/checks', access: 'keeper', name: 'recordCheck', schema: recordCheckSchema, run: rounds.recordCheck }),
  command({ method: 'post', path: '/api/rounds/:roundId/leaving', access: 'keeper', name: 'leaveRound', schema: leaveRoundSchema, run: rounds.leaveRound }),
  command({ method: 'post', path: '/api/rounds/:roundId/closing', access: 'keeper', name: 'closeRound', schema: closeRoundSchema, run: rounds.closeRound }),
]
