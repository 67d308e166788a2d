import { useState } from 'react'
import useSWR from 'swr'
import type { AddFish, CorrectCount, MoveFish, RecordLoss, ReleaseFish } from '../../core/ledger/ledger.schema'
import type { TankView } from '../../core/room/roomView'
import { nowMs } from '../api/clock'
import { fetchJson } from '../api/fetchJson'
import { useWrite } from '../api/useOutbox'
import { useRoomView } from '../api/sharedReads'
import { tankKey } from './room.keys'

/** The racks as they stand, read again every so often. */
export const useRoom = () => useRoomView({ refreshInterval: 15_000 })

/** How many more entries of a timeline are shown at a time. */
const page = 40

/** One tank with its timeline, as far back as asked. */
export function useTank(code: string) {
  const [entries, setEntries] = useState(page)
  const { data, error } = useSWR(tankKey(code, entries), () => fetchJson<TankView>(`/api/tanks/${encodeURIComponent(code)}?entries=${entries}`), { keepPreviousData: true })
  // While another tank is being read, the one before must not stand under its name.
  const tank = data?.code === code.toUpperCase() ? data : undefined
  return { tank, problem: error as unknown, showOlder: () => setEntries(entries + page) }
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
