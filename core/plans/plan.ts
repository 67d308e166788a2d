import { groupBy } from '../collections/groupBy'
import type { KnownFacts, When } from './planFacts'

export interface PlannedMove {
  lot: string
  n: number
  from: string
  to: string
}

/** Fish that are to be moved once something is so. It never moves a fish itself. */
export interface Plan {
  id: string
  /** When it was made; the earlier one has the fish. Any text that sorts by time. */
  made: string
  moves: readonly PlannedMove[]
  when: When
  /** *whole* bears nobody else in the places it goes to. */
  takes?: 'whole' | 'share'
  /** Its last day; null without end. */
  until?: string | null
  state?: 'open' | 'done' | 'dropped'
}

type StockRow = NonNullable<KnownFacts['stock']>[number]
interface StockIndex {
  byPlace: ReadonlyMap<string, readonly StockRow[]>
  byLot: ReadonlyMap<string, number>
}

/** Every plan asks the same stock again and again; it is sorted once. */
const indexes = new WeakMap<readonly StockRow[], StockIndex>()
const noStock: readonly StockRow[] = []
function indexOf({ stock = noStock }: KnownFacts): StockIndex {
  const known = indexes.get(stock)
  if (known) return known
  const byLot = new Map<string, number>()
  for (const { lot, n } of stock) byLot.set(lot, (byLot.get(lot) ?? 0) + n)
  const index = { byPlace: groupBy(stock, ({ place }) => place), byLot }
  indexes.set(stock, index)
  return index
}

/** What stands in a place, of each lot that is there. */
export const inPlace = (facts: KnownFacts, place: string): readonly StockRow[] => indexOf(facts).byPlace.get(place) ?? noStock
/** Fish of a lot that the house has, wherever they stand. */
export const inHouse = (facts: KnownFacts, lot: string): number => indexOf(facts).byLot.get(lot) ?? 0
/** Fish of a lot that stand in a place. */
export const standing = (facts: KnownFacts, lot: string, place: string): number => inPlace(facts, place).reduce((sum, each) => sum + (each.lot === lot ? each.n : 0), 0)
/** Lots that a plan moves. */
export const ownLots = ({ moves }: Pick<Plan, 'moves'>): string[] => moves.map(({ lot }) => lot)
