import { crateVariance, shareInterval } from './bands'
import { deadBy, type LossRow } from './lossRow'
import { dust, outcomeRules, type OutcomeRules } from './outcomeRules'
import { atRiskOf, cratesOf, unitsOf, weightsOf, type AtRisk, type Unit } from './units'

/** Survival to a day; null where nobody was left to be seen on it. */
export interface SurvivalRow {
  day: number
  survival: number | null
  /** Standard error by crate, and as it would be if fish were independent. */
  se: number | null
  seFish: number | null
  low: number | null
  high: number | null
  atRisk: number
  /** Deaths up to the day. */
  dead: number
}

export interface MeanDays {
  /** Lived days are counted to this day. */
  days: number
  value: number | null
  se: number | null
  seFish: number | null
  low: number | null
  high: number | null
}

export interface CrateSurvival {
  fish: number
  clusters: number
  effective: number
  dead: number
  designEffect: number
  rows: SurvivalRow[]
  mean: MeanDays
}

/** A curve by day: survival, Greenwood's sum, and for a crate what a death of its own and one of all weigh. */
export interface Curve {
  survival: Float64Array
  greenwood: Float64Array
  /** 1/(R − D), and D/(R(R − D)); 0 where everybody left died. */
  own: Float64Array
  all: Float64Array
}

/** The curve of fish at risk (Kaplan & Meier 1958; Greenwood 1926). */
export function curveOf({ risk, dead }: AtRisk): Curve {
  const days = risk.length
  const [survival, greenwood, own, all] = [new Float64Array(days), new Float64Array(days), new Float64Array(days), new Float64Array(days)]
  let [alive, sum] = [1, 0]
  for (let day = 0; day < days; day += 1) {
    const [r, d] = [risk[day] as number, dead[day] as number]
    const isLast = d > 0 && r - d < dust
    if (isLast) alive = 0
    else if (d > 0) {
      alive *= 1 - d / r
      own[day] = 1 / (r - d)
      all[day] = d / (r * (r - d))
      sum += all[day] as number
    } else if (r > 0) own[day] = 1 / r
    survival[day] = alive
    greenwood[day] = sum
  }
  return { survival, greenwood, own, all }
}

/** Answers whether survival to a day is known: somebody was at risk on it, or nobody is alive. */
export const isKnown = ({ risk }: AtRisk, { survival }: Curve, day: number): boolean => survival[day] === 0 || (risk[day] ?? 0) > 0

/**
 * What a unit adds to the figures of its curve, by day (its influence, over all its fish): as much as its deaths differ from
 * what is to be expected of as many fish.
 */
export function influenceOf(unit: Unit, { own, all }: Curve): Float64Array {
  const influence = new Float64Array(own.length)
  let [sum, staying] = [0, unit.n]
  for (let day = 0; day < own.length; day += 1) {
    sum += staying * (all[day] as number) - (unit.dead[day] as number) * (own[day] as number)
    staying -= unit.left[day] as number
    influence[day] = sum
  }
  return influence
}

/** The same on one day alone. */
export function influenceAt(unit: Unit, { own, all }: Curve, day: number): number {
  let [sum, staying] = [0, unit.n]
  for (let on = 0; on <= day; on += 1) {
    sum += staying * (all[on] as number) - (unit.dead[on] as number) * (own[on] as number)
    staying -= unit.left[on] as number
  }
  return sum
}

/**
 * Survival by day with the crate as the unit: curve, standard errors and bands, and mean days lived. Source: docs/outcomes.md.
 * @param at - days since opening, whole, 0 and up.
 * @param mean - days over which lived days are counted; the largest of `at` when missing.
 */
