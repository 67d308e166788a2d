import { groupBy } from '../collections/groupBy'
import { byText } from '../contacts/contact'
import type { Water } from '../room/room.schema'
import type { Habit, Mouth } from '../rounds/roundRules'
import type { Ate } from '../rounds/rounds.schema'
import { shippedKitchen, type FoodRule, type KitchenNumbers, type KitchenRules } from './kitchenRules'
import { naturally } from '../words/naturally'

/** A lot as the kitchen feeds it. */
export interface KitchenLot {
  lot: string
  rack: string
  water: Water
  quantity: number
  massG: number
  tempC: number
  mouth: Mouth
  habits: readonly Habit[]
  /** Whole days since it arrived. */
  days: number
  isConditioning?: boolean
  everyOtherDay?: boolean
  withoutFood?: boolean
  /** A food with medicine in it: it alone is given. */
  medicated?: string | null
  /** Its newest answer. */
  lastAte?: Ate | null
}
export interface ThawAsked {
  /** When it is fed, in minutes of the epoch. */
  feedAtMin: number
  /** Share of the day's food that is given with this batch. */
  dayShare?: number
  feedsFirstDay?: boolean
  lots: readonly KitchenLot[]
  /** Pieces on hand; a food that is not named is out. */
  stock: readonly { food: string; pieces: number }[]
}

export const bowls = ['medicated', 'plain', 'soaked'] as const
export type Bowl = (typeof bowls)[number]
export type SkippedWhy = 'hold without food' | 'first day' | 'every other day'
/** What one lot gets of one food. */
export interface Ration {
  lot: string
  rack: string
  bowl: Bowl
  /** What it is fed by; null where no recipe fits or had anything on hand. */
  recipe: string | null
  food: string
  grams: number
}
export interface ThawedFood {
  food: string
  needG: number
  pieces: number
  spareG: number
  /** When it has to come out of the freezer; null where nothing thaws. */
  startAtMin: number | null
  /** When what is left of it comes out of the tanks. */
  outAtMin: number
}
export interface ThawList {
  foods: ThawedFood[]
  portions: { rack: string; bowl: Bowl; food: string; grams: number }[]
  soaks: { soak: string; ml: number }[]
  meals: { lot: string; meals: number }[]
  skipped: { lot: string; why: SkippedWhy }[]
  /** Lots that nothing on hand suits. */
  leftOut: string[]
  short: { food: string; pieces: number }[]
  /** The same grams as in `portions`, by lot. */
  rations: Ration[]
}

const tiny = 1e-9
const sumOf = (rows: readonly { grams: number }[]): number => rows.reduce((sum, { grams }) => sum + grams, 0)

/**
 * Composes one feed: what is thawed and soaked, how much each rack gets, who gets nothing and why. Every gram that is
 * thawed is given or spare. Where too little is on hand all get less of it, so that nobody goes without.
 * Source: docs/kitchen.md; house guidance (range of the trade 1 to 3 % of body mass a day).
 * @example thawList({ feedAtMin: 600, lots: [], stock: [] }).foods // []
 */
export function thawList({ feedAtMin, dayShare = 1, feedsFirstDay = false, lots, stock }: ThawAsked, { kitchen, foods, recipes }: KitchenRules = shippedKitchen): ThawList {
  const pieces = new Map(stock.map((each) => [each.food, each.pieces]))
  const ruleOf = new Map(foods.map((rule) => [rule.food, rule]))
  const isOnHand = (food: string): boolean => (pieces.get(food) ?? 0) > 0
  const skipped = lots.flatMap((lot) => skippedWhy(lot, feedsFirstDay) ?? [])
  const passed = new Set(skipped.map(({ lot }) => lot))
  const fed = lots.filter(({ lot }) => !passed.has(lot))
  // Many lots are fed alike.
  const known = new Map<string, Parts>()
  const partsFor = (lot: KitchenLot): Parts => {
    const key = JSON.stringify([lot.water, lot.mouth, lot.habits, lot.medicated ?? null])
    const parts = known.get(key) ?? partsOf(lot, { foods, recipes }, isOnHand)
    known.set(key, parts)
    return parts
  }
  const asked = fed.map((lot) => ({ lot, rations: rationsOf(lot, partsFor(lot), ruleOf, dryFoodG(lot, kitchen) * dayShare, kitchen) }))

  const rows = [...groupBy(asked.flatMap(({ rations }) => rations), ({ food }) => food)].map(([food, rations]) => thawed(ruleOf.get(food) as FoodRule, rations, pieces.get(food) ?? 0, feedAtMin, kitchen))
  const times = new Map(rows.map(({ food, share }) => [food, share]))
  const rations = asked.flatMap((each) => each.rations.map((ration) => ({ ...ration, grams: ration.grams * (times.get(ration.food) ?? 0) }))).filter(({ grams }) => grams > 0)
  const given = new Set(rations.map(({ lot }) => lot))
  const soakedG = sumOf(rations.filter(({ bowl, food }) => bowl === 'soaked' && isSoakable(ruleOf.get(food) as FoodRule)))
  return {
    foods: rows.map(({ share: _share, missing: _missing, ...row }) => row).sort((a, b) => byText(a.food, b.food)),
    portions: portionsOf(rations),
    soaks: soakedG > 0 ? kitchen.soaks.map(({ soak, mlPerKg }) => ({ soak, ml: (mlPerKg * soakedG) / 1000 })) : [],
    meals: fed.filter(({ lot, isConditioning }) => isConditioning && given.has(lot)).map(({ lot }) => ({ lot, meals: Math.max(1, Math.ceil(kitchen.conditioningMeals * dayShare - tiny)) })).sort(byLot),
    skipped: skipped.sort(byLot),
    leftOut: fed.map(({ lot }) => lot).filter((lot) => !given.has(lot)).sort(byText),
    short: rows.filter(({ missing }) => missing > 0).map(({ food, missing }) => ({ food, pieces: missing })).sort((a, b) => byText(a.food, b.food)),
    rations,
  }
}

