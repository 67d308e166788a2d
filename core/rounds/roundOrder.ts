import { exactOrder, mostExact } from './exactOrder'
import { shippedRoundRules, type RoundRules } from './roundRules'
import { shortened } from './shortened'
import { leastTree, piecesOf, startingOrders } from './startingOrders'
import { layOut, lengthOf, type WalkAsked, type WalkLength, type WalkTank } from './walk'

export interface RoundOrder<T extends WalkTank = WalkTank> extends WalkLength {
  tanks: T[]
  /** Whether no order can be shorter. */
  isExact: boolean
}

/**
 * The order of a round: hands and nets go from settled tanks over new arrivals to doubtful and sick ones and never back,
 * every doubtful water in one piece, and inside that the way is short. Up to twelve tanks no way is shorter; above, none was
 * found. It lowers a risk and replaces no quarantine. Source: docs/rounds.md.
 */
export function roundOrder<T extends WalkTank>(asked: WalkAsked<T>, rules: RoundRules = shippedRoundRules): RoundOrder<T> {
  const walk = layOut(asked, rules)
  const isExact = walk.size <= mostExact
  const order = isExact ? exactOrder(walk) : shortened(walk, shortest(startingOrders(walk, asked.tanks), (each) => lengthOf(walk, each).seconds))
  // One piece may be walked either way: from the beginning of the list, where nothing else speaks.
  if (walk.blockState.length === 1 && (order.at(-1) ?? 0) < (order.at(0) ?? 0)) order.reverse()
  return { ...lengthOf(walk, order), isExact, tanks: Array.from(order, (tank) => asked.tanks[tank] as T) }
}

function shortest<T>(orders: readonly T[], secondsOf: (order: T) => number): T {
  const [first, ...rest] = orders.map((order) => ({ order, seconds: secondsOf(order) }))
  return rest.reduce((best, each) => (each.seconds < best.seconds ? each : best), first as { order: T; seconds: number }).order
}

/** Seconds that no valid order can be below: the least tree of every piece, and a wash and a change of tools between pieces. */
export function walkBound(asked: WalkAsked, rules: RoundRules = shippedRoundRules): number {
  const walk = layOut(asked, rules)
  const pieces = piecesOf(walk)
  const trees = pieces.reduce((sum, piece) => sum + leastTree(walk, piece, piece[0] ?? 0).reduce((of, { seconds }) => of + seconds, 0), 0)
  return trees + Math.max(0, pieces.length - 1) * (rules.walk.washS + rules.walk.toolsS)
}
