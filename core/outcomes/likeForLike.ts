import { crateVariance, shareInterval, type Interval } from './bands'
import { lastDayOf, type LossRow } from './lossRow'
import { dust, type OutcomeRules } from './outcomeRules'
import { curveOf, influenceAt, isKnown } from './survivalByCrate'
import { atRiskOf, cratesOf, unitsOf, weightsOf, type Unit } from './units'

/** Rows of two groups that are alike: of one kind, from one supplier. */
export interface Stratum {
  name: string
  a: readonly LossRow[]
  b: readonly LossRow[]
  fishA: number
  fishB: number
}
/** Rows of both groups as a stratum, their fish counted once. */
export const stratumOf = (name: string, a: readonly LossRow[], b: readonly LossRow[]): Stratum => ({ name, a, b, fishA: fishOf(a), fishB: fishOf(b) })

/** Two groups, and the rungs on which like can be held against like. */
export interface Pair {
  a: readonly LossRow[]
  b: readonly LossRow[]
  day: number
}

/** A rung of the ladder: how fine, what both groups have of it, and how much of their fish that is. */
export interface Rung {
  /** From 0, the finest. */
  level: number
  strata: Stratum[]
  share: number
}

const fishOf = (rows: readonly LossRow[]): number => rows.reduce((sum, { n }) => sum + n, 0)

/** The rung like is held against like on: the first that holds enough fish of both, else the one that holds most. Null without strata. */
export function rungFor({ a, b, day }: Pair, { comparableShare }: OutcomeRules): Rung | null {
  const rungs = Math.max(0, ...[...a, ...b].map(({ strata = [] }) => strata.length))
  let most: Rung | null = null
  for (let level = 0; level < rungs; level += 1) {
    const rung = rungAt({ a, b, day }, level)
    if (rung.share >= comparableShare) return rung
    if (most === null || rung.share > most.share) most = rung
  }
  return most
}

function rungAt({ a, b, day }: Pair, level: number): Rung {
  const strata = new Map<string, { a: LossRow[]; b: LossRow[] }>()
  for (const [side, rows] of [['a', a], ['b', b]] as const) {
    for (const row of rows) {
      const name = row.strata?.[level]
      if (name === undefined) continue
      const stratum = strata.get(name) ?? { a: [], b: [] }
      stratum[side].push(row)
      strata.set(name, stratum)
    }
  }
  const common = [...strata].map(([name, sides]) => stratumOf(name, sides.a, sides.b)).filter((each) => isSeen(each.a, day) && isSeen(each.b, day)).sort((one, other) => (one.name < other.name ? -1 : 1))
  const shareOf = (side: 'fishA' | 'fishB', all: number): number => (all === 0 ? 0 : common.reduce((sum, each) => sum + each[side], 0) / all)
  return { level, strata: common, share: Math.min(shareOf('fishA', fishOf(a)), shareOf('fishB', fishOf(b))) }
}

/** Answers whether survival of rows is known to a day. */
function isSeen(rows: readonly LossRow[], day: number): boolean {
  if (rows.some((row) => isAtRisk(row, day))) return true
  const units = unitsOf(rows, day)
  const atRisk = atRiskOf(units, day)
  return units.length > 0 && isKnown(atRisk, curveOf(atRisk), day)
}

/** Answers whether fish of a row had not left before a day. */
function isAtRisk(row: LossRow, day: number): boolean {
  if (lastDayOf(row) < day) return false
  let staying = row.n
  for (const { day: on, dead, gone } of row.out) if (on < day) staying -= dead + gone
  return staying > dust
}

/** One group of a comparison: its crates, its fish, and the share alive. */
export interface Side {
  crates: number
  fish: number
  dead: number
  survival: number
  low: number
  high: number
}

/** The same, with what each crate adds to the share: two groups may share crates. */
export interface Weighed {
  side: Side
  influence: ReadonlyMap<string, number>
}

/**
 * Survival of one group to a day over strata that weigh as they do in both groups together (directly standardised); one
 * stratum is plain survival. Null where it is not known in one of them.
 * @param strata - crates of the group, stratum by stratum, taken apart to the day asked about.
 */
export function weighedSurvival(strata: readonly (readonly Unit[])[], weights: readonly number[], day: number, rules: OutcomeRules): Weighed | null {
  let [survival, byFish, whole, dead] = [0, 0, 0, 0]
  const [influence, crates] = [new Map<string, number>(), new Map<string, number>()]
  for (const [index, units] of strata.entries()) {
    const atRisk = atRiskOf(units, day)
    const curve = curveOf(atRisk)
    if (units.length === 0 || !isKnown(atRisk, curve, day)) return null
    const [weight, share] = [weights[index] as number, curve.survival[day] as number]
    survival += weight * share
    byFish += (weight * share) ** 2 * (curve.greenwood[day] as number)
    whole += atRisk.risk[day] as number
    dead += atRisk.dead.reduce((sum, each) => sum + each, 0)
    for (const unit of units) influence.set(unit.crate, (influence.get(unit.crate) ?? 0) + weight * share * influenceAt(unit, curve, day))
    for (const [crate, n] of cratesOf(units)) crates.set(crate, (crates.get(crate) ?? 0) + n)
  }
  const sizes = weightsOf([...crates.values()], rules.icc)
  const squares = [...influence.values()].reduce((sum, each) => sum + each ** 2, 0)
  const { variance, t } = crateVariance({ ...sizes, squares, byFish }, rules)
  // Weights of many strata leave dust on a share of all.
  const share = survival > 1 - 1e-12 ? 1 : survival
  const band = shareInterval(share, variance, t, sizes.designEffect, { whole, none: sizes.fish })
  return { side: { crates: sizes.crates, fish: sizes.fish, dead, survival: share, ...band }, influence }
}

/** Weights by which two groups are held against each other, stratum by stratum (Cochran 1954). */
export function weightsOfStrata(strata: readonly Stratum[]): number[] {
  const raw = strata.map(({ fishA, fishB }) => (fishA * fishB) / (fishA + fishB))
  const sum = raw.reduce((total, each) => total + each, 0)
  return raw.map((each) => each / sum)
}

/** 95 % interval of a difference of two shares from the intervals of both (Zou & Donner 2008), crates of both counted once. */
export function differenceInterval(a: Weighed, b: Weighed): Interval & { difference: number } {
  const rho = likenessOf(a.influence, b.influence)
  const difference = a.side.survival - b.side.survival
  const away = (x: number, y: number): number => Math.sqrt(Math.max(0, x * x + y * y - 2 * rho * x * y))
  return {
    difference,
    low: difference - away(a.side.survival - a.side.low, b.side.high - b.side.survival),
    high: difference + away(a.side.high - a.side.survival, b.side.survival - b.side.low),
  }
}

function likenessOf(a: ReadonlyMap<string, number>, b: ReadonlyMap<string, number>): number {
  const squares = (each: ReadonlyMap<string, number>): number => [...each.values()].reduce((sum, value) => sum + value ** 2, 0)
  const both = [...a].reduce((sum, [crate, value]) => sum + value * (b.get(crate) ?? 0), 0)
  const size = Math.sqrt(squares(a) * squares(b))
  return size === 0 ? 0 : Math.min(1, Math.max(-1, both / size))
}
