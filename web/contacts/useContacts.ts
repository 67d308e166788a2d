import { contactsApi } from '../../core/contacts/contacts.api'
import { roomApi } from '../../core/room/room.api'
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

/** The tank of a code, for where a trace begins. */
export function useTankOf(code: string) {
  const { data, problem } = useRead(roomApi.readTank, { params: { code } })
  return { tank: data, problem }
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

/** Tool sets as they are now. */
export function useTools() {
  const { data, problem } = useRead(contactsApi.readTools, {}, { everyMs: 30_000 })
  return { tools: data?.tools, problem }
}
