import useSWR from 'swr'
import type { RecordCheck } from '../../core/rounds/rounds.schema'
import { withPendingChecks, type RoundView } from '../../core/rounds/roundView'
import type { RecordLoss } from '../../core/ledger/ledger.schema'
import { nowMs } from '../api/clock'
import { fetchJson } from '../api/fetchJson'
import { usePending, useWrite } from '../api/useOutbox'
import { roundKey } from './rounds.keys'

/** The round that is walked now as it stands on this device, or the one of a name. */
export function useRound(id: string | null) {
  const { data, error } = useSWR(roundKey(id), () => fetchJson<RoundView>(`/api/rounds/today${id ? `?round=${id}` : ''}`), { refreshInterval: 10_000 })
  const pending = usePending(['recordCheck']).map((entry) => entry.body as RecordCheck)
  return { round: data && withPendingChecks(data, pending), problem: error as unknown }
}

/** The writes of a round. */
export function useRoundWrites() {
  const write = useWrite()
  return {
    recordCheck: (check: Omit<RecordCheck, 'happenedAtMs'>, label: string) => void write({ command: 'recordCheck', path: '/api/checks', label, body: { ...check, happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    leaveRound: (id: string) => void write({ command: 'leaveRound', path: `/api/rounds/${id}/leaving`, label: 'round left', body: { happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    closeRound: (id: string, isClosed: boolean) => void write({ command: 'closeRound', path: `/api/rounds/${id}/closing`, label: isClosed ? 'round closed' : 'round opened again', body: { isClosed, happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    recordLoss: (tankId: string, loss: Omit<RecordLoss, 'happenedAtMs'>, label: string) =>
      void write({ command: 'recordLoss', path: `/api/tanks/${tankId}/losses`, label, body: { ...loss, happenedAtMs: nowMs() } }, { refusals: 'tray' }),
  }
}
