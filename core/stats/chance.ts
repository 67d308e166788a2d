import betaIncomplete from '@stdlib/math-base-special-betainc'
import gammaIncomplete from '@stdlib/math-base-special-gammainc'

/** Chance of at least `k` events where `mean` are usual (Poisson). Never above 1; a k of 0 is certain. */
export const poissonAtLeast = (k: number, mean: number): number => (k <= 0 ? 1 : gammaIncomplete(mean, k, true, false))

/** Chance of at least `k` of `n`, each with chance `p` by itself (binomial). */
export const binomialAtLeast = (k: number, n: number, p: number): number => (k <= 0 ? 1 : k > n ? 0 : betaIncomplete(p, k, n - k + 1))
