import { directionProblem } from './directionProblem'
import { outsidePlaceId, type Movement } from './movement'

/** Fish of each lot in each place, by `stockKey`; a place without fish of a lot has no entry. */
export type Stock = ReadonlyMap<string, number>

/** Names one lot in one place. */
export const stockKey = (placeId: string, lotId: string): string => `${placeId}/${lotId}`

/** Reads how many fish of a lot stand in a place; 0 when none. */
export const fishIn = (stock: Stock, placeId: string, lotId: string): number => stock.get(stockKey(placeId, lotId)) ?? 0

export type Applied = { ok: true; stock: Stock } | { ok: false; reason: 'below-zero'; available: number }

/**
 * Applies one movement to a stock and returns the new one; the argument is left as it was.
 * @returns `below-zero` with the fish that are there when the place holds fewer than the movement takes.
 * @throws RangeError when the movement itself makes no sense (see `directionProblem`).
 * @example applyMovement(new Map(), arriveOf8).stock // Map { 'bag1/lot1' => 8 }
 */
export function applyMovement(stock: Stock, movement: Movement): Applied {
  const wrong = directionProblem(movement)
  if (wrong) throw new RangeError(`movement ${movement.id} (${movement.kind}, ${movement.quantity}): ${wrong}`)
  const available = movement.fromPlaceId === outsidePlaceId ? Infinity : fishIn(stock, movement.fromPlaceId, movement.lotId)
  if (available < movement.quantity) return { ok: false, reason: 'below-zero', available }
  const next = new Map(stock)
  add(next, movement)
  return { ok: true, stock: next }
}

/** Sums movements into the stock they amount to. Balances that pass below zero on the way are kept, so that a check can show them. */
export function sumMovements(movements: Iterable<Movement>): Stock {
  const stock = new Map<string, number>()
  for (const movement of movements) add(stock, movement)
  return stock
}

export interface StockDifference {
  key: string
  kept: number
  summed: number
}

/** Lists every lot and place where the kept stock and the sum of the movements disagree; empty when the books are right. */
export function compareStock(kept: Stock, summed: Stock): StockDifference[] {
  const keys = new Set([...kept.keys(), ...summed.keys()])
  return [...keys]
    .map((key) => ({ key, kept: kept.get(key) ?? 0, summed: summed.get(key) ?? 0 }))
    .filter(({ kept, summed }) => kept !== summed)
}

function add(stock: Map<string, number>, { fromPlaceId, toPlaceId, lotId, quantity }: Movement): void {
  const change = (placeId: string, by: number): void => {
    if (placeId === outsidePlaceId) return
    const key = stockKey(placeId, lotId)
    const now = (stock.get(key) ?? 0) + by
    if (now === 0) stock.delete(key)
    else stock.set(key, now)
  }
  change(fromPlaceId, -quantity)
  change(toPlaceId, quantity)
}
