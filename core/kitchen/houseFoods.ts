import { groupBy } from '../collections/groupBy'
import { byText } from '../contacts/contact'
import type { Mouth } from '../rounds/roundRules'
import { shippedKitchen, type FoodKind, type FoodRule, type KitchenRules, type Recipe } from './kitchenRules'

/** A food as the house keeps it: figures it did not enter are those of the shipped food that it serves as. */
export interface HouseFood {
  id: string
  name: string
  kind: FoodKind
  thawMinutes: number | null
  pieceG: number | null
  dryPercent: number | null
  proteinPercent: number | null
  mouths: readonly Mouth[]
  outMinutes: number | null
  servesAs: readonly string[]
  /** Pieces in the house; null where nobody ever counted. */
  pieces: number | null
}

/** How the kitchen reckons with a food of the house; null where nobody says what a piece of it weighs and whom it suits. */
export function foodRuleOf({ name, kind, thawMinutes, pieceG, dryPercent, proteinPercent, mouths, outMinutes, servesAs }: Omit<HouseFood, 'id' | 'pieces'>, shipped: readonly FoodRule[] = shippedKitchen.foods): FoodRule | null {
  const like = shipped.find(({ food }) => food === name.toLowerCase()) ?? shipped.find(({ food }) => servesAs.includes(food))
  const [piece, dry, protein] = [pieceG ?? like?.pieceG, dryPercent === null ? like?.dryShare : dryPercent / 100, proteinPercent === null ? like?.protein : proteinPercent / 100]
  const suits = mouths.length > 0 ? mouths : (like?.mouths ?? [])
  if (piece === undefined || dry === undefined || protein === undefined || suits.length === 0) return null
  const thaws = kind === 'frozen' || kind === 'gel'
  return { food: name, kind, pieceG: piece, dryShare: dry, protein, mouths: suits, thawMin: thaws ? (thawMinutes ?? like?.thawMin ?? 0) : 0, outMin: outMinutes ?? like?.outMin ?? 30 }
}

/**
 * The rules of the kitchen for the foods of this house: recipes name kinds of food, and what stands for a kind here is
 * the food that is called so, else one that serves as it, what is on hand first.
 */
export function kitchenOf(foods: readonly HouseFood[], recipes: readonly Recipe[], { kitchen }: Pick<KitchenRules, 'kitchen'> = shippedKitchen): KitchenRules {
  const known = foods.flatMap((food) => {
    const rule = foodRuleOf(food)
    return rule ? [{ food, rule }] : []
  })
  // What is taken where no recipe has anything goes by the shipped order, then by name.
  const placeOf = ({ food }: (typeof known)[number]): number => {
    const place = shippedKitchen.foods.findIndex(({ food: kind }) => kind === food.name.toLowerCase() || food.servesAs.includes(kind))
    return place < 0 ? shippedKitchen.foods.length : place
  }
  const sorted = [...known].sort((a, b) => placeOf(a) - placeOf(b) || byText(a.food.name, b.food.name))
  return { kitchen, foods: sorted.map(({ rule }) => rule), recipes: recipes.map((recipe) => ({ ...recipe, parts: partsHere(recipe, sorted.map(({ food }) => food)) })) }
}

/** Parts by foods of the house; two kinds that the same food serves as are one part. A kind nobody has keeps its name, and drops out. */
function partsHere({ parts }: Recipe, foods: readonly HouseFood[]): Recipe['parts'] {
  const named = parts.map(([kind, share]) => [standsFor(kind, foods)?.name ?? kind, share] as const)
  return [...groupBy(named, ([food]) => food)].map(([food, same]) => [food, same.reduce((sum, [, share]) => sum + share, 0)] as const)
}

function standsFor(kind: string, foods: readonly HouseFood[]): HouseFood | undefined {
  const serving = [...foods.filter(({ name }) => name.toLowerCase() === kind), ...foods.filter(({ name, servesAs }) => name.toLowerCase() !== kind && servesAs.includes(kind))]
  return serving.find(({ pieces }) => pieces !== 0) ?? serving[0]
}
