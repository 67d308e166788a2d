import lnGamma from '@stdlib/math-base-special-gammaln'
import type { UnseenVerdict } from './levelReason'
import { shippedRoundRules, type RoundRules } from './roundRules'

/** A group of one kind in one place, and how many of it showed themselves. */
export interface UnseenAsked {
  /** In the books, from 1. */
  fish: number
  /** Usual share seen at a look, 0 to 1, as the course has it. */
  shareSeen: number
  /** Days since all were last accounted for: counted, or placed. */
  daysSinceFull: number
  looks: readonly { hoursAgo: number; seen: number }[]
}
export interface Missing {
  /** Fewer than the books have, at the best look; null where nobody counted. */
  unseen: number | null
  /** Chance that at least one is gone before the looks, and with them. */
  prior: number
  atLeastOne: number
  /** Fish to be expected gone. */
  expected: number
  /** How many are gone all but surely; 0 unless a write-off is asked about. */
  writeOff: number
  verdict: UnseenVerdict
}
type UnseenRules = RoundRules['unseen']

const lnChoose = (n: number, k: number): number => lnGamma(n + 1) - lnGamma(k + 1) - lnGamma(n - k + 1)
const lnBeta = (a: number, b: number): number => lnGamma(a) + lnGamma(b) - lnGamma(a + b)
const upTo = (n: number): number[] => Array.from({ length: n + 1 }, (_, index) => index)
const within = (value: number, low: number, high: number): number => Math.min(high, Math.max(low, value))
const odds = (chance: number): number => chance / (1 - chance)
const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0)
/** Of k of n with chance p each, in logarithms. */
const lnBinomial = (k: number, n: number, p: number): number => lnChoose(n, k) + (k === 0 ? 0 : k * Math.log(p)) + (n === k ? 0 : (n - k) * Math.log1p(-p))
/** Logarithm of a sum of terms given as logarithms. */
function lnSum(terms: readonly number[]): number {
  const top = Math.max(...terms)
  return top === -Infinity ? -Infinity : top + Math.log(sum(terms.map((term) => Math.exp(term - top))))
}

/** How often and how long fish of a kind stay out of sight. */
interface Hiding {
  /** Share that hides for good, at that many days. */
  hidden: number
  a: number
  b: number
}

/**
 * Tells unseen fish from missing ones: how likely it is that at least one of a group is gone, after looks at which not all
 * showed themselves. Shy fish are hardly ever all seen, and some of them hide for days. It writes nothing off: a person does,
 * after a search. Source: docs/rounds.md, a Bayes rule of our own with house guidance for its constants.
 * @param looks - those with a count; the newest at which all were seen counts as the day all were accounted for.
 */
export function missingProbability({ fish, shareSeen, daysSinceFull, looks }: UnseenAsked, { unseen: rules }: Pick<RoundRules, 'unseen'> = shippedRoundRules): Missing {
  const share = within(shareSeen, 0.02, 0.98)
  const { days, counts } = countsUsed({ fish, daysSinceFull, looks }, rules)
  const hiding = hidingOf(share, days, rules)
  const before = presentBefore(fish, days, rules)
  const present = counts.length === 0 ? before : byLooks(before, counts, hiding)
  const [prior, atLeastOne] = [1 - Math.exp(before[fish] ?? 0), goneChance(present, 1)]
  const expected = sum(upTo(fish).map((there) => (fish - there) * Math.exp(present[there] ?? -Infinity)))
  const speaks = counts.length > 0 && odds(atLeastOne) >= rules.oddsTimes * odds(prior)
  const surely = counts.length >= rules.writeOffLooks ? (upTo(fish).findLast((gone) => gone === 0 || goneChance(present, gone) >= rules.writeOff) ?? 0) : 0
  const verdict = verdictOf({ atLeastOne, speaks, surely, isFew: counts[0] !== undefined && fewChance(counts[0], fish, share, rules) < rules.fewChance }, rules)
  return { unseen: counts.length === 0 ? null : fish - Math.max(...counts), prior, atLeastOne, expected, writeOff: verdict === 'write off?' ? surely : 0, verdict }
}

