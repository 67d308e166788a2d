import { object } from 'yup'
import { answers, command, named, read } from '../commands/declare'
import { word } from '../commands/queryFields'
import { closeRoundSchema, decideSignSchema, leaveRoundSchema, recordCheckSchema, splitRoundSchema, undoDecisionSchema } from './rounds.schema'
import { changeRoundListsSchema, type RoundListsView } from './roundLists.schema'
import { withPendingTouches } from './pendingRound'
import type { RoundView } from './roundView'

/** The round and its checks. */
export const roundsApi = named({
  /** the round that is walked now (or the one named): stops in walking order, who recorded in it last, left it, closed it */
  readRound: read({ path: '/api/rounds/today', access: 'device', query: object({ round: word(32) }), about: () => ['round', 'look', 'tank', 'register', 'limit', 'house', 'staff', 'run', 'crate', 'bag', 'stocktake', 'plan', 'chore', 'kitchen', 'recheck'], staysMs: 60_000, withPending: withPendingTouches, answer: answers<RoundView>() }),
  /** *marks* say of signs how severe they are (1, 2) and on which lot (null: the tank); left out for slight ones of the whole tank */
  recordCheck: command({ method: 'post', path: '/api/checks', access: 'keeper', schema: recordCheckSchema, touches: (_, { tankId, signs }) => [`look:${tankId}`, 'round', ...(signs.length > 0 ? (['hold'] as const) : [])], answer: answers<{ id: string }>() }),
  /** *confirmed*: holds on its water begin again from the day it was seen. *dismissed* (with a reason) and *known* (for *days*, at most 7) are a lead's */
  decideSign: command({ method: 'post', path: '/api/tanks/:tankId/sign-decisions', access: 'keeper', schema: decideSignSchema, touches: () => ['look', 'tank', 'round'], answer: answers<{ id: string }>() }),
  /** within a day by whoever decided, later by a lead */
  undoDecision: command({ method: 'post', path: '/api/sign-decisions/:decisionId/undo', access: 'keeper', schema: undoDecisionSchema, touches: () => ['look', 'tank', 'round'] }),
  /** what is unchecked is shared out between so many; 1 takes it back */
  splitRound: command({ method: 'post', path: '/api/rounds/:roundId/split', access: 'keeper', schema: splitRoundSchema, touches: () => ['round'] }),
  /** the lists behind the round: as shipped, and what the house has otherwise */
  readRoundLists: read({ path: '/api/round-lists', access: 'device', about: () => ['limit', 'staff'], staysMs: Infinity, answer: answers<RoundListsView>() }),
  /** *rules*: JSON of what is other here; refused with where, if a sign, an event or a food is unknown, or a clear window longer than its slight one */
  changeRoundLists: command({ method: 'put', path: '/api/round-lists', access: 'lead', schema: changeRoundListsSchema, touches: () => ['limit'], answer: answers<{ version: number }>() }),
  leaveRound: command({ method: 'post', path: '/api/rounds/:roundId/leaving', access: 'keeper', schema: leaveRoundSchema, touches: () => ['round'] }),
  closeRound: command({ method: 'post', path: '/api/rounds/:roundId/closing', access: 'keeper', schema: closeRoundSchema, touches: () => ['round'] }),
})
