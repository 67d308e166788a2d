import { byText } from '../contacts/contact'
import { shippedRoundRules, type Habit, type Mouth, type RoundRules } from './roundRules'
import type { Ate } from './rounds.schema'

/** How long the book says a kind goes without food, in hours. */
const hungerH: Readonly<Record<string, number>> = { 'a day or two': 48, 'a week': 168 }

export interface NotEatingAsked {
  /** Since the lot came into this tank. */
  hoursHere: number
  came?: 'arrival' | 'move'
  firstMealDays?: number | null
  /** The book's word for how long the kind bears hunger. */
  bearsHunger?: string | null
  answers: readonly { hoursAgo: number; ate: Ate; foods?: readonly string[] }[]
  /** What the seller said it eats, in their order. */
  toldFoods?: readonly string[]
  /** What the same kind took in this house. */
  houseFoods?: readonly { food: string; taken: number; offered: number }[]
  bookFoods?: readonly string[]
  onHand: readonly string[]
  habits?: readonly Habit[]
  mouth?: Mouth | null
}
export type FoodBecause = 'ate it here' | 'ate it before' | 'others took it' | 'book' | 'lure'
export interface NotEating {
  listed: boolean
  /** Hours without a meal; null unless listed. */
  forH: number | null
  usualH: number
  /** Foods refused since the last meal, by name. */
  offered: { food: string; times: number }[]
  /** What to try next; empty unless listed. */
  next: { food: string; because: FoodBecause }[]
}

/**
 * Says whether a lot has gone without food for longer than is usual, what it was offered, and what to try next.
 * A tank that nobody fed refused nothing. Source: docs/rounds.md, house guidance.
 */
export function notEating(asked: NotEatingAsked, rules: RoundRules = shippedRoundRules): NotEating {
  const answers = asked.answers.filter(({ hoursAgo, ate }) => ate !== 'not fed' && hoursAgo <= asked.hoursHere).sort((a, b) => a.hoursAgo - b.hoursAgo)
  const [newest] = answers
  const lastMeal = answers.find(({ ate }) => ate !== 'none')
  const usualH = usualHours(asked, lastMeal !== undefined, rules)
  const fromH = lastMeal?.hoursAgo ?? asked.hoursHere
  const listed = newest?.ate === 'none' && fromH - newest.hoursAgo > usualH
  const refused = answers.slice(0, lastMeal ? answers.indexOf(lastMeal) : answers.length).flatMap(({ foods = [] }) => foods)
  const offered = [...new Set(refused)].sort(byText).map((food) => ({ food, times: refused.filter((each) => each === food).length }))
  return { listed, forH: listed ? fromH : null, usualH, offered, next: listed ? nextFoods(asked, answers, offered, rules) : [] }
}

function usualHours({ came = 'arrival', firstMealDays, bearsHunger }: NotEatingAsked, hadMeal: boolean, { notEating: rules, species }: RoundRules): number {
  const days = (firstMealDays ?? species.firstMealDays) * (came === 'move' ? rules.moveShare : 1)
  return Math.min(hadMeal ? rules.laterDays * 24 : Math.max(rules.leastH, 24 * days), hungerH[bearsHunger ?? ''] ?? Infinity)
}

/** The next three to try, each at its likeliest reason; what was refused twice goes behind the others. */
function nextFoods({ toldFoods = [], houseFoods = [], bookFoods = [], onHand, habits = [], mouth }: NotEatingAsked, answers: NotEatingAsked['answers'], offered: NotEating['offered'], { lures }: RoundRules): NotEating['next'] {
  const share = ({ taken, offered: times }: { taken: number; offered: number }): number => (taken + 1) / (times + 2)
  const others = houseFoods.filter(({ taken }) => taken > 0).sort((a, b) => share(b) - share(a) || byText(a.food, b.food))
  const lure = lures.find(({ for: fits }) => (fits.habit === undefined || habits.includes(fits.habit)) && (fits.mouth === undefined || fits.mouth === mouth))
  const because = (foods: readonly string[], why: FoodBecause): NotEating['next'] => foods.map((food) => ({ food, because: why }))
  const all = [
    ...because(answers.filter(({ ate }) => ate !== 'none').flatMap(({ foods = [] }) => [...foods].sort(byText)), 'ate it here'),
    ...because(toldFoods, 'ate it before'),
    ...because(others.map(({ food }) => food), 'others took it'),
    ...because(bookFoods, 'book'),
    ...because(lure?.foods ?? [], 'lure'),
  ]
  const once = all.filter(({ food }, index) => onHand.includes(food) && all.findIndex((each) => each.food === food) === index)
  const isRefused = ({ food }: { food: string }): boolean => (offered.find((each) => each.food === food)?.times ?? 0) >= 2
  return [...once.filter((each) => !isRefused(each)), ...once.filter(isRefused)].slice(0, 3)
}
