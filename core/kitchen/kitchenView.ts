import type { Mouth } from '../rounds/roundRules'
import type { FoodKind } from './kitchenRules'
import type { KitchenStep, OrderKind } from './kitchen.schema'
import type { Bowl, SkippedWhy } from './thawList'

/** A feed of one day. */
export interface FeedOfDay {
  feedId: string
  name: string
  on: string
  atMs: number
  dayPercent: number
}

/** Something of a feed that was done. */
export interface TickView {
  id: string
  step: KitchenStep
  what: string
  /** Pieces that it took off the stock. */
  pieces: number
  by: string
  atMs: number
}

/** Fish of one lot in one tank, as the kitchen speaks of them. */
export interface FedLot {
  tankId: string
  tankCode: string
  lotId: string
  species: string
  quantity: number
}

/** How fish are fed otherwise. */
export interface OrderView {
  id: string
  kind: OrderKind
  /** Of a lot, wherever it stands, or of a tank. */
  lotId: string | null
  tankId: string | null
  /** Name of the food with the medicine in it. */
  food: string | null
  fromOn: string
  untilOn: string | null
  note: string | null
  by: string
  /** The regimen by which it is so: it ends with that, not by itself. */
  regimenId?: string
}

export interface KitchenFood {
  foodId: string
  food: string
  kind: FoodKind
  needG: number
  pieces: number
  pieceG: number
  spareG: number
  /** When it comes out of the freezer; null for what does not thaw. */
  startAtMs: number | null
  /** Whom it is for: "small mouths: 34 fish in 6 tanks". */
  whom: string[]
  /** In the house before this feed took any; null where nobody counted. */
  stock: number | null
  done: TickView | null
}

export interface KitchenRack {
  rack: string
  portions: { bowl: Bowl; food: string; grams: number }[]
  /** In walking order. */
  tanks: { tankId: string; code: string; fish: string; grams: number; bowls: Bowl[]; meals: number }[]
  done: TickView | null
}

/** What is said of a water that bears its food badly. */
export interface SmallWater {
  waterId: string
  where: string
  words: string
  isHarm: boolean
}

/** One feed: what is thawed and soaked, how much each rack gets, who gets nothing. */
export interface KitchenView {
  feeds: FeedOfDay[]
  feed: FeedOfDay
  foods: KitchenFood[]
  soaks: { soak: string; ml: number }[]
  soaked: TickView | null
  racks: KitchenRack[]
  outs: { what: string; atMs: number; foods: string[]; done: TickView | null }[]
  skipped: { why: SkippedWhy; lots: (FedLot & { until: string | null })[] }[]
  leftOut: (FedLot & { mouth: Mouth; medicated: string | null })[]
  /** Fish that are not in this list, and why. */
  away: { where: string; fish: string; why: string }[]
  short: { food: string; pieces: number }[]
  order: { food: string; pieces: number; words: string }[]
  waters: SmallWater[]
  /** Waters of which nobody says whether a filter runs, where it would matter. */
  filterUnsaid: string[]
  /** Waters of which nobody says how much there is. */
  volumeUnsaid: string[]
  /** Foods that nobody reckons with: what a piece weighs and whom it suits is not known. */
  unreckoned: string[]
  /** Kinds of which nobody says what they weigh, and fry that nobody measured. */
  guessed: string[]
  orders: (OrderView & { whom: string })[]
  isCounted: boolean
}
