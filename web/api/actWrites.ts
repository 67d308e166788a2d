import { choresApi } from '../../core/chores/chores.api'
import type { AskedKind, ChoreEnd } from '../../core/chores/chores.schema'
import { plansApi } from '../../core/plans/plans.api'
import type { JudgedStop } from '../../core/rounds/roundView'
import { roundsApi } from '../../core/rounds/rounds.api'
import type { SignDecisionAs } from '../../core/rounds/rounds.schema'
import type { AskedSign } from '../../core/rounds/signDecision'
import { dayInZone } from '../../core/time/dayInZone'
import { nowMs } from './clock'
import { useSession } from './session'
import { useWrite } from './useOutbox'

/** What act proposes is to be done by then. */
const withinMin = 60

/** What is done about a tank that calls for somebody; at its page and on the round. */
export function useActWrites(tankId: string, code: string) {
  const write = useWrite()
  const { timeZone } = useSession()
  const form = { refusals: 'form' } as const
  return {
    ask: (kind: AskedKind, change: JudgedStop['change'] = null) => write(choresApi.askChore, { label: `${kind}: ${code}`, body: { tankId, kind, withinMin, litresEach: change?.litresEach ?? null, times: change?.times ?? 1 } }, form),
    endChore: (choreId: string, as: ChoreEnd) => write(choresApi.endChore, { params: { choreId }, label: as === 'open' ? 'open again' : as, body: { as } }, form),
    doChore: (choreId: string, placeId: string) => write(choresApi.doChore, { params: { choreId }, label: 'a chore', body: { placeId, happenedAtMs: nowMs() } }, form),
    /** Keeps a hospital tank for the fish that show a sign: a plan that can go today. */
    keepHospital: ({ tankId: toTankId, fish }: NonNullable<JudgedStop['hospital']>) =>
      write(plansApi.makePlan, { label: `to hospital from ${code}`, body: { fromTankId: tankId, toTankId, fish, join: 'all', facts: [{ is: 'date', on: dayInZone(nowMs(), timeZone) }], takes: 'whole', untilOn: null, note: `${code}: to hospital` } }, form),
    decide: ({ sign, lotId }: Pick<AskedSign, 'sign' | 'lotId'>, decision: SignDecisionAs, { days = null, note = null }: { days?: number | null; note?: string | null } = {}) =>
      write(roundsApi.decideSign, { params: { tankId }, label: `${sign} ${decision}`, body: { sign, lotId, decision, days, note, happenedAtMs: nowMs() } }, form),
    undoDecision: (decisionId: string) => write(roundsApi.undoDecision, { params: { decisionId }, label: 'taking back', body: {} }, form),
  }
}
export type ActWrites = ReturnType<typeof useActWrites>
