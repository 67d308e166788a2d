/**
 * Of many comparisons some look apart by chance: q is the share of false ones among all that look at least as far apart
 * (Benjamini & Hochberg 1995). What was too few to test has no p, is no test and gets no q.
 */
export function falseDiscovery({ p }: { p: readonly (number | null)[] }): { comparisons: number; q: (number | null)[] } {
  const order = p.flatMap((each, index) => (each === null ? [] : [{ p: each, index }])).sort((a, b) => a.p - b.p)
  const q: (number | null)[] = p.map(() => null)
  let least = 1
  for (let rank = order.length; rank > 0; rank -= 1) {
    const { p: each, index } = order[rank - 1] as { p: number; index: number }
    least = Math.min(least, (each * order.length) / rank)
    q[index] = least
  }
  return { comparisons: order.length, q }
}
