import { byText } from '../contacts/contact'
import type { FoodKind } from './kitchenRules'
import { foodRuleOf, type HouseFood } from './houseFoods'

/** One change of what is in the house. */
export interface StockChange {
  foodId: string
  pieces: number
  after: number
  why: string
  by: string
  atMs: number
}
export interface LarderFood {
  foodId: string
  food: string
  kind: FoodKind
  /** Null where nobody ever counted. */
  pieces: number | null
  pieceG: number | null
  /** Pieces that go in a day, over the last two weeks; null while nothing went. */
  perDay: number | null
  /** For so many days it lasts; null where nobody can tell. */
  lastsDays: number | null
  isToOrder: boolean
  /** Newest first. */
  changes: Omit<StockChange, 'foodId'>[]
}
export interface LarderView {
  foods: LarderFood[]
  orderDays: number
}

const dayMs = 86_400_000
/** Use is reckoned over so many days, and from the first of them on at least this many. */
export const useDays = 14
const leastDays = 3

/**
 * How long the foods of the house last, by what went in the last two weeks.
 * @param changes - of these two weeks and at least the newest of each food.
 */
export function larderOf(foods: readonly HouseFood[], changes: readonly StockChange[], orderDays: number, nowMs: number): LarderView {
  const sinceMs = nowMs - useDays * dayMs
  const rows = foods.map((food): LarderFood => {
    const own = changes.filter(({ foodId }) => foodId === food.id)
    const went = own.filter(({ why, atMs }) => (why === 'thawed' || why === 'not thawed') && atMs >= sinceMs)
    const firstMs = Math.min(nowMs, ...went.map(({ atMs }) => atMs))
    const used = went.reduce((sum, { pieces }) => sum - pieces, 0)
    const perDay = used > 0 ? used / Math.max(leastDays, (nowMs - firstMs) / dayMs) : null
    const lastsDays = food.pieces === null || perDay === null ? null : food.pieces / perDay
    const isToOrder = food.pieces === 0 || (lastsDays !== null && lastsDays < orderDays)
    return { foodId: food.id, food: food.name, kind: food.kind, pieces: food.pieces, pieceG: foodRuleOf(food)?.pieceG ?? null, perDay, lastsDays, isToOrder, changes: own.map(({ foodId: _of, ...change }) => change).sort((a, b) => b.atMs - a.atMs).slice(0, 10) }
  })
  return { foods: rows.sort((a, b) => Number(b.isToOrder) - Number(a.isToOrder) || byText(a.food, b.food)), orderDays }
}

/** What is to be ordered, in words: "lasts 3 days". */
export const orderWords = ({ pieces, lastsDays }: Pick<LarderFood, 'pieces' | 'lastsDays'>): string => (pieces === 0 ? 'none left' : lastsDays === null ? '' : lastsDays < 1 ? 'lasts less than a day' : `lasts ${Math.floor(lastsDays)} day${Math.floor(lastsDays) === 1 ? '' : 's'}`)
