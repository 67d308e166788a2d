import { answers, command, named, read } from '../commands/declare'
import { withPendingCounts } from './pendingCounts'
import { beginStocktakeSchema, bookStocktakeSchema, countTankSchema, endStocktakeSchema, importCountsSchema } from './stocktake.schema'
import type { KindName, StocktakeView } from './stocktakeView'

/** Counting the room: what already swims here when the books begin, and later what the books are held against. */
export const stocktakeApi = named({
  /** the one under way, or the last one; null before the first */
  readStocktake: read({ path: '/api/stocktake', access: 'device', about: () => ['stocktake', 'tank', 'register', 'house', 'staff'], staysMs: 60_000, withPending: withPendingCounts, answer: answers<{ stocktake: StocktakeView | null }>() }),
  /** every kind of fish that is known here or in the book, by all its names */
  readKinds: read({ path: '/api/stocktake/kinds', access: 'device', about: () => ['register'], staysMs: Infinity, answer: answers<{ kinds: KindName[]; sources: string[] }>() }),
  /** where one is under way, that one goes on */
  beginStocktake: command({ method: 'post', path: '/api/stocktakes', access: 'keeper', schema: beginStocktakeSchema, touches: () => ['stocktake'], answer: answers<{ id: string }>() }),
  countTank: command({ method: 'post', path: '/api/stocktakes/:stocktakeId/counts', access: 'keeper', schema: countTankSchema, touches: () => ['stocktake', 'register'] }),
  /** columns tank, species, count, and if wanted strain and source; errors by row, and then nothing is kept */
  importCounts: command({ method: 'post', path: '/api/stocktakes/:stocktakeId/list', access: 'keeper', schema: importCountsSchema, mostBytes: 3_000_000, touches: () => ['stocktake', 'register'], answer: answers<{ tanks: number; fish: number; newKinds: string[] }>() }),
  /** all differences in one; 409 `stale` when the books say something else meanwhile */
  bookStocktake: command({ method: 'post', path: '/api/stocktakes/:stocktakeId/booking', access: 'keeper', schema: bookStocktakeSchema, mostBytes: 1_000_000, touches: () => ['stocktake', 'tank', 'register'], answer: answers<{ movements: number }>() }),
  /** all of it or nothing; 409 naming what is in the way */
  unbookStocktake: command({ method: 'post', path: '/api/stocktakes/:stocktakeId/reversal', access: 'keeper', schema: endStocktakeSchema, touches: () => ['stocktake', 'tank'] }),
  /** one that was not booked; its counts are gone */
  dropStocktake: command({ method: 'post', path: '/api/stocktakes/:stocktakeId/end', access: 'keeper', schema: endStocktakeSchema, touches: () => ['stocktake'] }),
})
