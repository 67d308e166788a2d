import type { MovementKind } from '../../core/ledger/movement'
import type { CommandContext } from '../http/endpoint'
import { newId } from '../newId'
import type { LedgerStore } from './ledger.store'

/** One movement still to be written. */
export interface Entry {
  kind: MovementKind
  lotId: string
  fromPlaceId: string
  toPlaceId: string
  quantity: number
  happenedAtMs: number
  reversesId?: string
  cause?: string | null
  reason?: string | null
  note?: string | null
}

/** Writes one movement for whoever gave the command; returns its id. */
export const createEntries =
  (store: Pick<LedgerStore, 'insert'>) =>
  ({ actor, key, nowMs }: Pick<CommandContext, 'actor' | 'key' | 'nowMs'>, entry: Entry): string => {
    const id = newId()
    store.insert({ reversesId: null, cause: null, reason: null, note: null, ...entry, id, staffId: actor.id, commandKey: key, recordedAtMs: nowMs })
    return id
  }
export type WriteEntry = ReturnType<typeof createEntries>
