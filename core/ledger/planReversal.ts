import { outsidePlaceId, type Movement } from './movement'

export type PlannedReversal =
  | { ok: true; fromPlaceId: string; toPlaceId: string; lotId: string; quantity: number; reversesId: string }
  | { ok: false; reason: 'is-reversal' }
  | { ok: false; reason: 'already-reversed' }
  | { ok: false; reason: 'fish-moved-on'; available: number }

/**
 * Plans the movement that takes an earlier one back: same fish, the other way round.
 * @param movement - what is to be taken back.
 * @param isReversed - whether a reversal of it exists already; a movement is taken back once at most.
 * @param available - fish of that lot now in the place the movement went to.
 * @example planReversal(moveOf6, false, 4) // { ok: false, reason: 'fish-moved-on', available: 4 }
 */
export function planReversal(movement: Movement, isReversed: boolean, available: number): PlannedReversal {
  if (movement.kind === 'reversal') return { ok: false, reason: 'is-reversal' }
  if (isReversed) return { ok: false, reason: 'already-reversed' }
  if (movement.toPlaceId !== outsidePlaceId && available < movement.quantity) return { ok: false, reason: 'fish-moved-on', available }
  const { fromPlaceId, toPlaceId, lotId, quantity, id } = movement
  return { ok: true, fromPlaceId: toPlaceId, toPlaceId: fromPlaceId, lotId, quantity, reversesId: id }
}
