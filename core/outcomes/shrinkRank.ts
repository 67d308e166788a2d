import { betaPrior, betaQuantile, betaShare } from '../stats/suppliers'
import { groupsOf, likeness, type CrateLoss } from './likeness'
import { outcomeRules, type OutcomeRules } from './outcomeRules'
import { weightsOf } from './units'

/** Losses of a crate, with those to be expected of such fish where somebody can say. */
export interface RankedCrate extends CrateLoss {
  expected?: number | undefined
}

export const rankWords = ['too few to tell', 'not apart', 'fewer losses: leans to', 'fewer losses: likely', 'fewer losses: clear', 'more losses: leans to', 'more losses: likely', 'more losses: clear'] as const
export type RankWord = (typeof rankWords)[number]

export interface RankedGroup {
  group: string
  crates: number
  /** Fish as they were given, and deaths. */
  fish: number
  dead: number
  /** Deaths of fish, hard fish counted as more of them. */
  share: number
  /** What is believed of the group: its mean drawn towards all, and its 95 % interval. */
  mean: number
  low: number
  high: number
  /** 1 has fewest losses. A rank is never told without its interval. */
  expectedRank: number
  rankLow: number
  rankHigh: number
  /** Chance that it loses less than all together. */
  chance: number
  word: RankWord
}

export interface Ranking {
  overall: number
  icc: number
  /** Weight of what is known of all, in fish. */
  weight: number
  groups: RankedGroup[]
}

/**
 * Ranks groups by losses, each drawn towards all by as much as its crates are few. Nobody wins by sending hardy fish: with
 * expected losses hard fish count as more of them. Source: docs/outcomes.md.
 */
export function shrinkRank({ rows, limits }: { rows: readonly RankedCrate[]; limits?: Partial<OutcomeRules> }): Ranking {
  const rules = outcomeRules(limits)
  const judged = handicapped(rows)
  const { icc } = likeness({ rows: judged, limits: rules })
  const groups = groupsOf(judged)
  const effective = groups.map((crates) => {
    const { fish, designEffect } = weightsOf(crates.map(({ of }) => of), icc)
    return { deaths: crates.reduce((sum, { dead }) => sum + dead, 0) / designEffect, of: fish / designEffect }
  })
  const prior = betaPrior(effective)
  const beliefs = effective.map(({ deaths, of }): Belief => ({ a: prior.a + deaths, b: prior.b + of - deaths }))
  const ranks = ranksOf(beliefs)
  const isFlat = flat(groups, rules)
  const ranked = groups.map((crates, index): RankedGroup => {
    const [{ a, b }, given] = [beliefs[index] as Belief, rows.filter(({ group }) => group === crates[0]?.group)]
    const [dead, of] = [crates.reduce((sum, row) => sum + row.dead, 0), crates.reduce((sum, row) => sum + row.of, 0)]
    const chance = betaShare(prior.p, a, b)
    return {
      ...{ group: crates[0]?.group ?? '', crates: crates.filter((row) => row.of > 0).length, fish: given.reduce((sum, row) => sum + row.of, 0), dead, share: of === 0 ? 0 : dead / of },
      ...{ mean: a / (a + b), low: betaQuantile(0.025, a, b), high: betaQuantile(0.975, a, b), ...(ranks[index] as Rank), chance },
      word: isFlat ? 'not apart' : wordOf(crates.filter((row) => row.of > 0).length, chance, rules),
    }
  })
  return { overall: prior.p, icc, weight: prior.weight, groups: ranked.sort((one, other) => one.mean - other.mean || (one.group < other.group ? -1 : 1)) }
}

/** Fish that die more easily counted as more fish, where the losses to be expected of every crate are known. */
function handicapped(rows: readonly RankedCrate[]): RankedCrate[] {
  const [dead, of] = [rows.reduce((sum, row) => sum + row.dead, 0), rows.reduce((sum, row) => sum + row.of, 0)]
  if (dead === 0 || of === 0 || rows.some(({ expected }) => expected === undefined)) return [...rows]
  return rows.map((row) => ({ ...row, of: Math.max(row.dead, ((row.expected ?? 0) * of) / dead) }))
}

interface Belief {
  a: number
  b: number
}
type Rank = Pick<RankedGroup, 'expectedRank' | 'rankLow' | 'rankHigh'>

/** Values of its belief at which a group is held against all others. */
const quantiles = 200

function ranksOf(beliefs: readonly Belief[]): Rank[] {
  return beliefs.map((own, index) => {
    const below = new Float64Array(beliefs.length)
    for (let step = 0; step < quantiles; step += 1) {
      const value = betaQuantile((step + 0.5) / quantiles, own.a, own.b)
      const chances = beliefs.flatMap((other, at) => (at === index ? [] : [betaShare(value, other.a, other.b)]))
      numberOf(chances).forEach((chance, many) => (below[many] = (below[many] ?? 0) + chance / quantiles))
    }
    return rankIn(below)
  })
}

/** Chances of 0, 1, 2 ... of things that each come with a chance of their own (Poisson-binomial). */
function numberOf(chances: readonly number[]): Float64Array {
  const many = new Float64Array(chances.length + 1)
  many[0] = 1
  chances.forEach((chance, index) => {
    for (let at = index + 1; at > 0; at -= 1) many[at] = (many[at] as number) * (1 - chance) + (many[at - 1] as number) * chance
    many[0] = (many[0] as number) * (1 - chance)
  })
  return many
}

function rankIn(below: Float64Array): Rank {
  let [sum, mean, rankLow, rankHigh] = [0, 0, 0, 0]
  below.forEach((chance, many) => {
    sum += chance
    mean += chance * many
    if (rankLow === 0 && sum >= 0.05) rankLow = many + 1
    if (rankHigh === 0 && sum >= 0.95) rankHigh = many + 1
  })
  return { expectedRank: 1 + mean, rankLow, rankHigh: rankHigh || below.length }
}

/** Nothing can be ranked where nothing or everything died, or where too few groups have crates enough. */
function flat(groups: readonly (readonly RankedCrate[])[], { minCrates }: OutcomeRules): boolean {
  const [dead, of] = [groups.flat().reduce((sum, row) => sum + row.dead, 0), groups.flat().reduce((sum, row) => sum + row.of, 0)]
  return dead === 0 || dead >= of || groups.filter((crates) => crates.filter((row) => row.of > 0).length >= minCrates).length < 3
}

function wordOf(crates: number, chance: number, { minCrates, clear, likely, leans }: OutcomeRules): RankWord {
  if (crates < minCrates) return 'too few to tell'
  const sure = (share: number): 'clear' | 'likely' | 'leans to' | null => (share >= 1 - clear ? 'clear' : share >= 1 - likely ? 'likely' : share >= 1 - leans ? 'leans to' : null)
  const [fewer, more] = [sure(chance), sure(1 - chance)]
  return fewer ? `fewer losses: ${fewer}` : more ? `more losses: ${more}` : 'not apart'
}
