import type { ChooseTank, CreateCrate, PlaceBags, RecordBags, UndoBags, UndoPlacement } from '../../core/crates/crates.schema'
import { readPackingList } from '../../core/crates/readPackingList'
import { splitIntoBags } from '../../core/crates/splitIntoBags'
import type { CrateSummary, CrateView } from '../../core/crates/crateView'
import { bounds } from '../../core/fields/fields.schema'
import { outsidePlaceId } from '../../core/ledger/movement'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import type { LedgerService } from '../ledger/ledger.service'
import type { LedgerStore } from '../ledger/ledger.store'
import { newId } from '../newId'
import type { SpeciesStore } from '../species/species.store'
import type { CratesStore, OpenedBag } from './crates.store'
import { listProblem, readCsv } from './readCsv'

interface Collaborators {
  store: CratesStore
  ledger: LedgerService
  ledgerStore: LedgerStore
  species: SpeciesStore
  isTank: (id: string) => boolean
}

/** Crates from the packing list to the last fish out of its bag. */
export function createCratesService({ store, ledger, ledgerStore, species, isTank }: Collaborators) {
  function requireCrate(id: string | undefined): string {
    if (!id || !store.isCrate(id)) throw new Problem('not-found', 'There is no such crate')
    return id
  }

  function requireBag(crateId: string, bagId: string, index: number): OpenedBag {
    const bag = store.bagOfCrate(crateId, bagId)
    if (!bag) throw fieldProblem(`bagIds[${index}]`, 'This bag is not part of this crate')
    return bag
  }

  function recordBag(context: CommandContext, bag: OpenedBag, input: RecordBags): void {
    const known = store.standingRecord(bag.id)
    if (known) throw new Problem('conflict', `Bag ${bag.number} was recorded already (${known.alive} alive, ${known.dead} dead, by ${known.staffName})`, { current: { alive: known.alive, dead: known.dead } })
    const { bagIds: _, ...found } = input
    const { actor, key, nowMs } = context
    store.insertRecord({ id: newId(), bagId: bag.id, ...found, staffId: actor.id, commandKey: key, recordedAtMs: nowMs })
    const { alive, dead, happenedAtMs } = input
    const entry = { lotId: bag.lotId, happenedAtMs }
    if (alive + dead > 0) ledger.write(context, { ...entry, kind: 'arrive', fromPlaceId: outsidePlaceId, toPlaceId: bag.id, quantity: alive + dead })
    if (dead > 0) ledger.write(context, { ...entry, kind: 'dead-in-bag', fromPlaceId: bag.id, toPlaceId: outsidePlaceId, quantity: dead })
  }

  function undoBag(context: CommandContext, bag: OpenedBag, happenedAtMs: number): void {
    const record = store.standingRecord(bag.id)
    if (!record) throw new Problem('conflict', `Bag ${bag.number} has no record to undo`)
    for (const movement of ledgerStore.standingOfCommand(record.commandKey, bag.id)) ledger.reverse(context, movement, happenedAtMs, 'bag undone')
    store.markUndone(record.id, { undoneById: context.actor.id, undoneAtMs: context.nowMs, undoneCommandKey: context.key })
  }

  function insertLine(crate: { id: string; number: number; supplier: string }, input: CreateCrate['lines'][number], index: number, firstBag: number, nowMs: number): number {
    const split = splitIntoBags(input.count, input.bags, input.perBag)
    if (!split.ok) throw fieldProblem(`lines[${index}].perBag`, split.reason)
    if (input.tankId !== null && !isTank(input.tankId)) throw fieldProblem(`lines[${index}].tankId`, 'There is no such tank')
    const [lotId, lineId] = [newId(), newId()]
    const code = `${crate.number}-${String(index + 1).padStart(2, '0')}`
    ledgerStore.insertLot({ id: lotId, code, speciesId: species.named(input.species, nowMs), origin: crate.supplier, createdAtMs: nowMs })
    store.insertLine({ id: lineId, crateId: crate.id, position: index + 1, count: input.count, lotId, tankId: input.tankId, version: 1 })
    split.fish.forEach((listed, bagIndex) => {
      const id = newId()
      ledgerStore.insertPlace(id, 'bag')
      store.insertBag({ id, lineId, crateId: crate.id, number: firstBag + bagIndex, listed })
    })
    return split.fish.length
  }

  return {
    /** Every crate, newest first. */
    list: (): { crates: CrateSummary[] } => ({ crates: store.summaries() }),

    /** One crate with its lines and bags. */
    view(id: string): CrateView {
      const view = store.view(id)
      if (!view) throw new Problem('not-found', 'There is no such crate')
      return view
    },

    /** Reads a packing list without keeping anything of it. */
    readList(bytes: Uint8Array) {
      const list = readPackingList(readCsv(bytes), store.tankCodes())
      if (!list.ok) throw listProblem(list.errors.slice(0, 200))
      return { lines: list.lines.map((line) => ({ ...line, isNewSpecies: !species.isKnown(line.species) })), notices: list.notices }
    },

    /** Takes a crate in: its lines become lots, its bags places, all at once or not at all. */
    createCrate({ nowMs }: CommandContext, input: CreateCrate) {
      const bagCount = input.lines.reduce((sum, line) => sum + line.bags, 0)
      if (bagCount > bounds.bagsInCrate) throw fieldProblem('lines', `A crate may have at most ${bounds.bagsInCrate} bags; this list has ${bagCount}`)
      const supplier = store.supplierNamed(input.supplier)
      const crate = { id: newId(), number: store.nextNumber(), supplier: supplier.name }
      store.insertCrate({ id: crate.id, number: crate.number, supplierId: supplier.id, expectedAtMs: input.expectedAtMs, packedAtMs: input.packedAtMs, createdAtMs: nowMs })
      input.lines.reduce((firstBag, line, index) => firstBag + insertLine(crate, line, index, firstBag, nowMs), 1)
      return { id: crate.id, number: crate.number }
    },

    /** Chooses the tank of a line; a choice made on an old view is refused with both values. */
    chooseTank({ params }: CommandContext, { tankId, version }: ChooseTank) {
      const line = store.lineOfCrate(requireCrate(params.crateId), params.lineId ?? '')
      if (!line) throw new Problem('not-found', 'There is no such line in this crate')
      if (line.version !== version) throw new Problem('stale', 'Somebody else chose a tank for this line meanwhile', { current: { tankId: line.tankId, version: line.version } })
      if (tankId !== null && !isTank(tankId)) throw fieldProblem('tankId', 'There is no such tank')
      store.setLineTank(line.id, tankId, version + 1)
      return { version: version + 1 }
    },

    /** Records what was found in bags: the fish then stand in the bag, the dead leave it at once. */
    recordBags(context: CommandContext, input: RecordBags) {
      const crateId = requireCrate(context.params.crateId)
      input.bagIds.forEach((bagId, index) => recordBag(context, requireBag(crateId, bagId, index), input))
      return {}
    },

    /** Takes back what was recorded for bags, while their fish are still in them. */
    undoBags(context: CommandContext, { bagIds, happenedAtMs }: UndoBags) {
      const crateId = requireCrate(context.params.crateId)
      bagIds.forEach((bagId, index) => undoBag(context, requireBag(crateId, bagId, index), happenedAtMs))
      return {}
    },

    /** Moves fish from their bags to the planned tanks. */
    placeBags(context: CommandContext, { tankId, happenedAtMs }: PlaceBags) {
      const crateId = requireCrate(context.params.crateId)
      if (tankId !== null && !isTank(tankId)) throw fieldProblem('tankId', 'There is no such tank')
      const bags = store.placeable(crateId, tankId)
      if (bags.length === 0) throw new Problem('conflict', 'No fish in bags have a planned tank here')
      for (const bag of bags) ledger.write(context, { kind: 'move', lotId: bag.lotId, fromPlaceId: bag.bagId, toPlaceId: bag.tankId, quantity: bag.quantity, happenedAtMs })
      return { placed: bags.reduce((sum, bag) => sum + bag.quantity, 0) }
    },

    /** Takes a placing back while its fish still stand where it put them: all of them, or none. */
    undoPlacement(context: CommandContext, { placementKey, happenedAtMs }: UndoPlacement) {
      const crateId = requireCrate(context.params.crateId)
      if (store.placements(crateId, placementKey).length === 0) throw new Problem('conflict', 'This placing was taken back already')
      const moves = store.bagIds(crateId).flatMap((bagId) => ledgerStore.standingOfCommand(placementKey, bagId))
      for (const move of moves) ledger.reverse(context, move, happenedAtMs, 'placing undone')
      return { returned: moves.reduce((sum, move) => sum + move.quantity, 0) }
    },
  }
}
export type CratesService = ReturnType<typeof createCratesService>
