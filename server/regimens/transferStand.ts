import type { TransferPlan } from '../../core/regimens/regimens.schema'
import { transferNow, type TransferAsked, type Transferred, type TransferNow } from '../../core/regimens/transferNow'
import type { RegimensStore } from './regimens.store'

/** How a transfer stands by the steps that were kept of it, for whoever shows it, writes its next step or keeps its next tank free. */
export const createTransferStand = ({ store, zone }: { store: Pick<RegimensStore, 'steps'>; zone: () => string }) =>
  function transferStand({ id, plan, happenedAtMs }: { id: string; plan: TransferPlan; happenedAtMs: number }, nowMs: number, match: TransferAsked['match'] = null): TransferNow {
    const steps = store.steps(id)
    const stepsOf = (kind: string): Transferred[] => steps.filter((step) => step.kind === kind).map(({ placeId, atMs }) => ({ tankId: placeId, atMs }))
    return transferNow({ plan, startedAtMs: happenedAtMs, done: stepsOf('transfer'), cleaned: stepsOf('cleaned'), match, timeZone: zone(), nowMs })
  }
export type TransferStand = ReturnType<typeof createTransferStand>
