/** Level after a water change of a share, the new water holding `fresh`. */
export const afterChange = (level: number, share: number, fresh = 0): number => level * (1 - share) + fresh * share
/** Level after several equal changes. */
export const afterChanges = (level: number, share: number, times: number, fresh = 0): number => fresh + (level - fresh) * (1 - share) ** times
/** Level after litres have run through a volume at constant fill. */
export const afterContinuousChange = (level: number, throughL: number, volumeL: number, fresh = 0): number => fresh + (level - fresh) * Math.exp(-throughL / volumeL)

/**
 * Equal changes needed to reach a level.
 * @returns 0 when it is reached, Infinity when the new water itself is not on that side of it.
 */
export function changesNeeded(level: number, target: number, share: number, fresh = 0): number {
  const left = (target - fresh) / (level - fresh)
  if (left >= 1) return 0
  return left > 0 ? Math.ceil(Math.log(left) / Math.log(1 - share) - 1e-12) : Infinity
}

/** Where a level settles that rises by `rise` between changes of a share: before and after each change. */
export const plateau = (rise: number, share: number, fresh = 0): { before: number; after: number } => ({ before: fresh + rise / share, after: fresh + rise / share - rise })
