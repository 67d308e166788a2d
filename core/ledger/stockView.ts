import type { Handling } from '../species/handling'

/** Fish of one lot in one place. */
export interface StockView {
  lotId: string
  lotCode: string
  speciesId: string
  species: string
  strain: string | null
  quantity: number
  /** Fish to be expected of it, in millionths; see docs/pools.md. */
  expected: number
  /** Supplier, or how the lot came to be. */
  origin: string
  sinceMs: number
  /** When they came into the house. */
  arrivedAtMs: number
  /** Whether they stood here before the books began. */
  isBeforeBooks: boolean
  /** What to mind with these fish in the hand. */
  handling: Handling
}

/** Counts the fish of several lots. */
export const countFish = (stock: readonly Pick<StockView, 'quantity'>[]): number => stock.reduce((sum, lot) => sum + lot.quantity, 0)