const byLot = (a: { lot: string }, b: { lot: string }): number => byText(a.lot, b.lot)

/** The first reason for which a lot gets nothing. */
function skippedWhy({ lot, withoutFood, days, everyOtherDay, isConditioning, medicated }: KitchenLot, feedsFirstDay: boolean): { lot: string; why: SkippedWhy } | null {
  if (withoutFood) return { lot, why: 'hold without food' }
  if (days === 0 && !feedsFirstDay) return { lot, why: 'first day' }
  return everyOtherDay && days % 2 === 0 && !isConditioning && !medicated ? { lot, why: 'every other day' } : null
}

/**
 * Dry food of a lot for a day, in grams.
 * Source: docs/kitchen.md#how-much; house guidance.
 */
export function dryFoodG({ quantity, massG, tempC, isConditioning, lastAte }: Pick<KitchenLot, 'quantity' | 'massG' | 'tempC' | 'isConditioning' | 'lastAte'>, kitchen: KitchenNumbers = shippedKitchen.kitchen): number {
  const warm = Math.min(kitchen.tempMost, Math.max(kitchen.tempLeast, kitchen.q10 ** ((tempC - 25) / 10)))
  const times = (isConditioning ? kitchen.conditioningTimes : 1) * (lastAte === 'none' ? kitchen.ateNoneTimes : lastAte === 'some' ? kitchen.ateSomeTimes : 1)
  return quantity * kitchen.dryShareAt1G * massG ** kitchen.massPower * warm * times
}

interface Parts {
  recipe: string | null
  parts: readonly (readonly [food: string, share: number])[]
}

/** What a lot is fed, as shares of dry matter that sum to one; no parts where nothing on hand suits its mouth. */
function partsOf({ water, mouth, habits, medicated }: KitchenLot, { foods, recipes }: Pick<KitchenRules, 'foods' | 'recipes'>, isOnHand: (food: string) => boolean): Parts {
  // Never replaced by a food without the medicine, so it is asked for even where none is left.
  if (medicated) return { recipe: 'medicated', parts: foods.some(({ food }) => food === medicated) ? [[medicated, 1]] : [] }
  const suits = new Set(foods.filter(({ food, mouths }) => mouths.includes(mouth) && isOnHand(food)).map(({ food }) => food))
  const fits = recipes.find(({ for: whom }) => (whom.water ?? water) === water && (whom.mouth ?? mouth) === mouth && (whom.habit === undefined || habits.includes(whom.habit)))
  const left = (fits?.parts ?? []).filter(([food]) => suits.has(food))
  const sum = left.reduce((total, [, share]) => total + share, 0)
  if (fits && sum > 0) return { recipe: fits.recipe, parts: left.map(([food, share]) => [food, share / sum]) }
  const instead = foods.find(({ food }) => suits.has(food))
  return { recipe: null, parts: instead ? [[instead.food, 1]] : [] }
}

function rationsOf(lot: KitchenLot, { recipe, parts }: Parts, ruleOf: ReadonlyMap<string, FoodRule>, dryG: number, { soakedDays }: KitchenNumbers): Ration[] {
  const bowl = lot.medicated ? 'medicated' : lot.days <= soakedDays || lot.isConditioning || lot.lastAte === 'none' ? 'soaked' : 'plain'
  return parts.map(([food, share]) => ({ lot: lot.lot, rack: lot.rack, bowl, recipe, food, grams: (dryG * share) / (ruleOf.get(food) as FoodRule).dryShare }))
}

/** Dry food falls apart, live food dies of it. */
const isSoakable = ({ kind }: FoodRule): boolean => kind !== 'dry' && kind !== 'live'

/** What is opened of one food, and which share of what is wanted it gives. */
function thawed(rule: FoodRule, rations: readonly Ration[], onHand: number, feedAtMin: number, { packSlack, strainMin, soakMin, startStepMin }: KitchenNumbers): ThawedFood & { share: number; missing: number } {
  const { food, kind, pieceG, thawMin, outMin } = rule
  const needG = sumOf(rations)
  const wanted = Math.max(1, Math.ceil(needG / pieceG - packSlack - tiny))
  const pieces = Math.min(wanted, onHand)
  const share = needG > 0 ? Math.min(1, (pieces * pieceG) / needG) : 0
  const isSoaked = isSoakable(rule) && rations.some(({ bowl }) => bowl === 'soaked')
  const beforeMin = thawMin + (kind === 'frozen' ? strainMin : 0) + (isSoaked ? soakMin : 0)
  const startAtMin = thawMin > 0 && pieces > 0 ? Math.floor((feedAtMin - beforeMin) / startStepMin) * startStepMin : null
  return { food, needG, pieces, spareG: pieces * pieceG - needG * share, startAtMin, outAtMin: feedAtMin + outMin, share, missing: wanted - pieces }
}

/** By rack, bowl and food. */
function portionsOf(rations: readonly Ration[]): ThawList['portions'] {
  const groups = groupBy(rations, ({ rack, bowl, food }) => JSON.stringify([rack, bowl, food]))
  const portions = [...groups.values()].map((same) => ({ rack: same[0]?.rack ?? '', bowl: same[0]?.bowl ?? 'plain', food: same[0]?.food ?? '', grams: sumOf(same) }))
  return portions.sort((a, b) => naturally(a.rack, b.rack) || byText(a.bowl, b.bowl) || byText(a.food, b.food))
}
