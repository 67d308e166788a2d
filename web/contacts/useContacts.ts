import { contactsApi } from '../../core/contacts/contacts.api'
import type { SaidKind } from '../../core/contacts/contacts.schema'
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
    record: (kind: SaidKind, fromTankId: string, toTankId: string) => write(contactsApi.recordContact, { label: kind, body: { kind, fromTankId, toTankId, litres: null, note: null, happenedAtMs: nowMs() } }, form),
    undo: (contactId: string) => write(contactsApi.undoContact, { params: { contactId }, label: 'taking back', body: { happenedAtMs: nowMs() } }, form),
  }
}
