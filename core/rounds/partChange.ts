export interface PartChange {
  changes: number
  /** Share of the water that each change swaps, 0 to 1. */
  share: number
  litresEach: number
}

/**
 * How many equal changes of part of the water bring what is in it down to a target: each leaves (1 - share) of what stands
 * above the fresh water. As few as the largest share allows. Source: docs/formulas.md, dilution.
 * @param volumeL - net volume, above 0.
 * @param mostShare - most of the water that one change may swap, above 0 and below 1.
 * @returns nothing to change where the target is met; null where fresh water is no better than the target.
 * @example partChange({ volumeL: 610, now: 0.06, target: 0.01 }) // 3 changes of 274 L
 */
export function partChange({ volumeL, now, target, fresh = 0, mostShare = 0.5 }: { volumeL: number; now: number; target: number; fresh?: number; mostShare?: number }): PartChange | null {
  if (now <= target) return { changes: 0, share: 0, litresEach: 0 }
  if (fresh >= target) return null
  const left = (target - fresh) / (now - fresh)
  const changes = Math.ceil(Math.log(left) / Math.log(1 - mostShare) - 1e-12)
  const share = 1 - left ** (1 / changes)
  return { changes, share, litresEach: share * volumeL }
}
