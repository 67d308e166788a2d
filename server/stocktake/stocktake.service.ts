import { groupBy } from '../../core/collections/groupBy'
import { outsidePlaceId } from '../../core/ledger/movement'
import { weightOfReason } from '../../core/pools/hazard'
import type { Water } from '../../core/room/room.schema'
import { differencesOf, isWhatWasCounted, type CountedKind, type Difference } from '../../core/stocktake/differences'
import { readCountList } from '../../core/stocktake/readCountList'
import type { BeginStocktake, BookPart, BookStocktake, CountTank, EndStocktake, ImportCounts } from '../../core/stocktake/stocktake.schema'
import type { KindName, StocktakeView } from '../../core/stocktake/stocktakeView'
import { speciesBook } from '../../core/species/speciesBook'
import { nameKey } from '../../core/words/nameKey'
import { listProblem, readCsv } from '../crates/readCsv'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import type { LedgerService } from '../ledger/ledger.service'
import { newId } from '../newId'
import type { PoolsService } from '../pools/pools.service'
import type { SpeciesStore } from '../species/species.store'
import type { StocktakeStore } from './stocktake.store'

interface Collaborators {
  store: StocktakeStore
  ledger: Pick<LedgerService, 'takeOut' | 'addBack' | 'beginLot' | 'findAgain' | 'reverseCommand'>
  pools: Pick<PoolsService, 'missing'>
  species: Pick<SpeciesStore, 'named' | 'isKnown'>
  tankIdOf: (id: string) => string
}

type Row = NonNullable<ReturnType<StocktakeStore['byId']>>

/** Where fish are from that stood here before the books and of which nobody said more. */
const beforeBooks = 'before the books'