function verdictOf({ atLeastOne, speaks, surely, isFew }: { atLeastOne: number; speaks: boolean; surely: number; isFew: boolean }, rules: UnseenRules): UnseenVerdict {
  if (atLeastOne < rules.lookForIt) return isFew ? 'fewer than usual' : 'none'
  if (!speaks) return 'count when handy'
  return surely > 0 ? 'write off?' : 'look for it'
}

/** The counts that still say something, newest first, and the days since all were accounted for. */
function countsUsed({ fish, daysSinceFull, looks }: Pick<UnseenAsked, 'fish' | 'daysSinceFull' | 'looks'>, rules: UnseenRules): { days: number; counts: number[] } {
  const newestFirst = [...looks].sort((a, b) => a.hoursAgo - b.hoursAgo)
  const full = newestFirst.find(({ seen }) => seen >= fish)
  const days = full ? Math.min(daysSinceFull, full.hoursAgo / 24) : daysSinceFull
  const kept: { hoursAgo: number; seen: number }[] = []
  for (const look of newestFirst.filter(({ hoursAgo }) => hoursAgo < 24 * days && hoursAgo <= rules.looksDays * 24)) {
    const last = kept.at(-1)
    if (last && look.hoursAgo - last.hoursAgo < rules.mergeH) last.seen = Math.max(last.seen, look.seen)
    else kept.push({ ...look })
  }
  return { days, counts: kept.slice(0, rules.looksMost).map(({ seen }) => seen) }
}

/** How likely each number is still there before anybody looked, in logarithms by number. */
function presentBefore(fish: number, days: number, { lossPerDay, disasterPerDay, disasterMost }: UnseenRules): number[] {
  const alive = (1 - lossPerDay) ** days
  const disaster = Math.min(disasterMost, disasterPerDay * days)
  return upTo(fish).map((there) => lnSum([Math.log(1 - disaster) + lnBinomial(there, fish, alive), Math.log(disaster) - Math.log(fish + 1)]))
}

function hidingOf(share: number, days: number, { hiddenShare, hiddenFadeDays, sureness }: UnseenRules): Hiding {
  const shown = share / (1 - hiddenShare * (1 - share))
  return { hidden: hiddenShare * (1 - share) * Math.exp((-days * share ** 2) / hiddenFadeDays), a: sureness * shown, b: sureness * (1 - shown) }
}

/** The same after looks: fish that are there and do not hide for good show themselves more or less often. */
function byLooks(before: readonly number[], counts: readonly number[], { hidden, a, b }: Hiding): number[] {
  const [total, most] = [sum(counts), Math.max(...counts)]
  const lnLooks = (about: number): number => (about < most ? -Infinity : sum(counts.map((count) => lnChoose(about, count))) + lnBeta(a + total, b + counts.length * about - total) - lnBeta(a, b))
  const looks = before.map((_, about) => lnLooks(about))
  const joint = before.map((chance, there) => chance + lnSum(upTo(there).map((about) => lnBinomial(about, there, 1 - hidden) + (looks[about] ?? -Infinity))))
  const all = lnSum(joint)
  return joint.map((each) => each - all)
}

const goneChance = (present: readonly number[], gone: number): number => sum(present.slice(0, present.length - gone).map((each) => Math.exp(each)))

/** How rarely so few of a group are seen, were all there. */
function fewChance(seen: number, fish: number, share: number, { sureness }: UnseenRules): number {
  const [a, b] = [sureness * share, sureness * (1 - share)]
  return sum(upTo(Math.min(seen, fish)).map((count) => Math.exp(lnChoose(fish, count) + lnBeta(a + count, b + fish - count) - lnBeta(a, b))))
}
