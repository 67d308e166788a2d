import useSWR from 'swr'
import useSWRInfinite from 'swr/infinite'
import type { AddFish, CorrectCount, MoveFish, RecordLoss, ReleaseFish } from '../../core/ledger/ledger.schema'
import type { RoomView, TankView } from '../../core/room/roomView'
import { nowMs } from '../api/clock'
import { fetchJson } from '../api/fetchJson'
import { useWrite } from '../api/useOutbox'
import { roomKey, tankKey } from './room.keys'

/** The racks as they stand. */
export function useRoom() {
  const { data, error } = useSWR(roomKey, () => fetchJson<RoomView>('/api/room'), { refreshInterval: 15_000 })
  return { room: data, problem: error as unknown }
}

/** One tank with its timeline, page by page. */
export function useTank(code: string) {
  const pageKey = (index: number, previous: TankView | null) => (index > 0 && !previous?.olderBefore ? null : tankKey(code, previous?.olderBefore ?? null))
  const { data, error, size, setSize } = useSWRInfinite<TankView, unknown, typeof pageKey>(pageKey, ([, , before]) => fetchJson(`/api/tanks/${encodeURIComponent(code)}${before ? `?before=${before}` : ''}`), {
    revalidateAll: true,
  })
  const first = data?.[0]
  const timeline = data?.flatMap((page) => page.timeline) ?? []
  const hasOlder = Boolean(data?.at(-1)?.olderBefore)
  return { tank: first && { ...first, timeline }, problem: error, hasOlder, showOlder: () => void setSize(size + 1) }
}

type Timed<T> = Omit<T, 'happenedAtMs'> & { happenedAtMs: number | null }

/** The writes of a tank. All wait for the server's word, because the form says beside the field what does not fit. */
export function useTankWrites(tankId: string) {
  const write = useWrite()
  const send = (command: string, path: string, label: string, body: { happenedAtMs: number | null }) =>
    write({ command, path, label, body: { ...body, happenedAtMs: body.happenedAtMs ?? nowMs() } }, { refusals: 'form' })
  const path = `/api/tanks/${tankId}`
  return {
    moveFish: (input: Timed<MoveFish>) => send('moveFish', `${path}/moves`, `move of ${input.quantity}`, input),
    recordLoss: (input: Timed<RecordLoss>) => send('recordLoss', `${path}/losses`, `loss of ${input.quantity}`, input),
    releaseFish: (input: Timed<ReleaseFish>) => send('releaseFish', `${path}/releases`, `${input.quantity} ${input.reason}`, input),
    correctCount: (input: Timed<CorrectCount>) => send('correctCount', `${path}/counts`, `count of ${input.counted}`, input),
    addFish: (input: Timed<AddFish>) => send('addFish', `${path}/additions`, `${input.quantity} ${input.species}`, input),
    reverseMovement: (movementId: string, reason: string | null) => send('reverseMovement', `/api/movements/${movementId}/reversal`, 'taking back', { reason, happenedAtMs: null } as { happenedAtMs: null }),
  }
}
export type TankWrites = ReturnType<typeof useTankWrites>
