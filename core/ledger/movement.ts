/** Where fish can stand. `outside` is the world: suppliers, customers, the dead. */
export const placeKinds = ['bag', 'vessel', 'tank', 'outside'] as const
export type PlaceKind = (typeof placeKinds)[number]

/** The one place of kind `outside`; its stock is not counted. */
export const outsidePlaceId = 'outside'

export const movementKinds = ['arrive', 'dead-in-bag', 'move', 'loss', 'release', 'born', 'count-correction', 'reversal'] as const
export type MovementKind = (typeof movementKinds)[number]

/** One entry of the ledger: so many fish of one lot go from one place to another. Never changed once written. */
export interface Movement {
  id: string
  kind: MovementKind
  lotId: string
  fromPlaceId: string
  toPlaceId: string
  /** Fish; a positive whole number. */
  quantity: number
  /** The movement that this one takes back; only for `reversal`. */
  reversesId: string | null
}

export const lossCauses = ['found dead', 'put down', 'jumped', 'eaten', 'pump intake', 'not found', 'unknown'] as const
export type LossCause = (typeof lossCauses)[number]

/** A lot whose hold is not over: which day of how many today is, and what it waits for, in words. */
export interface HeldLot {
  lotId: string
  lotCode: string
  day: number
  of: number
  gates: string | null
}

export const releaseReasons = ['sold', 'sent out', 'given'] as const
export type ReleaseReason = (typeof releaseReasons)[number]
