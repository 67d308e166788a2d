import { transferNow } from '../../core/regimens/transferNow'
import type { Booking } from '../../core/tankChoice/bookings'
import type { FactsService } from '../facts/facts.service'
import type { RegimensStore } from './regimens.store'

interface Collaborators {
  store: Pick<RegimensStore, 'running' | 'steps'>
  facts: Pick<FactsService, 'all'>
  zone: () => string
}

/** The tank that stands clean and dry for the next move of a transfer is taken as a whole: whoever else came into it would bring along what the fish are moved away from. */
export const createTransferBookings = ({ store, facts, zone }: Collaborators) =>
  function transferBookings(nowMs: number): (Booking & { tankId: string })[] {
    return store.running().flatMap(({ id, plan, happenedAtMs }) => {
      if (plan.kind !== 'transfer') return []
      const done = store.steps(id).filter(({ kind }) => kind === 'transfer').map(({ placeId, atMs }) => ({ tankId: placeId, atMs }))
      const { nextTankId, atTankId } = transferNow({ plan, startedAtMs: happenedAtMs, done, cleaned: [], match: null, timeZone: zone(), nowMs })
      const lots = facts.all(nowMs).get(atTankId)?.lots ?? []
      if (nextTankId === null || lots.length === 0) return []
      return [{ id, tankId: nextTankId, plan: 'a tank transfer', takes: 'whole', isReady: true, isPlan: true, fish: lots.map(({ lotId, species, quantity }) => ({ lotId, species, quantity })) }]
    })
  }
