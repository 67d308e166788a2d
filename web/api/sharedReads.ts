import useSWR, { type SWRConfiguration } from 'swr'
import type { CrateSummary } from '../../core/crates/crateView'
import type { RoomView } from '../../core/room/roomView'
import { fetchJson } from './fetchJson'

// Reads that several screens need. Features do not import each other, so what they share stands here, under one key.

/** The racks as they stand. */
export function useRoomView(options?: SWRConfiguration) {
  const { data, error } = useSWR<RoomView, unknown>(['room'], () => fetchJson<RoomView>('/api/room'), options)
  return { room: data, problem: error }
}

/** Every crate, newest first. */
export function useCrateSummaries(options?: SWRConfiguration) {
  const { data, error } = useSWR<{ crates: CrateSummary[] }, unknown>(['crates'], () => fetchJson<{ crates: CrateSummary[] }>('/api/crates'), options)
  return { crates: data?.crates, problem: error }
}
