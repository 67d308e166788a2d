import type { InputOf } from '../../core/commands/declare'
import { ledgerApi } from '../../core/ledger/ledger.api'
import type { RecordLoss } from '../../core/ledger/ledger.schema'
import { shippedRoundRules } from '../../core/rounds/roundRules'
import { roundsApi } from '../../core/rounds/rounds.api'
import { nowMs } from '../api/clock'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

/** The round that is walked now as it stands on this device, or the one of a name. */
export function useRound(id: string | null) {
  const { data, problem } = useRead(roundsApi.readRound, { query: { round: id } }, { everyMs: 10_000 })
  return { round: data, problem }
}

/** What signs have been seen with, as the house has it; as shipped until that is read. */
export function useSeenWith() {
  const { data } = useRead(roundsApi.readRoundLists, {})
  return { ...(data?.shipped.seenWith ?? shippedRoundRules.seenWith), ...data?.changes.seenWith }
}

/** The writes of a round. */
export function useRoundWrites() {
  const write = useWrite()
  const touch = { refusals: 'tray' } as const
  return {
    recordCheck: (check: Omit<InputOf<typeof roundsApi.recordCheck>, 'happenedAtMs'>, label: string) => void write(roundsApi.recordCheck, { label, body: { ...check, happenedAtMs: nowMs() } }, touch),
    leaveRound: (roundId: string) => void write(roundsApi.leaveRound, { params: { roundId }, label: 'round left', body: { happenedAtMs: nowMs() } }, touch),
    closeRound: (roundId: string, isClosed: boolean) => void write(roundsApi.closeRound, { params: { roundId }, label: isClosed ? 'round closed' : 'round opened again', body: { isClosed, happenedAtMs: nowMs() } }, touch),
    splitRound: (roundId: string, people: number) => write(roundsApi.splitRound, { params: { roundId }, label: people > 1 ? `round for ${people}` : 'round for one', body: { people, happenedAtMs: nowMs() } }, { refusals: 'form' }),
    recordLoss: (tankId: string, loss: Omit<RecordLoss, 'happenedAtMs'>, label: string) => write(ledgerApi.recordLoss, { params: { tankId }, label, body: { ...loss, happenedAtMs: nowMs() } }, touch),
    takeBack: (movementId: string, isWhole = false) => write(ledgerApi.reverseMovement, { params: { movementId }, label: 'taking back', body: { ...(isWhole ? { isWhole } : {}), reason: null, happenedAtMs: nowMs() } }, { refusals: 'form' }),
  }
}
