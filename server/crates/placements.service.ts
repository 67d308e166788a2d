import { groupBy } from '../../core/collections/groupBy'
import type { WaitingForTank } from '../../core/crates/crateView'
import type { PlaceBags, UndoPlacement } from '../../core/crates/crates.schema'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import type { LedgerService } from '../ledger/ledger.service'
import type { LedgerStore } from '../ledger/ledger.store'
import type { PlacingService } from '../placing/placing.service'
import { crateGuards } from './crateGuards'
import type { CratesStore, PlaceableBag } from './crates.store'

interface Collaborators {
  store: CratesStore
  ledger: LedgerService
  ledgerStore: LedgerStore
  isTank: (id: string) => boolean
  placing: Pick<PlacingService, 'require' | 'against'>
}

/** Fish out of their bags into the tanks that were planned, and back. */
export function createPlacementsService({ store, ledger, ledgerStore, isTank, placing }: Collaborators) {
  const { requireCrate, requireOpen } = crateGuards(store)

  return {
    /** For every planned tank with fish waiting in bags: the rules that they would break in it. */
    waiting(id: string, nowMs: number): { tanks: WaitingForTank[] } {
      return { tanks: [...groupBy(store.placeable(requireCrate(id), null), (bag) => bag.tankId)].map(([tankId, bags]) => ({ tankId, broken: placing.against({ going: goingOf(bags), tankId }, nowMs) })) }
    },

    /** Moves fish from their bags to the planned tanks; those that would break a rule stay in their bags. */
    placeBags(context: CommandContext, { tankId, happenedAtMs, ...against }: PlaceBags) {
      const crateId = requireOpen(context.params.crateId)
      if (tankId !== null && !isTank(tankId)) throw fieldProblem('tankId', 'There is no such tank')
      const all = store.placeable(crateId, tankId)
      if (all.length === 0) throw new Problem('conflict', 'No fish in bags have a planned tank here')
      const byTank = [...groupBy(all, (bag) => bag.tankId)]
      const sound = tankId === null ? byTank.filter(([id, bags]) => placing.against({ going: goingOf(bags), tankId: id }, context.nowMs).length === 0) : byTank
      // Where no tank is sound, the first says why.
      const asked = tankId === null && sound.length > 0 ? [] : byTank
      for (const [id, bags] of asked) placing.require(context, { going: goingOf(bags), tankId: id, path: 'tankId', ...against })
      const bags = sound.flatMap(([, each]) => each)
      for (const bag of bags) ledger.write(context, { kind: 'move', lotId: bag.lotId, fromPlaceId: bag.bagId, toPlaceId: bag.tankId, quantity: bag.quantity, happenedAtMs })
      return { placed: bags.reduce((sum, bag) => sum + bag.quantity, 0), left: all.reduce((sum, bag) => sum + bag.quantity, 0) - bags.reduce((sum, bag) => sum + bag.quantity, 0) }
    },

    /** Takes a placing back while its fish still stand where it put them: all of them, or none. */
    undoPlacement(context: CommandContext, { placementKey, happenedAtMs }: UndoPlacement) {
      const crateId = requireOpen(context.params.crateId)
      if (store.placements(crateId, placementKey).length === 0) throw new Problem('conflict', 'This placing was taken back already')
      const moves = store.bagIds(crateId).flatMap((bagId) => ledgerStore.standingOfCommand(placementKey, bagId))
      for (const move of moves) ledger.reverse(context, move, happenedAtMs, 'placing undone')
      return { returned: moves.reduce((sum, move) => sum + move.quantity, 0) }
    },
  }
}
export type PlacementsService = ReturnType<typeof createPlacementsService>

/** Bags of one tank, lot by lot. */
const goingOf = (bags: readonly PlaceableBag[]) => [...groupBy(bags, ({ lotId }) => lotId)].map(([lotId, each]) => ({ lotId, quantity: each.reduce((sum, { quantity }) => sum + quantity, 0) }))
