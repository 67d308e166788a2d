import { fieldProblem, Problem } from '../http/problem'
import type { FactsService } from '../facts/facts.service'
import type { OfferView } from '../../core/regimens/regimenView'
import type { LadderStand } from '../../core/regimens/offerDose'
import { isProduct, type Offering } from './offering'
import type { RegimensStore } from './regimens.store'

interface Collaborators {
  store: RegimensStore
  offer: Offering
  facts: Pick<FactsService, 'inUse'>
  standOf: (regimenId: string, nowMs: number) => LadderStand | null
}

/** What may go into the water of a tank, for whoever asks before they do it. */
export function createOfferReads({ store, offer, facts, standOf }: Collaborators) {
  return {
    of(code: string, { product, regimen, lead }: { product?: string | null; regimen?: string | null; lead?: string | null }, nowMs: number): OfferView {
      const tank = facts.inUse(nowMs).find((each) => each.code === code.toUpperCase())
      if (!tank) throw new Problem('not-found', `There is no tank ${code} in this room`)
      const row = store.product(product ?? '')
      if (!row || !isProduct(row)) throw fieldProblem('product', 'Nothing is dosed with this: say under Setup, Agents, what it is of')
      const { step: _, ...offered } = offer(row, tank, regimen ? standOf(regimen, nowMs) : null, nowMs, lead === '1')
      return offered
    },
  }
}
export type OfferReads = ReturnType<typeof createOfferReads>
