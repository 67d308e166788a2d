import { regimensApi } from '../../core/regimens/regimens.api'
import { holdsApi } from '../../core/holds/holds.api'
import { glassApi } from '../../core/room/glass.api'
import type { ReadingKind } from '../../core/room/glass.schema'
import type { WaterContent } from '../../core/dosing/doseReasons'
import type { DosesPlan, FeedPlan, LadderPlan, RegimenPlan, SalinityPlan, TransferPlan } from '../../core/regimens/regimens.schema'
import type { LogRow, OfferView } from '../../core/regimens/regimenView'
import { nowMs } from '../api/clock'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

/** Regimens that run, and waters in which something is. */
export function useRegimens() {
  const { data, problem } = useRead(regimensApi.readRegimens, {}, { everyMs: 60_000 })
  return { regimens: data, problem }
}
/** One of them. */
export function useRegimen(regimenId: string) {
  const { data, problem } = useRead(regimensApi.readRegimen, { params: { regimenId } }, { everyMs: 60_000 })
  return { regimen: data, problem }
}
/** What may go into the water of a tank now; nothing is asked before both are chosen. */
export function useDoseOffer(asked: { code: string; productId: string; regimenId?: string | null; isLead?: boolean } | null) {
  const { data, problem } = useRead(regimensApi.readDoseOffer, asked === null ? null : { params: { code: asked.code }, query: { product: asked.productId, regimen: asked.regimenId ?? null, lead: asked.isLead ? '1' : null } }, { everyMs: 60_000 })
  return { offer: data, problem }
}

const form = { refusals: 'form' } as const
const about = (tankId: string, note: string | null) => ({ tankId, note, happenedAtMs: nowMs() })
/** What goes with a dose that is written down. */
export interface DoseGiven {
  amount: number
  ticked: readonly string[]
  reason: string | null
  isDone: boolean
}

/** What people do: each waits for the server's word, since what comes next hangs on it. */
export function useRegimenWrites() {
  const write = useWrite()
  return {
    contents: (tankId: string, contents: readonly WaterContent[], binderUntilMs: number | null) => write(regimensApi.recordContents, { params: { tankId }, label: 'what stands in the water', body: { contents: [...contents], binderUntilMs } }, form),
    dose: ({ tankId, tankCode, product, towardsMgL }: OfferView, regimenId: string | null, { amount, ticked, reason, isDone }: DoseGiven) =>
      write(regimensApi.recordDose, { params: { tankId }, label: `${product.name} into ${tankCode}`, body: { productId: product.id, regimenId, given: amount, towardsMgL, ticked: [...ticked], reason, isDone, happenedAtMs: nowMs() } }, form),
    change: (tankId: string, regimenId: string | null, { litres, productId = null, mixMgL = null, salinityPpt = null }: { litres: number; productId?: string | null; mixMgL?: number | null; salinityPpt?: number | null }) =>
      write(regimensApi.recordWaterChange, { params: { tankId }, label: `${Math.round(litres)} L changed`, body: { litres, productId, mixMgL, salinityPpt, regimenId, happenedAtMs: nowMs() } }, form),
    read: (tankId: string, what: ReadingKind, value: number, instrument: string | null) => write(glassApi.recordReading, { params: { tankId }, label: `${what === 'copperMgL' ? 'copper' : 'salinity'} read`, body: { what, value, instrument, happenedAtMs: nowMs() } }, form),
    found: (tankId: string, agent: string) => write(regimensApi.recordFound, { params: { tankId }, label: `${agent} found`, body: { agent, happenedAtMs: nowMs() } }, form),
    cleared: (tankId: string, agent: string) => write(holdsApi.recordCleared, { label: `${agent} is out`, body: { tankId, agent, happenedAtMs: nowMs() } }, form),
    step: (regimenId: string, kind: 'cleaned' | 'feed', tankId: string) => write(regimensApi.recordRegimenStep, { params: { regimenId }, label: kind === 'cleaned' ? 'a tank cleaned' : 'medicated food given', body: { kind, tankId, happenedAtMs: nowMs() } }, form),
    end: (regimenId: string, reason: string) => write(regimensApi.endRegimen, { params: { regimenId }, label: 'a regimen ended', body: { reason, happenedAtMs: nowMs() } }, form),
    undo: ({ id, kind }: Pick<LogRow, 'id' | 'kind'>): Promise<unknown> | null =>
      kind === 'dose' ? write(regimensApi.undoDose, { params: { doseId: id }, label: 'a dose taken back', body: {} }, form) : kind === 'change' ? write(regimensApi.undoWaterChange, { params: { changeId: id }, label: 'a change taken back', body: {} }, form) : null,
    begin: (tankId: string, note: string | null, plan: RegimenPlan): Promise<{ id: string }> => {
      const label = 'a regimen begun'
      switch (plan.kind) {
        case 'ladder':
          return write(regimensApi.startLadder, { label, body: { ...about(tankId, note), ...(plan satisfies LadderPlan) } }, form)
        case 'doses':
          return write(regimensApi.startDoses, { label, body: { ...about(tankId, note), ...(plan satisfies DosesPlan) } }, form)
        case 'medicated feed':
          return write(regimensApi.startMedicatedFeed, { label, body: { ...about(tankId, note), ...(plan satisfies FeedPlan) } }, form)
        case 'transfer':
          return write(regimensApi.startTransfer, { label, body: { ...about(tankId, note), ...(plan satisfies TransferPlan) } }, form)
        default:
          return write(regimensApi.startLowSalinity, { label, body: { ...about(tankId, note), ...(plan satisfies SalinityPlan) } }, form)
      }
    },
  }
}
export type RegimenWrites = ReturnType<typeof useRegimenWrites>