export function survivalByCrate({ lots, at, mean = Math.max(0, ...at), limits }: { lots: readonly LossRow[]; at: readonly number[]; mean?: number; limits?: Partial<OutcomeRules> }): CrateSurvival {
  const rules = outcomeRules(limits)
  const lastDay = Math.max(0, mean, ...at)
  const units = unitsOf(lots, lastDay)
  const atRisk = atRiskOf(units, lastDay)
  const curve = curveOf(atRisk)
  const weights = weightsOf([...cratesOf(units).values()], rules.icc)
  const influences = units.map((unit) => influenceOf(unit, curve))
  const dead = cumulative(atRisk.dead)
  const rows = at.map((day): SurvivalRow => {
    const counted = { day, atRisk: atRisk.risk[day] as number, dead: dead[day] as number }
    if (weights.fish === 0 || !isKnown(atRisk, curve, day)) return { ...counted, survival: null, se: null, seFish: null, low: null, high: null }
    const [survival, byFish] = [curve.survival[day] as number, curve.greenwood[day] as number]
    const { variance, t } = crateVariance({ ...weights, squares: squaresOf(influences, day), byFish }, rules)
    const band = shareInterval(survival, survival ** 2 * variance, t, weights.designEffect, { whole: counted.atRisk, none: weights.fish })
    const isSure = survival === 0 || survival === 1
    return { ...counted, survival, se: isSure ? 0 : survival * Math.sqrt(variance), seFish: isSure ? 0 : survival * Math.sqrt(byFish), ...band }
  })
  const { fish, crates, effective, designEffect } = weights
  return { fish, clusters: crates, effective, dead: lots.reduce((sum, row) => sum + deadBy(row), 0), designEffect, rows, mean: meanDays({ units, atRisk, curve, days: mean }, weights, rules) }
}

/** A day of a curve, as it is drawn. */
export interface CurvePoint extends SurvivalRow {
  /** Crates of which fish are at risk. */
  crates: number
}

/** The curve of some rows day by day from opening to `lastDay`, with its band and who is left. */
export function curvePoints(lots: readonly LossRow[], lastDay: number, limits: Partial<OutcomeRules> = {}): CurvePoint[] {
  const days = Array.from({ length: lastDay + 1 }, (_, day) => day)
  const left = days.map(() => 0)
  for (const unit of unitsOf(lots, lastDay)) {
    let staying = unit.n
    for (let day = 0; day <= lastDay && staying > dust; day += 1) {
      left[day] = (left[day] ?? 0) + 1
      staying -= unit.left[day] as number
    }
  }
  return survivalByCrate({ lots, at: days, mean: 0, limits }).rows.map((row, day) => ({ ...row, crates: left[day] ?? 0 }))
}

const squaresOf = (influences: readonly Float64Array[], day: number): number => influences.reduce((sum, each) => sum + (each[day] as number) ** 2, 0)

function cumulative(values: Float64Array): Float64Array {
  let sum = 0
  return values.map((value) => (sum += value))
}

interface Seen {
  units: readonly Unit[]
  atRisk: AtRisk
  curve: Curve
  days: number
}

/** Mean days lived up to a day: the area under the curve (Irwin 1949), its spread by crate. */
function meanDays({ units, atRisk, curve, days }: Seen, weights: ReturnType<typeof weightsOf>, rules: OutcomeRules): MeanDays {
  const nothing: MeanDays = { days, value: null, se: null, seFish: null, low: null, high: null }
  if (weights.fish === 0 || days < 1 || !isKnown(atRisk, curve, days - 1)) return nothing
  const area = areasAfter(curve, days)
  const value = area[0] as number
  const byFish = area.reduce((sum, each, day) => sum + each ** 2 * (curve.all[day] as number), 0)
  const squares = units.reduce((sum, unit) => sum + livedBy(unit, curve, area) ** 2, 0)
  const { variance, t } = crateVariance({ ...weights, squares, byFish }, rules)
  if (atRisk.dead.subarray(0, days).every((dead) => dead === 0)) {
    const { low } = shareInterval(1, 0, t, weights.designEffect, { whole: atRisk.risk[days - 1] as number, none: weights.fish })
    return { days, value, se: 0, seFish: 0, low: days * low, high: days }
  }
  const se = Math.sqrt(variance)
  return { days, value, se, seFish: Math.sqrt(byFish), low: Math.max(0, value - t * se), high: Math.min(days, value + t * se) }
}

/** Days still to be lived from each day on, per fish alive at opening. */
function areasAfter({ survival }: Curve, days: number): Float64Array {
  const area = new Float64Array(days)
  let sum = 0
  for (let day = days - 1; day >= 0; day -= 1) area[day] = sum += survival[day] as number
  return area
}

function livedBy(unit: Unit, { own, all }: Curve, area: Float64Array): number {
  let [sum, staying] = [0, unit.n]
  for (let day = 0; day < area.length; day += 1) {
    sum += (area[day] as number) * (staying * (all[day] as number) - (unit.dead[day] as number) * (own[day] as number))
    staying -= unit.left[day] as number
  }
  return sum
}
