import { roundsApi } from '../../core/rounds/rounds.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { DecisionsService } from './decisions.service'
import type { RoundListsService } from './roundLists.service'
import type { RoundsService } from './rounds.service'

/** Answers for the round. */
export const roundsEndpoints = (rounds: RoundsService, { decideSign, undoDecision }: DecisionsService, lists: RoundListsService): Endpoint[] =>
  serve(roundsApi, { readRound: ({ query, nowMs }) => rounds.view(query.round, nowMs), recordCheck: rounds.recordCheck, splitRound: rounds.splitRound, leaveRound: rounds.leaveRound, closeRound: rounds.closeRound, decideSign, undoDecision, readRoundLists: lists.view, changeRoundLists: lists.changeRoundLists })
