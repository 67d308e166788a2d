/** One fish in the book of expected fish, which is kept in whole millionths. */
export const millionthsPerFish = 1_000_000

interface Wanted {
  weight: number
  /** Never more than this; no bound when left out. */
  cap?: number
}

/**
 * Shares a whole number out in proportion to weights, in whole parts that sum to it: the floor of each exact part, then what
 * is left one each by falling remainder, ties by place in the list.
 * @param total - whole number to share out; at most the sum of the caps.
 * @example shareOut(3, [{ weight: 1 }, { weight: 1 }]) // [2, 1]
 */
export function shareOut(total: number, wanted: readonly Wanted[]): number[] {
  const sum = wanted.reduce((all, { weight }) => all + weight, 0)
  if (total === 0 || sum <= 0) return wanted.map(() => 0)
  const exact = wanted.map(({ weight }) => (total * weight) / sum)
  const capOf = (index: number): number => wanted[index]?.cap ?? Infinity
  const parts = exact.map((part, index) => Math.min(capOf(index), Math.floor(part + 1e-9)))
  const byRemainder = exact.map((part, index) => ({ index, remainder: part - Math.floor(part + 1e-9) })).sort((a, b) => b.remainder - a.remainder || a.index - b.index)
  let left = total - parts.reduce((all, part) => all + part, 0)
  while (left > 0) {
    const before = left
    for (const { index } of byRemainder) {
      const part = parts[index] ?? 0
      if (left > 0 && part < capOf(index)) [parts[index], left] = [part + 1, left - 1]
    }
    if (left === before) throw new RangeError(`${total} cannot be shared out: the caps leave ${left}`)
  }
  return parts
}
