import { nitrogenPerOxygen, oxygenDemandMgGH } from '../bag/metabolism'
import type { FilterState } from '../setup/words'
import { unionisedPercent } from '../water/ammonia'
import { shippedKitchen, type KitchenNumbers } from './kitchenRules'

export interface FoodLoadAsked {
  volumeL: number
  fish: readonly { quantity: number; massG: number }[]
  tempC: number
  ph: number
  salinityPpt: number
  /** Dry food of a day, in grams, and the protein in it, 0 to 1. */
  dryFoodG: number
  protein: number
  /** Share of the ammonia that the filter takes, 0 to 1. */
  filterShare?: number
}
export interface FoodLoad {
  /** By how much total and un-ionised ammonia (as N) rise in a day. */
  tanMgLPerDay: number
  nh3MgLPerDay: number
  /** Water to be changed each day so that it stays below the limit; at most half. */
  changeLPerDay: number
  /** Share of the food that may be given besides, 1 for all of it. */
  foodShare: number
  /** Whether a change of that much, with that much food, is enough at all. */
  isEnough: boolean
}

/** What the filter of a water takes of the ammonia: house guidance. */
export const filterShares = { none: 0, young: 0.3, running: 0.95 } as const satisfies Record<FilterState, number>

const mgPerG = 1000

/**
 * Reckons what fish and food add to a small water, and how much is to be changed or fed less. The sum of both terms
 * errs on the careful side, since what is eaten is given off by the fish.
 * Source: docs/kitchen.md#small-waters; Timmons & Ebeling, recirculating aquaculture (0.092 g of N a gram of protein, daily-fed culture).
 */
export function foodLoad({ volumeL, fish, tempC, ph, salinityPpt, dryFoodG, protein, filterShare = 0 }: FoodLoadAsked, kitchen: KitchenNumbers = shippedKitchen.kitchen): FoodLoad {
  const { activity, ammoniaQuotient, nPerProtein, nh3LimitMgL, changeMost } = kitchen
  const reaches = (1 - filterShare) / volumeL
  const body = fish.reduce((sum, { quantity, massG }) => sum + quantity * massG * oxygenDemandMgGH(massG, tempC, activity) * 24 * nitrogenPerOxygen(ammoniaQuotient), 0) * reaches
  const food = nPerProtein * protein * dryFoodG * mgPerG * reaches
  const unionised = unionisedPercent(ph, tempC, salinityPpt) / 100
  const limit = nh3LimitMgL / unionised
  const rise = body + food
  // With a share f changed each day, the water stands at rise / f.
  const change = Math.min(changeMost, rise / limit)
  const most = changeMost * limit
  const foodShare = rise <= most || food === 0 ? 1 : Math.min(1, Math.max(0, (most - body) / food))
  return { tanMgLPerDay: rise, nh3MgLPerDay: rise * unionised, changeLPerDay: change * volumeL, foodShare, isEnough: body <= most }
}
