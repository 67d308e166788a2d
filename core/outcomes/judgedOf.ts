import type { Judged } from './certaintyWords'
import type { Comparison } from './compareGroups'

/** The figures of a comparison that are judged in words: like held against like where that was used, else the raw ones. */
export function judgedOf(comparison: Comparison, { q, comparisons }: { q: number | null; comparisons: number }): Omit<Judged, 'a' | 'b' | 'basis'> {
  const { adjusted, used, test, mix, hangsOn, attributed, day } = comparison
  const from = used === 'adjusted' && adjusted?.a && adjusted.b ? { a: adjusted.a, b: adjusted.b, difference: adjusted.difference, low: adjusted.low, high: adjusted.high } : comparison
  return { crates: [from.a.crates, from.b.crates], dead: from.a.dead + from.b.dead, day, used, test, p: test?.p ?? null, q, comparisons, difference: from.difference, low: from.low, high: from.high, mix, hangsOn, attributed }
}
