/** Two-sided 95 % point of the normal distribution. */
export const z95 = 1.959964

/**
 * 95 % interval of a share (Wilson 1927).
 * @param hits - 0 to `of`.
 * @returns [0, 1] when nothing was counted.
 * @example wilsonInterval(81, 263) // { low: 0.2553, high: 0.3662 }
 */
export function wilsonInterval(hits: number, of: number, z = z95): { low: number; high: number } {
  if (of === 0) return { low: 0, high: 1 }
  const p = hits / of
  const d = 1 + (z * z) / of
  const centre = (p + (z * z) / (2 * of)) / d
  const half = (z / d) * Math.sqrt((p * (1 - p)) / of + (z * z) / (4 * of * of))
  return { low: hits === 0 ? 0 : centre - half, high: hits === of ? 1 : centre + half }
}
