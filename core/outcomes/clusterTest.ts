import { mulberry } from './mulberry'
import { dust } from './outcomeRules'

/** What the deaths of a crate in one group are above what was to be expected of it. */
export interface ScoredUnit {
  crate: string
  group: string
  score: number
}

export interface ClusterTest {
  /** Whether every arrangement was listed, or so many drawn. */
  kind: 'exact' | 'drawn'
  /** How the crates could have been shared out between the groups; at most 1e15. */
  arrangements: number
  statistic: number
  p: number
}

const [shownMost, seedUsual, drawsUsual, listedUsual] = [1e15, 20240, 9999, 20_000]

/** Crates with one group, and crates with both: each of those is its own comparison. */
interface Arranged {
  singles: Float64Array
  /** How many of the singles are the group asked about. */
  own: number
  /** Scores of both groups of a crate, the one asked about first. */
  pairs: (readonly [own: number, other: number])[]
}

/**
 * Tests two groups by sharing their crates out anew (Fisher's permutation test): crates with one group change sides, crates
 * with both flip. A fish is never moved by itself.
 * @param a - the group whose scores are summed; all others are the other one.
 */
export function clusterTest({ units, a, seed = seedUsual, draws = drawsUsual, exactUpTo = listedUsual }: { units: readonly ScoredUnit[]; a: string; seed?: number; draws?: number; exactUpTo?: number }): ClusterTest {
  const arranged = arrange(units, a)
  const mean = usual(arranged)
  const statistic = units.reduce((sum, { group, score }) => (group === a ? sum + score : sum), 0) - mean
  const arrangements = countOf(arranged)
  const isHit = (sum: number): boolean => Math.abs(sum - mean) >= Math.abs(statistic) - dust
  if (arrangements <= exactUpTo) {
    let [hits, all] = [0, 0]
    for (const sum of listed(arranged)) {
      all += 1
      if (isHit(sum)) hits += 1
    }
    return { kind: 'exact', arrangements, statistic, p: hits / all }
  }
  const draw = drawer(arranged, seed)
  let hits = 0
  for (let each = 0; each < draws; each += 1) if (isHit(draw())) hits += 1
  return { kind: 'drawn', arrangements: Math.min(shownMost, arrangements), statistic, p: (1 + hits) / (draws + 1) }
}

function arrange(units: readonly ScoredUnit[], a: string): Arranged {
  const crates = new Map<string, { own: number | null; other: number | null }>()
  for (const { crate, group, score } of units) {
    const sides = crates.get(crate) ?? { own: null, other: null }
    const side = group === a ? 'own' : 'other'
    crates.set(crate, { ...sides, [side]: (sides[side] ?? 0) + score })
  }
  const [singles, pairs]: [number[], [number, number][]] = [[], []]
  let own = 0
  for (const sides of crates.values()) {
    if (sides.own !== null && sides.other !== null) pairs.push([sides.own, sides.other])
    else {
      singles.push(sides.own ?? sides.other ?? 0)
      if (sides.own !== null) own += 1
    }
  }
  return { singles: Float64Array.from(singles), own, pairs }
}

/** The mean over all arrangements. */
function usual({ singles, own, pairs }: Arranged): number {
  const mean = singles.length === 0 ? 0 : singles.reduce((sum, each) => sum + each, 0) / singles.length
  return own * mean + pairs.reduce((sum, [one, other]) => sum + (one + other) / 2, 0)
}

function countOf({ singles, own, pairs }: Arranged): number {
  let count = 2 ** pairs.length
  for (let each = 1; each <= Math.min(own, singles.length - own); each += 1) count = (count * (singles.length - each + 1)) / each
  return count > shownMost ? shownMost : Math.round(count)
}

/** Sums of the group asked about in every arrangement. */
function* listed({ singles, own, pairs }: Arranged): Generator<number> {
  const flips = pairs.reduce<number[]>((sums, [one, other]) => sums.flatMap((sum) => [sum + one, sum + other]), [0])
  // The smaller side is chosen: as many choices, and never deeper than half of the crates.
  const [fewer, total] = [Math.min(own, singles.length - own), singles.reduce((sum, each) => sum + each, 0)]
  for (const chosen of choices(singles, fewer)) for (const flip of flips) yield (fewer === own ? chosen : total - chosen) + flip
}

function* choices(values: Float64Array, take: number, from = 0, sum = 0): Generator<number> {
  if (take === 0) yield sum
  else for (let at = from; at <= values.length - take; at += 1) yield* choices(values, take - 1, at + 1, sum + (values[at] as number))
}

function drawer({ singles, own, pairs }: Arranged, seed: number): () => number {
  const next = mulberry(seed)
  const order = Float64Array.from(singles)
  const total = order.reduce((sum, each) => sum + each, 0)
  const fewer = Math.min(own, order.length - own)
  return () => {
    let sum = 0
    for (let at = 0; at < fewer; at += 1) {
      const other = at + Math.floor(next() * (order.length - at))
      const taken = order[other] as number
      order[other] = order[at] as number
      order[at] = taken
      sum += taken
    }
    if (fewer !== own) sum = total - sum
    for (const [one, other] of pairs) sum += next() < 0.5 ? one : other
    return sum
  }
}
