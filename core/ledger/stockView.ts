/** Fish of one lot in one place. */
export interface StockView {
  lotId: string
  lotCode: string
  species: string
  quantity: number
  /** Supplier, or how the lot came to be. */
  origin: string
  sinceMs: number
}
