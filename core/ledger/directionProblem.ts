import { outsidePlaceId, type Movement } from './movement'

/**
 * Says what is wrong with the direction of a movement, or null when it is sound: each kind has its own way in
 * relation to the outside (an arrival comes from it, a loss goes to it, a move never touches it).
 */
export function directionProblem(movement: Pick<Movement, 'kind' | 'fromPlaceId' | 'toPlaceId' | 'quantity' | 'reversesId'>): string | null {
  const { kind, fromPlaceId, toPlaceId, quantity, reversesId } = movement
  if (!Number.isSafeInteger(quantity) || quantity <= 0) return 'the quantity must be a positive whole number'
  if (fromPlaceId === toPlaceId) return 'both places are the same'
  if ((kind === 'reversal') !== (reversesId !== null)) return 'only a reversal names what it reverses'
  const fromOutside = fromPlaceId === outsidePlaceId
  const toOutside = toPlaceId === outsidePlaceId
  switch (kind) {
    case 'arrive':
    case 'born':
      return fromOutside ? null : 'it must come from outside'
    case 'dead-in-bag':
    case 'loss':
    case 'release':
      return toOutside ? null : 'it must go outside'
    case 'move':
      return fromOutside || toOutside ? 'a move stays inside' : null
    case 'count-correction':
      return fromOutside !== toOutside ? null : 'a correction is against the outside'
    case 'reversal':
      return null
  }
}
