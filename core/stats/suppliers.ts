import betaIncomplete from '@stdlib/math-base-special-betainc'
import betaQuantileOf from '@stdlib/stats-base-dists-beta-quantile'

/** Deaths out of fish, of one supplier or shipment. */
export interface Deaths {
  deaths: number
  of: number
}

/** Regularised incomplete beta function. */
export const betaShare = (x: number, a: number, b: number): number => betaIncomplete(x, a, b)
/** Quantile of the beta distribution. */
export const betaQuantile = (p: number, a: number, b: number): number => betaQuantileOf(p, a, b)

export interface BetaPrior {
  /** Share that dies over all. */
  p: number
  /** How alike fish of one row are; 0.005 to 0.5. */
  rho: number
  /** Weight of what is known of all, in fish. */
  weight: number
  a: number
  b: number
}

/**
 * What losses of all suppliers say about one that is new: beta-binomial by moments (after Kleinman 1973). With fewer than
 * three, or without any or only deaths, a cautious guess.
 */
export function betaPrior(rows: readonly Deaths[]): BetaPrior {
  const known = rows.filter((row) => row.of > 0)
  const [k, fish, deaths] = [known.length, known.reduce((sum, row) => sum + row.of, 0), known.reduce((sum, row) => sum + row.deaths, 0)]
  const isThin = k < 3 || deaths === 0 || deaths === fish
  const p = isThin ? (deaths + 0.5) / (fish + 1) : deaths / fish
  const squares = known.reduce((sum, row) => sum + row.of * (row.deaths / row.of - p) ** 2, 0)
  const raw = (squares - p * (1 - p) * (k - 1)) / (p * (1 - p) * (fish - known.reduce((sum, row) => sum + row.of ** 2, 0) / fish - (k - 1)))
  const rho = isThin ? 0.05 : Math.min(0.5, Math.max(0.005, Number.isFinite(raw) ? raw : 0.5))
  const weight = 1 / rho - 1
  return { p, rho, weight, a: p * weight, b: (1 - p) * weight }
}

/** Share of one supplier's fish that dies, drawn towards all by as much as its own numbers are few; with its 95 % interval. */
export function shrunkShare({ deaths, of }: Deaths, rows: readonly Deaths[]): { mean: number; low: number; high: number } {
  const { a, b, weight } = betaPrior(rows)
  return { mean: (a + deaths) / (weight + of), low: betaQuantile(0.025, a + deaths, b + of - deaths), high: betaQuantile(0.975, a + deaths, b + of - deaths) }
}
