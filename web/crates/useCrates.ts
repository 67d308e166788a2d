import useSWR from 'swr'
import { withPendingBags, type CrateView, type PendingBagCommand } from '../../core/crates/crateView'
import type { ChooseTank, CreateCrate, RecordBags } from '../../core/crates/crates.schema'
import type { ReadLine } from '../../core/crates/readPackingList'
import type { TankSummary } from '../../core/room/roomView'
import { nowMs } from '../api/clock'
import { fetchJson } from '../api/fetchJson'
import { useRoomView } from '../api/sharedReads'
import { usePending, useWrite } from '../api/useOutbox'
import { crateKey } from './crates.keys'

/** One crate as it stands on this device: what the server holds, and what still waits to be sent. */
export function useCrate(crateId: string) {
  // Other devices unpack the same crate.
  const { data, error, isLoading } = useSWR(crateKey(crateId), () => fetchJson<CrateView>(`/api/crates/${crateId}`), { refreshInterval: 2000 })
  const pending = usePending(['recordBags', 'undoBags', 'placeBags'], `/api/crates/${crateId}/`)
  const crate = data && withPendingBags(data, pending.map(({ command, key, staffId, body }) => ({ command, key, staffId, input: body }) as PendingBagCommand))
  return { crate, problem: error as unknown, isLoading }
}

/** Tanks a line can be planned for, in rack order. */
export const useTankChoices = (): TankSummary[] => useRoomView().room?.tanks ?? []

export interface ListRead {
  lines: (ReadLine & { isNewSpecies: boolean })[]
  notices: string[]
}

/** Has a packing list read; nothing is kept of it. */
export const readPackingList = (file: Blob): Promise<ListRead> => fetchJson('/api/packing-lists/read', { method: 'POST', body: file })

/** The writes of a crate. Touches answer at once and are sent in the background; forms wait for their answer. */
export function useCrateWrites(crateId: string) {
  const write = useWrite()
  const path = `/api/crates/${crateId}`
  return {
    recordBags: (input: Omit<RecordBags, 'happenedAtMs'>, label: string) =>
      void write({ command: 'recordBags', path: `${path}/bags`, label, body: { ...input, happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    undoBags: (bagIds: string[], label: string) => void write({ command: 'undoBags', path: `${path}/undone-bags`, label, body: { bagIds, happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    placeBags: (tankId: string | null, label: string) => void write({ command: 'placeBags', path: `${path}/placements`, label, body: { tankId, happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    undoPlacement: (placementKey: string) => void write({ command: 'undoPlacement', path: `${path}/undone-placements`, label: 'undo of placing', body: { placementKey, happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    chooseTank: (lineId: string, choice: ChooseTank) =>
      write({ command: 'chooseTank', method: 'PUT', path: `${path}/lines/${lineId}/tank`, label: 'tank of a line', body: choice }, { refusals: 'form' }),
  }
}

/** Takes a crate in. */
export function useCreateCrate() {
  const write = useWrite()
  return (input: CreateCrate) => write({ command: 'createCrate', path: '/api/crates', label: `crate from ${input.supplier}`, body: input }, { refusals: 'form' }) as Promise<{ id: string; number: number }>
}
