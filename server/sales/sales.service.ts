import { TZDate } from '@date-fns/tz'
import { groupBy } from '../../core/collections/groupBy'
import { headingKey } from '../../core/crates/listMapping'
import { kindKey } from '../../core/pools/poolsOf'
import { guessSaleMapping, readSales, type SaleMapping } from '../../core/sales/readSales'
import type { BookSales, UnbookSales } from '../../core/sales/sales.schema'
import type { KindForSale, ReadSaleRow, SalesRead, SalesView } from '../../core/sales/salesView'
import { dayInZone } from '../../core/time/dayInZone'
import { nameKey } from '../../core/words/nameKey'
import { listProblem, readCsv } from '../crates/readCsv'
import type { FactsService } from '../facts/facts.service'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import type { LedgerService } from '../ledger/ledger.service'
import { newId } from '../newId'
import type { SalesStore } from './sales.store'

interface Collaborators {
  store: SalesStore
  facts: Pick<FactsService, 'inUse'>
  ledger: Pick<LedgerService, 'sell' | 'reverseCommand'>
  zone: () => string
}

/** What does not fit a row is said with what was sold in it. */
function inRow(index: number, item: string, sell: () => unknown): void {
  try {
    sell()
  } catch (error) {
    throw error instanceof Problem && error.code === 'invalid-input' ? fieldProblem(`rows[${index}].parts`, `${item}: ${error.message}`) : error
  }
}

/** How a list is to be read: on which day its sales were where no row says, and which column holds what (null: as remembered, or as its heading says). */
export interface SalesReadOptions {
  on: string | null
  mapping: SaleMapping | null
}

const listsShown = 10

/** What a till says was sold: read, looked over, booked as one and taken back as one. */
export function createSalesService({ store, facts, ledger, zone }: Collaborators) {
  /** Kinds of fish that stand somewhere, and in which tanks. */
  function kinds(nowMs: number): KindForSale[] {
    const standing = facts.inUse(nowMs).flatMap(({ tankId, code, purpose, lots }) => [...groupBy(lots, ({ speciesId, noted }) => kindKey({ speciesId, strain: noted.strain }))].map(([key, each]) => ({ key, lots: each, tank: { tankId, code, purpose, fish: each.reduce((sum, { quantity }) => sum + quantity, 0), isHeld: each.some(({ hold }) => hold?.isServed === false) } })))
    return [...groupBy(standing, ({ key }) => key)]
      .flatMap(([, each]): KindForSale[] => {
        const lot = each[0]?.lots[0]
        return lot ? [{ speciesId: lot.speciesId, species: lot.species, strain: lot.noted.strain, tanks: each.map(({ tank }) => tank) }] : []
      })
      .sort((a, b) => (a.species < b.species ? -1 : 1))
  }

  /** What a till's word means: as somebody said before, or because a kind is called so. */
  function meaningOf(item: string, standing: readonly KindForSale[]): ReadSaleRow['means'] {
    const said = store.meaning(nameKey(item))
    if (said) return said.speciesId === null ? 'no fish' : { speciesId: said.speciesId, strain: said.strain }
    const named = standing.filter(({ species, strain }) => nameKey(strain === null ? species : `${species} ${strain}`) === nameKey(item))
    return named.length === 1 && named[0] ? { speciesId: named[0].speciesId, strain: named[0].strain } : null
  }

  return {
    view(nowMs: number): SalesView {
      return { on: dayInZone(nowMs, zone()), lists: store.lists(listsShown).map(({ takenBackAtMs, ...list }) => ({ ...list, isTakenBack: takenBackAtMs !== null })), kinds: kinds(nowMs) }
    },

    /** Reads a till's list without keeping anything of it. */
    read(bytes: Uint8Array, { on, mapping }: SalesReadOptions, nowMs: number): SalesRead {
      const rows = readCsv(bytes)
      const heading = rows[0] ?? []
      const remembered = mapping === null ? store.mappingOf(headingKey(heading)) : null
      const columns = { heading, sample: rows.slice(1, 4), mapping: mapping ?? remembered ?? guessSaleMapping(heading), isRemembered: remembered !== null }
      const list = readSales(rows, columns.mapping, on ?? dayInZone(nowMs, zone()))
      if (!list.ok) throw listProblem(list.errors.slice(0, 200), { columns })
      const [booked, standing] = [store.booked(list.rows.map(({ key }) => key)), kinds(nowMs)]
      return { columns, rows: list.rows.map((row) => ({ ...row, isBooked: booked.has(row.key), means: meaningOf(row.item, standing) })) }
    },

    /** Books a till's list: every row from the tanks it names, and nothing twice. */
    bookSales(context: CommandContext, { rows, heading, mapping, heldBecause, happenedAtMs }: BookSales) {
      const booked = store.booked(rows.map(({ key }) => key))
      if (rows.some(({ key, isAgain }) => booked.has(key) && !isAgain)) throw new Problem('stale', 'Some of these sales were booked meanwhile; read the list again', { current: {} })
      const id = newId()
      const fish = rows.reduce((sum, { parts }) => sum + parts.reduce((all, { quantity }) => all + quantity, 0), 0)
      store.insertList({ id, commandKey: context.key, rows: rows.length, fish, bookedAtMs: happenedAtMs, bookedById: context.actor.id })
      rows.forEach(({ key, item, on, count, speciesId, strain, parts }, index) => {
        if (speciesId !== null && parts.reduce((sum, { quantity }) => sum + quantity, 0) !== count) throw fieldProblem(`rows[${index}].parts`, `${item}: say from which tanks all ${count} were sold`)
        store.insertRow(id, key)
        store.remember({ wordKey: nameKey(item), speciesId, strain })
        for (const { tankId, quantity } of speciesId === null ? [] : parts)
          inRow(index, item, () => ledger.sell(context, { tankId, speciesId: speciesId ?? '', strain, quantity, heldBecause, note: `till: ${item}`, happenedAtMs: Math.min(happenedAtMs, momentOf(on, happenedAtMs)) }))
      })
      store.rememberMapping(heading, mapping as SaleMapping)
      return { id, fish }
    },

    /** Takes all of a list back. Its rows may be booked again. */
    unbookSales(context: CommandContext, { happenedAtMs }: UnbookSales) {
      const list = store.byId(context.params.saleId ?? '')
      if (!list) throw new Problem('not-found', 'There is no such list of sales')
      if (list.takenBackAtMs !== null) throw new Problem('conflict', 'This list was taken back already')
      ledger.reverseCommand(context, list.commandKey, { happenedAtMs, reason: 'list of sales taken back' })
      store.takeBack(list.id, happenedAtMs)
      return {}
    },
  }

  /** Noon of an earlier day; today it is now. A till's clock is not the room's. */
  function momentOf(on: string, nowMs: number): number {
    const [year = 0, month = 1, day = 1] = on.split('-').map(Number)
    return on >= dayInZone(nowMs, zone()) ? nowMs : new TZDate(year, month - 1, day, 12, zone()).getTime()
  }
}
export type SalesService = ReturnType<typeof createSalesService>
