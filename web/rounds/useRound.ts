import useSWR from 'swr'
import type { RecordCheck } from '../../core/rounds/rounds.schema'
import { withPendingChecks, type RoundView } from '../../core/rounds/roundView'
import type { RecordLoss } from '../../core/ledger/ledger.schema'
import { nowMs } from '../api/clock'
import { fetchJson } from '../api/fetchJson'
import { usePending, useWrite } from '../api/useOutbox'
import { roundKey } from './rounds.keys'

/** Today's round as it stands on this device; `number` asks for one of several on a day. */
export function useRound(number: number | null) {
  const { data, error } = useSWR(roundKey(number), () => fetchJson<RoundView>(`/api/rounds/today${number ? `?number=${number}` : ''}`), { refreshInterval: 10_000 })
  const pending = usePending(['recordCheck']).map((entry) => entry.body as RecordCheck)
  return { round: data && withPendingChecks(data, pending), problem: error as unknown }
}

/** The writes of a round. */
export function useRoundWrites() {
  const write = useWrite()
  return {
    recordCheck: (check: Omit<RecordCheck, 'happenedAtMs'>, label: string) => void write({ command: 'recordCheck', path: '/api/checks', label, body: { ...check, happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    recordLoss: (tankId: string, loss: Omit<RecordLoss, 'happenedAtMs'>, label: string) =>
      void write({ command: 'recordLoss', path: `/api/tanks/${tankId}/losses`, label, body: { ...loss, happenedAtMs: nowMs() } }, { refusals: 'tray' }),
  }
}