/** The room counted as a whole: counts are a draft until they are booked together, and are taken back together. */
export function createStocktakeService({ store, ledger, pools, species, tankIdOf }: Collaborators) {
  function requireOpen({ params }: CommandContext): Row {
    const row = store.byId(params.stocktakeId ?? '')
    if (!row) throw new Problem('not-found', 'There is no such stocktake')
    if (row.droppedAtMs !== null) throw new Problem('conflict', 'This stocktake was left; begin another')
    if (row.bookedAtMs !== null) throw new Problem('conflict', `${store.nameOf(row.bookedById)} booked this stocktake already`)
    return row
  }

  /** What was counted, beside the books of that moment. */
  function countsOf(id: string): CountedKind[] {
    const [tanks, sold] = [new Map(store.tanks(id).map((tank) => [tank.tankId, tank])), store.soldFrom()]
    return store.kinds(id).flatMap(({ tankId, counted, ...kind }): CountedKind[] => {
      const tank = tanks.get(tankId)
      return counted === null || !tank ? [] : [{ ...kind, tankId, counted, tankCode: tank.code, isSoldFrom: tank.purpose === 'sale' || (tank.purpose === null && sold.has(tankId)), missing: counted > kind.booked ? pools.missing(tankId, kind) : 0 }]
    })
  }

  function viewOf(row: Row): StocktakeView {
    const kinds = groupBy(store.kinds(row.id), ({ tankId }) => tankId)
    const booked = row.bookedAtMs === null ? null : { atMs: row.bookedAtMs, staffName: store.nameOf(row.bookedById) }
    return {
      ...{ id: row.id, kind: row.kind, begunAtMs: row.begunAtMs, begunBy: store.nameOf(row.begunById), booked },
      tanks: store.tanks(row.id).map(({ purpose: _, ...tank }) => ({ ...tank, kinds: (kinds.get(tank.tankId) ?? []).map(({ tankId: __, ...kind }) => kind) })),
      differences: row.bookedParts === null ? differencesOf(countsOf(row.id), row.kind) : (JSON.parse(row.bookedParts) as Difference[]),
    }
  }

  function keep({ actor }: CommandContext, id: string, { tankId, kinds, source, happenedAtMs }: CountTank, nowMs: number): void {
    const counts = kinds.map(({ species: name, strain, counted }, index) => ({ speciesId: species.named(name, nowMs, `kinds[${index}].species`), strain: strain?.trim() || null, counted }))
    store.setTank({ stocktakeId: id, tankId: tankIdOf(tankId), source: source?.trim() || null, countedAtMs: happenedAtMs, countedById: actor.id }, counts)
  }

  /** Books one difference for the reason somebody takes to be right. */
  function bookPart(context: CommandContext, part: BookPart, counted: { atMs: number; source: string | null }): void {
    const { tankId, speciesId, strain, quantity, reason } = part
    const of = { placeId: tankId, kind: { speciesId, strain }, among: [] }
    const entry = { kind: 'count-correction', reason, happenedAtMs: counted.atMs } as const
    if (part.way === 'fewer') {
      const isMove = reason === 'moved' && part.toTankId !== null
      ledger.takeOut(context, { ...of, weightOf: weightOfReason(reason) }, quantity, isMove ? { kind: 'move', note: 'found there at a stocktake', happenedAtMs: counted.atMs } : entry, isMove ? tankIdOf(part.toTankId ?? '') : outsidePlaceId)
    } else if (reason === 'stood here before the books' || reason === 'born here')
      ledger.beginLot(context, { tankId, speciesId, strain, quantity, note: null, happenedAtMs: counted.atMs, ...(reason === 'born here' ? { kind: 'born', origin: reason } : { kind: 'arrive', origin: counted.source ?? beforeBooks, isBeforeBooks: true }) })
    else if (reason === 'found again') ledger.findAgain(context, of, quantity, counted.atMs)
    else ledger.addBack(context, of, quantity, entry)
  }

  return {
    view(): { stocktake: StocktakeView | null } {
      const row = store.newest()
      return { stocktake: row && viewOf(row) }
    },

    /** Every kind of fish by the names it goes by: those of this room, then those of the book. */
    kinds(): { kinds: KindName[]; sources: string[] } {
      const here = store.register().map(({ name, otherNames, scientificName, waters, water }): KindName => ({ name, otherNames: [otherNames, scientificName].filter(Boolean).join(', '), waters: watersOf(waters, water) }))
      const known = new Set(here.map(({ name }) => nameKey(name)))
      const book = speciesBook.filter(({ name }) => !known.has(nameKey(String(name)))).map((entry): KindName => ({ name: String(entry.name), otherNames: [entry.otherNames, entry.scientificName].filter(Boolean).join(', '), waters: watersOf(JSON.stringify(entry.waters ?? []), (entry.water ?? null) as string | null) }))
      return { kinds: [...here, ...book], sources: store.suppliers() }
    },

    beginStocktake({ actor, nowMs: _ }: CommandContext, { kind, happenedAtMs }: BeginStocktake) {
      const underWay = store.underWay()
      if (underWay) return { id: underWay.id }
      const id = newId()
      store.insert({ id, kind, begunAtMs: happenedAtMs, begunById: actor.id })
      return { id }
    },

    countTank(context: CommandContext, input: CountTank) {
      keep(context, requireOpen(context).id, input, context.nowMs)
      return {}
    },

    /** Takes a list as counts of the tanks it names; the books stay as they are until the stocktake is booked. */
    importCounts(context: CommandContext, { csv, happenedAtMs }: ImportCounts) {
      const { id } = requireOpen(context)
      const list = readCountList(readCsv(new TextEncoder().encode(csv)), store.tankIdsByCode())
      if (!list.ok) throw listProblem(list.errors.slice(0, 200))
      const newKinds = [...new Set(list.tanks.flatMap(({ kinds }) => kinds.map(({ species: name }) => name)))].filter((name) => !species.isKnown(name))
      for (const tank of list.tanks) keep(context, id, { ...tank, happenedAtMs }, context.nowMs)
      return { tanks: list.tanks.length, fish: list.tanks.reduce((sum, { kinds }) => sum + kinds.reduce((all, { counted }) => all + counted, 0), 0), newKinds }
    },

    /** Books all differences, as they were seen, in one. */
    bookStocktake(context: CommandContext, { parts, happenedAtMs }: BookStocktake) {
      const row = requireOpen(context)
      const counts = countsOf(row.id)
      if (!isWhatWasCounted(parts, counts)) throw new Problem('stale', 'The books or the counts have changed since; look at the differences again', { current: {} })
      const tanks = new Map(store.tanks(row.id).map((tank) => [tank.tankId, tank]))
      const seen = differencesOf(counts, row.kind)
      for (const part of parts) {
        if (part.reason === 'moved' && part.toTankId === null) throw fieldProblem('parts', 'Say which tank they went to')
        const tank = tanks.get(part.tankId)
        bookPart(context, part, { atMs: tank?.countedAtMs ?? happenedAtMs, source: tank?.source ?? null })
      }
      const asBooked = parts.map((part): Difference => ({ ...(seen.find((each) => each.tankId === part.tankId && each.speciesId === part.speciesId && each.strain === part.strain) as Difference), ...part, toTankCode: tanks.get(part.toTankId ?? '')?.code ?? null }))
      store.update(row.id, { bookedKey: context.key, bookedAtMs: happenedAtMs, bookedById: context.actor.id, bookedParts: JSON.stringify(asBooked) })
      return { movements: parts.length }
    },

    /** Takes all that was booked back; the counts are a draft again. */
    unbookStocktake(context: CommandContext, { happenedAtMs }: EndStocktake) {
      const row = store.byId(context.params.stocktakeId ?? '')
      if (!row) throw new Problem('not-found', 'There is no such stocktake')
      if (row.bookedKey === null) throw new Problem('conflict', 'Nothing of this stocktake is booked')
      ledger.reverseCommand(context, row.bookedKey, { happenedAtMs, reason: 'stocktake taken back' })
      store.update(row.id, { bookedKey: null, bookedAtMs: null, bookedById: null, bookedParts: null })
      return {}
    },

    dropStocktake(context: CommandContext, { happenedAtMs }: EndStocktake) {
      store.update(requireOpen(context).id, { droppedAtMs: happenedAtMs })
      return {}
    },
  }
}
export type StocktakeService = ReturnType<typeof createStocktakeService>

const watersOf = (waters: string, water: string | null): Water[] => {
  const several = JSON.parse(waters || '[]') as Water[]
  return several.length > 0 ? several : water === null ? [] : [water as Water]
}
