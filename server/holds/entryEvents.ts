import { minuteOf } from '../../core/contacts/contact'
import type { HoldEvent } from '../../core/holds/holdEvents'
import { heldPlace } from '../../core/holds/ledgerEvents'
import type { PlaceKind } from '../../core/ledger/movement'
import type { HoldEntryKind } from './holds.table'

/** What somebody did to a hold, as it is kept; what was taken back is none. */
export interface EntryRow {
  id: string
  kind: HoldEntryKind
  placeId: string
  placeKind: PlaceKind
  lotId: string | null
  policyId: string | null
  phase: string | null
  days: number | null
  word: string | null
  reason: string | null
  atMs: number
  recordedAtMs: number
}

/** An entry as holds are played by it. */
export function entryEvents({ id, kind, placeId, placeKind, lotId, policyId, phase, days, word, reason, atMs, recordedAtMs }: EntryRow): HoldEvent[] {
  const about = { id, at: minuteOf(atMs), recordedAt: minuteOf(recordedAtMs), tank: heldPlace({ id: placeId, kind: placeKind }) }
  const why = reason === null ? {} : { reason }
  const ofLot = lotId === null ? {} : { lot: lotId }
  if (kind === 'cleared') return [{ ...about, kind: 'step', of: 'cleared', ...(word === null ? {} : { agent: word }) }]
  if (kind === 'found') return [{ ...about, kind: 'step', of: 'found', ...(word === null ? {} : { agent: word }) }]
  if (kind === 'transfer' || kind === 'feed') return [{ ...about, ...ofLot, kind: 'step', of: kind }]
  if (kind === 'body') return [{ ...about, ...ofLot, kind: 'body', state: word ?? '' }]
  if (lotId === null) return []
  if (kind === 'lengthen') return [{ ...about, ...why, kind: 'lengthen', lot: lotId, days: days ?? 0 }]
  if (kind === 'end') return [{ ...about, ...why, kind: 'end', lot: lotId }]
  return policyId === null ? [] : [{ ...about, ...why, kind: 'policy', lot: lotId, to: policyId, ...(phase === null ? {} : { phase }) }]
}
