import type { TankKind, Water } from '../room/room.schema'
import type { Difference } from './differences'
import type { StocktakeKind } from './stocktake.schema'

/** Fish of one kind as they stand in a tank, and as they were counted. */
export interface KindInTank {
  speciesId: string
  species: string
  strain: string | null
  /** Fish in the books when they were counted, or now where they were not. */
  booked: number
  /** Null until the tank was counted. */
  counted: number | null
}

export interface TankToCount {
  tankId: string
  code: string
  kind: TankKind
  systemName: string
  water: Water
  kinds: KindInTank[]
  source: string | null
  countedAtMs: number | null
  countedBy: string | null
}

export interface StocktakeView {
  id: string
  kind: StocktakeKind
  begunAtMs: number
  begunBy: string
  booked: { atMs: number; staffName: string } | null
  /** In rack order. */
  tanks: TankToCount[]
  /** Where the count differs from the books; once it is booked, as it was booked. */
  differences: Difference[]
}

/** A kind of fish that can be chosen by a few letters. */
export interface KindName {
  name: string
  otherNames: string
  waters: Water[]
}
