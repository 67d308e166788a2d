import type { SaleMapping, SoldRow } from './readSales'
import type { SaleTank } from './tanksForSale'

/** A kind of fish that stands somewhere, and where. */
export interface KindForSale {
  speciesId: string
  species: string
  strain: string | null
  tanks: SaleTank[]
}

export interface SalesView {
  /** The day in the room. */
  on: string
  lists: { id: string; bookedAtMs: number; staffName: string; rows: number; fish: number; isTakenBack: boolean }[]
  kinds: KindForSale[]
}

/** A row as it was read, and what its word means as far as that is known here. */
export interface ReadSaleRow extends SoldRow {
  /** Null for a word nobody has said the meaning of; `no fish` for what is none. */
  means: { speciesId: string; strain: string | null } | 'no fish' | null
  isBooked: boolean
}

export interface SalesRead {
  rows: ReadSaleRow[]
  columns: SaleColumns
}
export interface SaleColumns {
  heading: string[]
  sample: string[][]
  mapping: SaleMapping
  isRemembered: boolean
}
