import { groupBy } from '../collections/groupBy'
import type { StockView } from '../ledger/stockView'

/** Fish of one species and strain that stand in one place, whichever lots they are of. */
export interface Pool {
  key: string
  speciesId: string
  species: string
  strain: string | null
  quantity: number
  /** The largest lot first; last those of which only part of a fish is to be expected. */
  lots: [StockView, ...StockView[]]
}

/** From so much on it is said that a fish of a lot may be left, in millionths. */
export const perhapsFrom = 50_000

/** Names a kind of fish that can be told apart from others: its species and strain. */
export const kindKey = ({ speciesId, strain }: { speciesId: string; strain: string | null }): string => JSON.stringify([speciesId, strain])

/** Groups the stock of a place by what can be told apart, the largest group first. */
export function poolsOf(stock: readonly StockView[]): Pool[] {
  return [...groupBy(stock, kindKey)]
    .flatMap(([key, [first, ...rest]]): Pool[] => {
      if (!first) return []
      const { speciesId, species, strain } = first
      const lots: Pool['lots'] = [first, ...rest]
      return [{ key, speciesId, species, strain, quantity: lots.reduce((sum, { quantity }) => sum + quantity, 0), lots }]
    })
    .filter(({ quantity }) => quantity > 0)
    .sort((a, b) => b.quantity - a.quantity)
}

/** Name of a kind of fish, with its strain where one was said. */
export const kindName = ({ species, strain }: { species: string; strain: string | null }): string => (strain ? `${species} (${strain})` : species)
