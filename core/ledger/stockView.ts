import type { Handling } from '../species/handling'

/** Fish of one lot in one place. */
export interface StockView {
  lotId: string
  lotCode: string
  species: string
  quantity: number
  /** Supplier, or how the lot came to be. */
  origin: string
  sinceMs: number
  /** What to mind with these fish in the hand. */
  handling: Handling
}

/** Counts the fish of several lots. */
export const countFish = (stock: readonly Pick<StockView, 'quantity'>[]): number => stock.reduce((sum, lot) => sum + lot.quantity, 0)
