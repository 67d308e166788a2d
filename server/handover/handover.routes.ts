import { handoverApi } from '../../core/handover/handover.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { HandoverService } from './handover.service'

/** Answers for what is handed over. */
export const handoverEndpoints = ({ view, due, tickHandover, leaveWord, takeWordOff }: HandoverService): Endpoint[] =>
  serve(handoverApi, { readHandover: ({ actor, nowMs }) => view(actor, nowMs), readHandoverDue: ({ actor, nowMs }) => due(actor, nowMs), ...{ tickHandover, leaveWord, takeWordOff } })
