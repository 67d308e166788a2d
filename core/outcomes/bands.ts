import { betaQuantile } from '../stats/suppliers'
import { wilsonInterval, z95 } from '../stats/wilson'
import type { OutcomeRules } from './outcomeRules'

/** What crates say about how sure a figure is. */
export interface Spread {
  crates: number
  /** Effective crates and the design effect of a fish. */
  effective: number
  designEffect: number
  /** Sum over crates of the square of what each adds to the figure. */
  squares: number
  /** The variance as if every fish were a crate of its own. */
  byFish: number
}

/** 95 % point of Student's distribution, two-sided. */
export function student95(degrees: number): number {
  const x = betaQuantile(0.05, degrees / 2, 0.5)
  return Math.sqrt((degrees * (1 - x)) / x)
}

/**
 * Variance by crate (Williams 1995), drawn towards the house's likeness of crate mates by the weight of a few crates: three
 * crates cannot tell their own spread.
 */
export function crateVariance({ crates, effective, designEffect, squares, byFish }: Spread, { priorCrates }: Pick<OutcomeRules, 'priorCrates'>): { variance: number; t: number } {
  const seen = crates > 1 ? (crates / (crates - 1)) * squares : 0
  return { variance: ((effective - 1) * seen + priorCrates * designEffect * byFish) / (effective - 1 + priorCrates), t: student95(effective - 1 + priorCrates) }
}

export interface Interval {
  low: number
  high: number
}

/**
 * 95 % interval of a share: Wilson on effective fish. Where nobody or everybody went, from the fish themselves, each counting
 * less for its crate mates.
 * @param variance - of the share, by crate.
 * @param whole - fish behind a share of 1; `none` those behind a share of 0.
 */
export function shareInterval(share: number, variance: number, t: number, designEffect: number, { whole, none }: { whole: number; none: number }): Interval {
  const unseen = (fish: number): number => (z95 * z95) / (fish / designEffect + z95 * z95)
  if (share >= 1) return { low: 1 - unseen(whole), high: 1 }
  if (share <= 0) return { low: 0, high: unseen(none) }
  const effectiveFish = (share * (1 - share)) / variance
  return wilsonInterval(share * effectiveFish, effectiveFish, t)
}
