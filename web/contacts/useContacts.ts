import { contactsApi } from '../../core/contacts/contacts.api'
import { nowMs } from '../api/clock'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

/** What is asked of a trace. */
export interface TraceAsk {
  start: string
  direction: 'forward' | 'backward'
  days: number
  /** Null: as far as it goes. */
  hops: number | null
}

/** What can have met. */
export function useTrace({ start, direction, days, hops }: TraceAsk) {
  const { data, problem } = useRead(contactsApi.readTrace, { query: { start, direction, days: String(days), ...(hops === null ? {} : { hops: String(hops) }) } }, { keepsPrevious: true })
  return { trace: data, problem }
}

/** Writes of what met. */
export function useContactWrites() {
  const write = useWrite()
  const form = { refusals: 'form' } as const
  return {
    end: (contactId: string) => write(contactsApi.endContact, { params: { contactId }, label: 'joined no more', body: { happenedAtMs: nowMs() } }, form),
    beginBath: (toolSetId: string, needMinutes: number) => write(contactsApi.beginBath, { params: { toolSetId }, label: 'into the bath', body: { needMinutes, agent: null, happenedAtMs: nowMs() } }, form),
    endBath: (toolSetId: string) => write(contactsApi.endBath, { params: { toolSetId }, label: 'out of the bath', body: { happenedAtMs: nowMs() } }, form),
  }
}
