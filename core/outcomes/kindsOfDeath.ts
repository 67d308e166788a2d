import { crateVariance, shareInterval } from './bands'
import { lastDayOf, type Exit, type LossRow } from './lossRow'
import { dust, outcomeRules, type OutcomeRules } from './outcomeRules'
import { curveOf, isKnown, type Curve } from './survivalByCrate'
import { atRiskOf, cratesOf, unitsOf, weightsOf, type AtRisk } from './units'

/** An exit whose deaths are told apart by what the fish died of. */
interface KindExit extends Omit<Exit, 'dead'> {
  dead: Readonly<Record<string, number>>
}
export interface KindRow extends Omit<LossRow, 'out'> {
  out: readonly KindExit[]
}

export interface IncidenceRow {
  outcome: string
  day: number
  /** Share dead of it by the day, of fish alive when the counting begins; null where nobody was left to be seen. */
  incidence: number | null
  se: number | null
  low: number | null
  high: number | null
  /** Deaths of it from the first day counted to this one. */
  dead: number
}

export interface Incidence {
  fish: number
  clusters: number
  rows: IncidenceRow[]
  survival: { day: number; survival: number | null; atRisk: number }[]
}

const sumOf = (dead: Readonly<Record<string, number>>): number => Object.values(dead).reduce((sum, each) => sum + each, 0)

/** A plain row of the same fish. Named one by one: of objects spread into others, a large house reads its rows ten times as slowly. */
const plainRow = ({ lot, crate, group, strata, n, until, shared, out }: KindRow, exitOf: (exit: KindExit) => Exit): LossRow => ({ lot, crate, group, strata, n, out: out.map(exitOf), until, shared })

/** Deaths of every kind together, as a plain row. */
export const anyKind = (row: KindRow): LossRow => plainRow(row, ({ day, dead, gone, event }) => ({ day, dead: sumOf(dead), gone, event }))

/** Deaths of one kind as deaths, all others as fish that went out of sight: of fish that had not died of something else. */
export const oneKind = (row: KindRow, kind: string): LossRow =>
  plainRow(row, ({ day, dead, gone, event }) => {
    const ofIt = Object.hasOwn(dead, kind) ? (dead[kind] ?? 0) : 0
    return { day, dead: ofIt, gone: gone + sumOf(dead) - ofIt, event }
  })

/** Fish alive on a day: who left before is dropped, and was never counted. */
function aliveOn(row: KindRow, from: number): KindRow {
  const before = row.out.filter(({ day }) => day < from).reduce((sum, { dead, gone }) => sum + sumOf(dead) + gone, 0)
  const isGone = lastDayOf(row) < from
  const left = row.n - before
  return { ...row, n: isGone || left < dust ? 0 : left, out: row.out.filter(({ day }) => day >= from) }
}

/**
 * Share that died of each kind by a day, where fish may die of others first (Aalen & Johansen 1978), its spread by crate.
 * Source: docs/outcomes.md.
 * @param from - day from which is counted; fish that left before it are dropped. 0 when missing.
 */
export function kindsOfDeath({ lots, outcomes, at, from = 0, limits }: { lots: readonly KindRow[]; outcomes: readonly string[]; at: readonly number[]; from?: number; limits?: Partial<OutcomeRules> }): Incidence {
  const rules = outcomeRules(limits)
  const lastDay = Math.max(from, ...at)
  const alive = lots.map((row) => aliveOn(row, from))
  const units = unitsOf(alive.map(anyKind), lastDay)
  const atRisk = atRiskOf(units, lastDay)
  const curve = curveOf(atRisk)
  const weights = weightsOf([...cratesOf(units).values()], rules.icc)
  const seen = { alive, atRisk, curve, weights, rules }
  return {
    fish: weights.fish,
    clusters: weights.crates,
    rows: outcomes.flatMap((outcome) => at.map((day) => incidenceOf(seen, outcome, day))),
    survival: at.map((day) => ({ day, survival: weights.fish > 0 && isKnown(atRisk, curve, day) ? (curve.survival[day] as number) : null, atRisk: atRisk.risk[day] as number })),
  }
}

interface Seen {
  alive: readonly KindRow[]
  atRisk: AtRisk
  curve: Curve
  weights: ReturnType<typeof weightsOf>
  rules: OutcomeRules
}

