import { dust } from './outcomeRules'
import { lastDayOf, type LossRow } from './lossRow'

/** Fish that share their fate, day by day: those of one crate in one group. */
export interface Unit {
  crate: string
  group: string
  n: number
  /** Deaths, and all who left, by day since opening, 0 to the last day asked about. */
  dead: Float64Array
  left: Float64Array
}

/** Rows of one crate together, day by day up to `lastDay`, taken to be of one group; rows without fish are no crates. What comes of it is not changed. */
export function unitsOf(rows: readonly LossRow[], lastDay: number, group = ''): Unit[] {
  const crates = new Map<string, Unit>()
  const merged = new Set<Unit>()
  const units: Unit[] = []
  for (const row of rows) {
    if (row.n <= 0) continue
    const { crate } = row
    const [known, own] = [crates.get(crate), daysOf(row, lastDay)]
    if (!known) {
      const unit = { crate, group, n: row.n, dead: own.dead, left: own.left }
      crates.set(crate, unit)
      units.push(unit)
      continue
    }
    // The days of a row are kept for the next question: they are added to in a copy.
    if (!merged.has(known)) Object.assign(known, { dead: known.dead.slice(), left: known.left.slice() })
    merged.add(known)
    known.n += row.n
    for (let day = 0; day <= lastDay; day += 1) {
      known.dead[day] = (known.dead[day] as number) + (own.dead[day] as number)
      known.left[day] = (known.left[day] as number) + (own.left[day] as number)
    }
  }
  return units
}

type Days = Pick<Unit, 'n' | 'dead' | 'left'> & { until: number; lastDay: number }
/** Days of rows as they were last asked for: a page asks the same rows many times. */
const kept = new WeakMap<LossRow['out'], Days>()

function daysOf(row: LossRow, lastDay: number): Days {
  const until = lastDayOf(row)
  const known = kept.get(row.out)
  if (known?.lastDay === lastDay && known.n === row.n && known.until === until) return known
  const days: Days = { n: row.n, until, lastDay, dead: new Float64Array(lastDay + 1), left: new Float64Array(lastDay + 1) }
  let staying = row.n
  for (const { day, dead, gone } of row.out) {
    staying -= dead + gone
    if (day > lastDay) continue
    days.dead[day] = (days.dead[day] as number) + dead
    days.left[day] = (days.left[day] as number) + dead + gone
  }
  if (until <= lastDay && staying > 0) days.left[until] = (days.left[until] as number) + staying
  kept.set(row.out, days)
  return days
}

/** Fish of many units at risk, by day: those that had not left before, and those that died on it. */
export interface AtRisk {
  fish: number
  risk: Float64Array
  dead: Float64Array
}

/** Who was at risk on each day, over all units. */
export function atRiskOf(units: readonly Unit[], lastDay: number): AtRisk {
  const [risk, dead] = [new Float64Array(lastDay + 1), new Float64Array(lastDay + 1)]
  const fish = units.reduce((sum, { n }) => sum + n, 0)
  const left = new Float64Array(lastDay + 1)
  for (const unit of units) {
    for (let day = 0; day <= lastDay; day += 1) {
      dead[day] = (dead[day] ?? 0) + (unit.dead[day] ?? 0)
      left[day] = (left[day] ?? 0) + (unit.left[day] ?? 0)
    }
  }
  let staying = fish
  for (let day = 0; day <= lastDay; day += 1) {
    risk[day] = staying < dust ? 0 : staying
    staying -= left[day] ?? 0
  }
  return { fish, risk, dead }
}

/** How far crates of unlike size count: `effective` crates, and by how much a fish counts less for having crate mates. */
export function weightsOf(sizes: readonly number[], icc: number): { crates: number; fish: number; effective: number; designEffect: number } {
  const fish = sizes.reduce((sum, n) => sum + n, 0)
  const squares = sizes.reduce((sum, n) => sum + n * n, 0)
  const mates = fish === 0 ? 0 : squares / fish
  return { crates: sizes.length, fish, effective: squares === 0 ? 0 : (fish * fish) / squares, designEffect: 1 + Math.max(0, mates - 1) * icc }
}

/** Fish of each crate, over its units. */
export function cratesOf(units: readonly Unit[]): Map<string, number> {
  const crates = new Map<string, number>()
  for (const { crate, n } of units) crates.set(crate, (crates.get(crate) ?? 0) + n)
  return crates
}
