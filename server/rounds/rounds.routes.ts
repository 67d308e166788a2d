import { roundsApi } from '../../core/rounds/rounds.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { RoundsService } from './rounds.service'

/** Answers for the round. */
export const roundsEndpoints = (rounds: RoundsService): Endpoint[] =>
  serve(roundsApi, { readRound: ({ query, nowMs }) => rounds.view(query.round, nowMs), recordCheck: rounds.recordCheck, leaveRound: rounds.leaveRound, closeRound: rounds.closeRound })