function incidenceOf({ alive, atRisk, curve, weights, rules }: Seen, outcome: string, day: number): IncidenceRow {
  const ofIt = new Float64Array(day + 1)
  for (const row of alive) for (const exit of row.out) if (exit.day <= day && Object.hasOwn(exit.dead, outcome)) ofIt[exit.day] = (ofIt[exit.day] ?? 0) + (exit.dead[outcome] ?? 0)
  const dead = ofIt.reduce((sum, each) => sum + each, 0)
  if (weights.fish === 0 || !isKnown(atRisk, curve, day)) return { outcome, day, incidence: null, se: null, low: null, high: null, dead }
  const tables = tablesOf(ofIt, atRisk, curve)
  const { squares, byFish } = spreadOf(alive, outcome, day, tables)
  const { variance, t } = crateVariance({ ...weights, squares, byFish }, rules)
  const share = Math.min(1, tables.incidence)
  const atDay = atRisk.risk[day] as number
  const band = shareInterval(share < dust ? 0 : share > 1 - dust ? 1 : share, variance, t, weights.designEffect, { whole: weights.fish, none: atDay > 0 ? atDay : weights.fish })
  const isSure = share < dust || share > 1 - dust
  return { outcome, day, incidence: share, se: isSure ? 0 : Math.sqrt(variance), ...band, dead }
}

/** What a fish adds to a share of deaths, by the day it leaves on and by how. */
interface Tables {
  incidence: number
  gone: Float64Array
  diedOfIt: Float64Array
  diedOfOther: Float64Array
  /** Of a fish that leaves after the day asked about. */
  staying: number
}

function tablesOf(ofIt: Float64Array, { risk }: AtRisk, { survival, greenwood, own }: Curve): Tables {
  const days = ofIt.length
  const before = (day: number): number => (day === 0 ? 1 : (survival[day - 1] as number))
  const sumBefore = (day: number): number => (day === 0 ? 0 : (greenwood[day - 1] as number))
  const weight = ofIt.map((dead, day) => (dead === 0 ? 0 : (before(day) * dead) / (risk[day] as number)))
  const incidence = weight.reduce((sum, each) => sum + each, 0)
  const [gone, diedOfIt, diedOfOther] = [new Float64Array(days), new Float64Array(days), new Float64Array(days)]
  // Up to a day: what it took of those at risk, and what Greenwood's sum weighed until then.
  let [taken, earlier, weightSoFar] = [0, 0, 0]
  for (let day = 0; day < days; day += 1) {
    const here = weight[day] as number
    if (here > 0) taken += here / (risk[day] as number)
    earlier += here * sumBefore(day)
    weightSoFar += here
    const after = incidence - weightSoFar
    gone[day] = -taken + earlier + (greenwood[day] as number) * after
    diedOfOther[day] = (gone[day] as number) - (own[day] as number) * after
    diedOfIt[day] = (diedOfOther[day] as number) + ((risk[day] as number) > 0 ? before(day) / (risk[day] as number) : 0)
  }
  return { incidence, gone, diedOfIt, diedOfOther, staying: -taken + earlier }
}

function spreadOf(alive: readonly KindRow[], outcome: string, day: number, tables: Tables): { squares: number; byFish: number } {
  const byCrate = new Map<string, number>()
  let byFish = 0
  for (const row of alive) {
    if (row.n === 0) continue
    let staying = row.n
    let sum = 0
    const add = (fish: number, each: number): void => {
      staying -= fish
      sum += fish * each
      byFish += fish * each ** 2
    }
    for (const exit of row.out) {
      if (exit.day > day) continue
      const ofIt = Object.hasOwn(exit.dead, outcome) ? (exit.dead[outcome] ?? 0) : 0
      add(ofIt, tables.diedOfIt[exit.day] as number)
      add(sumOf(exit.dead) - ofIt, tables.diedOfOther[exit.day] as number)
      add(exit.gone, tables.gone[exit.day] as number)
    }
    const until = lastDayOf(row)
    const hasLater = row.out.some((exit) => exit.day > day)
    add(staying, until <= day && !hasLater ? (tables.gone[until] as number) : tables.staying)
    byCrate.set(row.crate, (byCrate.get(row.crate) ?? 0) + sum)
  }
  return { squares: [...byCrate.values()].reduce((sum, each) => sum + each ** 2, 0), byFish }
}
