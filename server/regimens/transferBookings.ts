import type { Booking } from '../../core/tankChoice/bookings'
import type { FactsService } from '../facts/facts.service'
import type { RegimensStore } from './regimens.store'
import { createTransferStand } from './transferStand'

interface Collaborators {
  store: Pick<RegimensStore, 'running' | 'steps'>
  facts: Pick<FactsService, 'all'>
  zone: () => string
}

/** The tank that stands clean and dry for the next move of a transfer is taken as a whole: whoever else came into it would bring along what the fish are moved away from. */
export function createTransferBookings({ store, facts, zone }: Collaborators) {
  const transferStand = createTransferStand({ store, zone })
  return function transferBookings(nowMs: number): (Booking & { tankId: string })[] {
    return store.running().flatMap(({ id, plan, happenedAtMs }) => {
      if (plan.kind !== 'transfer') return []
      const { nextTankId, atTankId } = transferStand({ id, plan, happenedAtMs }, nowMs)
      const lots = facts.all(nowMs).get(atTankId)?.lots ?? []
      if (nextTankId === null || lots.length === 0) return []
      return [{ id, tankId: nextTankId, plan: 'a tank transfer', takes: 'whole', isReady: true, isPlan: true, fish: lots.map(({ lotId, species, quantity }) => ({ lotId, species, quantity })) }]
    })
  }
}
