/** Value below which a share of the values lies, linear between them ((n − 1)·share). NaN of nothing. */
export function quantile(values: readonly number[], share: number): number {
  // A typed array sorts numbers as numbers, and several times faster.
  const sorted = Float64Array.from(values).sort()
  const at = (sorted.length - 1) * share
  const [low, high] = [sorted[Math.floor(at)], sorted[Math.ceil(at)]]
  return low === undefined || high === undefined ? NaN : low + (high - low) * (at - Math.floor(at))
}

/** The same with weights, the smallest value whose weight and that of all below it reach the share. */
export function weightedQuantile(order: readonly number[], values: Float64Array, weights: Float64Array, share: number): number {
  let total = 0
  for (const index of order) total += weights[index] as number
  let sum = 0
  for (const index of order) {
    sum += weights[index] as number
    if (sum >= share * total) return values[index] as number
  }
  return NaN
}
