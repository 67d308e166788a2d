import lgamma from '@stdlib/math-base-special-gammaln'
import { shippedPairing } from './shippedHolds'

/** What a pairing is reckoned with: how common a carrier is, how fast it passes on, how soon and how often it is seen. */
export interface Evidence {
  prevalence: number
  perDay: number
  incubationDays: number
  seen: number
}
export const evidenceNames = ['low', 'likely', 'high'] as const
export type EvidenceName = (typeof evidenceNames)[number]
export type EvidenceSets = Readonly<Record<EvidenceName, Evidence>>
export const shippedEvidence: EvidenceSets = { low: shippedPairing.low, likely: shippedPairing.likely, high: shippedPairing.high }

export interface PairingSide {
  /** Fish of the group, and those of it that were paired. */
  n: number
  paired: number
}
export interface PairingAsked {
  a: PairingSide
  b: PairingSide
  looks: readonly { h: number; isSign: boolean }[]
  nowH: number
  looksH?: readonly number[]
  prior?: number
  sets?: EvidenceSets
}
type Shares = Record<EvidenceName, number>
export interface PairingProof {
  verdict: 'running' | 'passed' | 'failed'
  blocksMerge: boolean
  /** Planned hours at which nobody looked. */
  missing: number[]
  /** Chance that a carrier would have shown by now, each way. */
  show: { aToB: Shares; bToA: Shares }
  /** Chance that merging brings something across: before the pairing, and after its clean looks. */
  risk: { before: number } & Record<EvidenceName, number | null>
  isWeak: boolean
  fishPaired: number
  fishAtRisk: number
}

/** Hours around a planned look within which it counts as made. */
const besideH = 12
const weakBelow = 0.5
const intervals = 200

/** Whether an Erlang-3 time of a mean is over after t days. */
function incubated(t: number, meanDays: number): number {
  const x = (3 * t) / meanDays
  return 1 - Math.exp(-x) * (1 + x + (x * x) / 2)
}
/** Chance that a partner has caught it and shows it after so many days: by Simpson's rule. */
function showing(days: number, rate: number, meanDays: number): number {
  if (days <= 0) return 0
  const step = days / intervals
  const at = (u: number): number => rate * Math.exp(-rate * u) * incubated(days - u, meanDays)
  const inner = Array.from({ length: intervals - 1 }, (_, index) => (index % 2 === 0 ? 4 : 2) * at((index + 1) * step))
  return (step / 3) * (at(0) + inner.reduce((sum, each) => sum + each, 0) + at(days))
}
const choose = (n: number, k: number): number => (k < 0 || k > n ? -Infinity : lgamma(n + 1) - lgamma(k + 1) - lgamma(n - k + 1))
/** Chance that of `drawn` fish out of n, `hits` are among the carriers. */
const hypergeometric = (n: number, carriers: number, drawn: number, hits: number): number => Math.exp(choose(carriers, hits) + choose(n - carriers, drawn - hits) - choose(n, drawn))

/**
 * Chance that a group that carries something would have shown it on the partners of its paired fish by the looks made.
 * Source: docs/holds.md#pairing; house guidance, signs on the carrier itself left out, which is on the safe side.
 * @param looksDays - days of clean looks, earliest first.
 */
export function chanceToShow({ n, paired }: PairingSide, partners: number, looksDays: readonly number[], { prevalence, perDay, incubationDays, seen }: Evidence): number {
  const carriers = Math.max(1, Math.round(prevalence * n))
  const most = Math.min(carriers, paired)
  return Array.from({ length: most }, (_, index) => index + 1).reduce((sum, hits) => {
    const shown = looksDays.map((days) => showing(days, hits * perDay, incubationDays))
    const found = shown.reduce((share, each, index) => share + (each - (shown[index - 1] ?? 0)) * (1 - (1 - seen) ** (looksDays.length - index)), 0)
    return sum + hypergeometric(n, carriers, paired, hits) * (1 - (1 - found) ** partners)
  }, 0)
}

const stillCarries = (prior: number, show: number): number => (prior * (1 - show)) / (1 - prior * show)
const eitherOf = (a: number, b: number): number => 1 - (1 - a) * (1 - b)

/**
 * Says what a pairing of a few fish of two groups proves, and what it risks. A passed pairing is weak evidence unless
 * several fish stood for days.
 * Source: docs/holds.md#pairing.
 */
export function pairingEvidence({ a, b, looks, nowH, looksH = shippedPairing.looksH, prior = shippedPairing.prior, sets = shippedEvidence }: PairingAsked): PairingProof {
  const made = looks.filter(({ h }) => h <= nowH).sort((one, other) => one.h - other.h)
  const firstSign = made.find(({ isSign }) => isSign)
  const clean = made.filter(({ h, isSign }) => !isSign && (firstSign === undefined || h < firstSign.h))
  const days = clean.map(({ h }) => h / 24)
  const last = clean.at(-1)
  const isPassed = clean.length >= looksH.length && last !== undefined && last.h >= Math.max(...looksH)
  const verdict = firstSign ? 'failed' : isPassed ? 'passed' : 'running'
  const sharesOf = (of: PairingSide, partners: number): Shares => ({ low: chanceToShow(of, partners, days, sets.low), likely: chanceToShow(of, partners, days, sets.likely), high: chanceToShow(of, partners, days, sets.high) })
  const show = { aToB: sharesOf(a, b.paired), bToA: sharesOf(b, a.paired) }
  const riskOf = (name: EvidenceName): number | null => (firstSign ? null : eitherOf(stillCarries(prior, show.aToB[name]), stillCarries(prior, show.bToA[name])))
  return {
    verdict,
    blocksMerge: verdict !== 'passed',
    missing: looksH.filter((planned) => planned < nowH - besideH && !made.some(({ h }) => Math.abs(h - planned) <= besideH)),
    show,
    risk: { before: eitherOf(prior, prior), low: riskOf('low'), likely: riskOf('likely'), high: riskOf('high') },
    isWeak: Math.min(show.aToB.likely, show.bToA.likely) < weakBelow,
    fishPaired: a.paired + b.paired,
    fishAtRisk: a.n + b.n,
  }
}
