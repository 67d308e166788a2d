import type { MoveRules } from '../moves/moveRules'
import type { SizeEntry } from '../plans/planFacts'
import { sizeEstimate } from '../plans/sizeEstimate'
import { mouthOf, type Mouth } from '../rounds/roundRules'
import { mouths } from '../species/speciesWords'

/** What the book says of how large fish of a kind are. */
export interface KindSize {
  massG: number | null
  tradedCm: number | null
  adultCm: number | null
  mouth: Mouth | null
}
export interface FishMass {
  massG: number
  mouth: Mouth
  /** Nobody says what they weigh: the house's guess, or that of fry by their age. */
  isGuessed: boolean
}

/** Length of fry on their first day, as a share of their full length: house guidance. */
const fryShare = 0.1

/**
 * What one fish of a lot weighs: as the book has it when traded, by the cube of its length where somebody measured or
 * noted one. Fry that were born here are reckoned from their birth on: fed like fish that are traded, they would foul
 * their tank with thirty times their food.
 * Source: docs/kitchen.md#how-much.
 * @param sizes - lengths that are known, oldest first.
 * @param bornOn - the day on which they were born here; null for all others.
 */
export function fishMass({ massG, tradedCm, adultCm, mouth }: KindSize, sizes: readonly SizeEntry[], bornOn: string | null, on: string, usualG: number, rules: Pick<MoveRules, 'growthPerDay' | 'growthMostPerDay' | 'sizeFitDays'>): FishMass {
  const base = massG ?? usualG
  const full = adultCm ?? tradedCm
  const known = sizes.length > 0 || bornOn === null || full === null ? sizes : [{ on: bornOn, cm: full * fryShare }]
  const cm = sizeEstimate({ adultCm: full, sizes: known }, on, rules).cm
  const traded = tradedCm ?? adultCm
  const own = cm === null || traded === null ? base : base * (cm / traded) ** 3
  const byMass = mouthOf(own) ?? 'small'
  const byBook = mouth ?? mouthOf(base) ?? 'small'
  // A small one of a kind has a smaller mouth; a large one eats what its kind eats.
  return { massG: own, mouth: mouths.indexOf(byMass) < mouths.indexOf(byBook) ? byMass : byBook, isGuessed: massG === null || (bornOn !== null && sizes.length === 0) }
}
