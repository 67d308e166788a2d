import { holdsApi } from '../../core/holds/holds.api'
import type { BodyState, HeldDecision } from '../../core/holds/holds.schema'
import type { HeldGroupView, ToDecide } from '../../core/holds/holdsView'
import { nowMs } from '../api/clock'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

/** Every clock that runs. */
export function useHolds() {
  const { data, problem } = useRead(holdsApi.readHolds, {}, { everyMs: 60_000 })
  return { holds: data, problem }
}

/** What may be supposed of a tank: that new fish come, or a sign is confirmed. */
export type Supposed = 'fish' | 'sign'
export const useWhatIf = (asked: { what: Supposed; tankId: string } | null) => useRead(holdsApi.readHoldWhatIf, asked === null ? null : { query: { what: asked.what, tank: asked.tankId, lot: null, from: null } }).data

/** Fish of a group as writes name them. */
const namedFish = (groups: readonly Pick<HeldGroupView, 'lotId' | 'placeId'>[]) => groups.map(({ lotId, placeId }) => ({ lotId, placeId }))
const form = { refusals: 'form' } as const

/** What people do to holds; each waits for the server's word, since a date hangs on it. */
export function useHoldWrites() {
  const write = useWrite()
  return {
    decide: ({ contactId, tankId, word, tankCode }: ToDecide, decision: HeldDecision, note: string | null) =>
      contactId === null
        ? write(holdsApi.decideHeldSign, { label: `${word}, ${tankCode}: ${decision}`, body: { tankId: tankId ?? '', word, decision, note, happenedAtMs: nowMs() } }, form)
        : write(holdsApi.decideBreach, { params: { contactId }, label: `${word}: ${decision}`, body: { decision, note } }, form),
    end: (groups: readonly HeldGroupView[], reason: string | null) => write(holdsApi.endHolds, { label: groups.length === 1 ? `hold of ${groups[0]?.species ?? 'fish'} ended` : `${groups.length} holds ended`, body: { fish: namedFish(groups), reason, happenedAtMs: nowMs() } }, form),
    change: (group: HeldGroupView, policyId: string, reason: string) => write(holdsApi.changeHold, { label: `another policy for ${group.species}`, body: { fish: namedFish([group]), policyId, phase: null, reason, happenedAtMs: nowMs() } }, form),
    lengthen: (group: HeldGroupView, days: number, reason: string) => write(holdsApi.lengthenHold, { label: `hold of ${group.species} longer`, body: { fish: namedFish([group]), days, reason, happenedAtMs: nowMs() } }, form),
    body: ({ placeId, lotId, species }: HeldGroupView, state: BodyState) => write(holdsApi.recordBody, { label: `${species}: body ${state}`, body: { tankId: placeId, lotId, state, happenedAtMs: nowMs() } }, form),
    startPairing: (tankId: string, lotA: string, lotB: string, looksH: readonly number[]) => write(holdsApi.startPairing, { label: 'a pairing', body: { tankId, lotA, lotB, looksH: [...looksH], happenedAtMs: nowMs() } }, form),
    endPairing: (pairingId: string, reason: string) => write(holdsApi.endPairing, { params: { pairingId }, label: 'a pairing given up', body: { reason, happenedAtMs: nowMs() } }, form),
    undo: (entryId: string) => write(holdsApi.undoHoldEntry, { params: { entryId }, label: 'taking back', body: {} }, form),
  }
}
export type HoldWrites = ReturnType<typeof useHoldWrites>
