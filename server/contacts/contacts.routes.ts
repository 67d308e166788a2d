import { contactsApi } from '../../core/contacts/contacts.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { ContactsService } from './contacts.service'

/** Answers of contacts and tool sets. */
export function contactsEndpoints({ trace, tools, recordContact, endContact, undoContact, useTools, beginBath, endBath, clearWater }: ContactsService): Endpoint[] {
  return serve(contactsApi, {
    readTrace: ({ query, nowMs }) => trace(query, nowMs),
    readTools: ({ nowMs }) => tools(nowMs),
    recordContact,
    endContact,
    undoContact,
    useTools,
    beginBath,
    endBath,
    clearWater,
  })
}
