import type { Water } from '../room/room.schema'
import type { Habit, Mouth } from '../rounds/roundRules'
import type { foodKinds } from '../setup/words'
import shipped from './shippedKitchen.json'

export type FoodKind = (typeof foodKinds)[number]

/** A food as the kitchen reckons with it; of frozen and gel foods one piece is a cube or a slab, of dry ones a scoop. Rough figures of the trade; the pack says. */
export interface FoodRule {
  food: string
  kind: FoodKind
  pieceG: number
  /** Dry matter, as a share of the food as it is fed. */
  dryShare: number
  /** Protein, as a share of the dry matter. */
  protein: number
  /** Mouths it suits. */
  mouths: readonly Mouth[]
  thawMin: number
  /** So long after it was fed what is left of it is taken out. */
  outMin: number
}

/** What fish of one water, habit and mouth are fed: parts are shares of dry matter. What is left out of `for` fits all. */
export interface Recipe {
  recipe: string
  for: { water?: Water; habit?: Habit; mouth?: Mouth }
  parts: readonly (readonly [food: string, share: number])[]
}

export interface KitchenNumbers {
  /** Dry food a day of a fish of 1 g at 25 °C, as a share of its weight, and how it goes by weight and warmth. */
  dryShareAt1G: number
  massPower: number
  q10: number
  tempLeast: number
  tempMost: number
  conditioningTimes: number
  conditioningMeals: number
  ateNoneTimes: number
  ateSomeTimes: number
  soakedDays: number
  strainMin: number
  soakMin: number
  startStepMin: number
  /** A piece is not opened for so small a part of one. */
  packSlack: number
  soaks: readonly { soak: string; mlPerKg: number }[]
  /** Nitrogen given off as ammonia for each gram of protein eaten. */
  nPerProtein: number
  nh3LimitMgL: number
  changeMost: number
  activity: number
  ammoniaQuotient: number
}

/** What the kitchen goes by: house guidance unless docs/kitchen.md names a source. */
export interface KitchenRules {
  kitchen: KitchenNumbers
  foods: readonly FoodRule[]
  /** The first that fits counts. */
  recipes: readonly Recipe[]
}

/** What is shipped. */
export const shippedKitchen = shipped as unknown as KitchenRules
