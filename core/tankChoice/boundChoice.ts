import type { Prepared } from './prepareChoice'
import { homelessPoints } from './tankChoice'

/** Points of lines that no tank can take, whatever is chosen. */
export const forcedPoints = ({ possible }: Pick<Prepared, 'possible'>): number => possible.filter((tanks) => tanks.length === 0).length * homelessPoints

/**
 * A cost that no choice can fall below, found without solving anything: every line's cheapest tank, its own points only.
 * Weak, but at hand before the solver has any bound.
 */
export function plainBound({ possible, costs }: Prepared): number {
  return possible.reduce((sum, tanks, line) => sum + (tanks.length === 0 ? homelessPoints : Math.min(homelessPoints, ...tanks.map((tank) => costs[line]?.[tank] ?? 0))), 0)
}

/**
 * Says how far a choice may be from the best there is, as a share of its own points: 0 is proven best. Points of lines
 * that no tank can take stand outside, because they would make any gap look small.
 */
export function gapOf(prepared: Prepared, total: number, bound: number): number {
  const forced = forcedPoints(prepared)
  const [own, least] = [total - forced, Math.max(bound, plainBound(prepared)) - forced]
  return own <= 1e-6 ? 0 : Math.max(0, (own - least) / own)
}
