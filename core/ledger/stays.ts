import { outsidePlaceId, type Movement } from './movement'

/** A movement with when it happened and where it stands in the order of recording. */
export interface DatedMovement extends Movement {
  seq: number
  happenedAtMs: number
}

/** Fish of a lot stood in a place: from when the first came until the last had left, however many there were between. */
export interface Stay {
  lotId: string
  placeId: string
  fromMs: number
  /** When the last of them left; null while some stand there. */
  untilMs: number | null
  /** The movement that brought the first. */
  openedById: string
  /** The movement that took the last; null while some stand there. */
  closedById: string | null
}

/**
 * Reads the stays of one lot out of its movements, by when they happened and not by when they were entered. What was
 * taken back never was, nor was taking it back. Where dates cannot be (fish left before they came), they count as there
 * from when the books say they were.
 * @param movements - all movements of the lot, in any order.
 * @returns stays by place, the earlier first.
 * @example staysOf([arriveInBag, moveToTank]) // [{ placeId: 'bag', untilMs: 5 }, { placeId: 'tank', fromMs: 5, untilMs: null }]
 */
export function staysOf(movements: readonly DatedMovement[]): Stay[] {
  const takenBack = new Set(movements.map(({ reversesId }) => reversesId))
  const standing = movements.filter(({ id, reversesId }) => reversesId === null && !takenBack.has(id))
  const places = new Set(standing.flatMap(({ fromPlaceId, toPlaceId }) => [fromPlaceId, toPlaceId]))
  places.delete(outsidePlaceId)
  const inOrder = standing.sort((a, b) => a.happenedAtMs - b.happenedAtMs || a.seq - b.seq)
  return [...places].sort().flatMap((placeId) => staysAt(placeId, inOrder))
}

function staysAt(placeId: string, inOrder: readonly DatedMovement[]): Stay[] {
  const stays: Stay[] = []
  let fish = 0
  for (const { id, lotId, fromPlaceId, toPlaceId, quantity, happenedAtMs } of inOrder) {
    const change = toPlaceId === placeId ? quantity : fromPlaceId === placeId ? -quantity : 0
    const [before, open] = [fish, stays.at(-1)]
    fish += change
    if (before <= 0 && fish > 0) stays.push({ lotId, placeId, fromMs: happenedAtMs, untilMs: null, openedById: id, closedById: null })
    else if (before > 0 && fish <= 0 && open) stays[stays.length - 1] = { ...open, untilMs: happenedAtMs, closedById: id }
  }
  return stays
}
