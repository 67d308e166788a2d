import { clusterTest, type ClusterTest, type ScoredUnit } from './clusterTest'
import { differenceInterval, rungFor, stratumOf, weighedSurvival, weightsOfStrata, type Rung, type Side, type Stratum } from './likeForLike'
import { deadBy, type LossRow } from './lossRow'
import { dust, outcomeRules, type OutcomeRules } from './outcomeRules'
import { atRiskOf, unitsOf, weightsOf, type Unit } from './units'

/** One group as it is told; figures are null where survival to the day is not known. */
export interface GroupFigures extends Omit<Side, 'survival' | 'low' | 'high'> {
  group: string
  survival: number | null
  low: number | null
  high: number | null
}

/** Like held against like; sides are null where the two have nothing in common. */
export interface Adjusted {
  level: number
  strata: number
  share: number
  a: Side | null
  b: Side | null
  difference: number | null
  low: number | null
  high: number | null
}

/** What the mix of kinds does: turns the difference round, or makes it by itself. */
export interface Mix {
  kind: 'reversed' | 'explained'
  stratum: string
  shareA: number
  shareB: number
}

export interface HangsOn {
  kind: 'crate' | 'event'
  id: string
}

export interface Comparison {
  day: number
  a: GroupFigures
  b: GroupFigures
  /** Share alive of `a` less that of `b`; null where one is not known. */
  difference: number | null
  low: number | null
  high: number | null
  adjusted: Adjusted | null
  used: 'raw' | 'adjusted' | 'none'
  /** Null where nothing can be compared. `excess`: deaths of `a` above what was to be expected. */
  test: (Omit<ClusterTest, 'statistic'> & { excess: number }) | null
  mix: Mix | null
  hangsOn: HangsOn | null
  /** Share of the deaths that were attributed, not seen. */
  attributed: number
}

interface How {
  day: number
  seed?: number
  limits?: Partial<OutcomeRules>
}
export interface Compared extends How {
  lots: readonly LossRow[]
  a: string
  b: string
}
/** A group by its name, with its rows. */
export interface GroupRows {
  group: string
  rows: readonly LossRow[]
}

/**
 * Compares two groups to a day, with the crate as the unit: raw, like for like, and by sharing their crates out anew; says what
 * the mix does and whether it all hangs on one crate or one event. Rows of other groups are ignored. Source: docs/outcomes.md.
 */
export function compareGroups({ lots, a, b, ...how }: Compared): Comparison {
  const rowsOf = (name: string): GroupRows => ({ group: name, rows: lots.filter(({ group }) => group === name) })
  return compareSides(rowsOf(a), rowsOf(b), how)
}

/** The same of rows that were told apart already, whatever group they say they are of. */
export function compareSides(a: GroupRows, b: GroupRows, { day, seed, limits }: How): Comparison {
  const rules = outcomeRules(limits)
  const rows = { a: a.rows, b: b.rows, day }
  const whole = apart(stratumOf('', rows.a, rows.b), day)
  const [rawA, rawB] = [weighedSurvival([whole.unitsA], [1], day, rules), weighedSurvival([whole.unitsB], [1], day, rules)]
  const raw = rawA && rawB ? differenceInterval(rawA, rawB) : null
  const rung = rungFor(rows, rules)
  const alike = (rung?.strata ?? []).map((stratum) => apart(stratum, day))
  const adjusted = rung && adjust(rung, alike, day, rules)
  const used = adjusted ? (adjusted.a ? 'adjusted' : 'none') : raw ? 'raw' : 'none'
  const strata = used === 'adjusted' ? alike : used === 'raw' ? [whole] : []
  const asked = { day, seed }
  const test = used === 'none' ? null : testOf(strata, asked)
  return {
    ...{ day, a: figuresOf(a, day, rawA?.side ?? null, rules), b: figuresOf(b, day, rawB?.side ?? null, rules) },
    ...{ difference: raw?.difference ?? null, low: raw?.low ?? null, high: raw?.high ?? null, adjusted, used },
    test: test && { kind: test.kind, arrangements: test.arrangements, p: test.p, excess: test.excess },
    mix: used === 'adjusted' && test && raw && adjusted ? mixOf(strata, test.p, raw, adjusted.difference ?? 0, rules) : null,
    hangsOn: test && test.p <= rules.leans ? hangsOn(strata, test, asked, rules) : null,
    attributed: attributedShare([...rows.a, ...rows.b]),
  }
}

function figuresOf({ group, rows }: GroupRows, day: number, side: Side | null, { icc }: OutcomeRules): GroupFigures {
  if (side) return { group, ...side }
  const sizes = new Map<string, number>()
  for (const { crate, n } of rows) if (n > 0) sizes.set(crate, (sizes.get(crate) ?? 0) + n)
  const { crates, fish } = weightsOf([...sizes.values()], icc)
  return { group, crates, fish, dead: rows.reduce((sum, row) => sum + deadBy(row, day), 0), survival: null, low: null, high: null }
}

/** The two groups by the name of their side. */
const [sideA, sideB] = ['a', 'b']

/** A stratum, its crates taken apart to the day asked about, once for all that is asked of it. */
interface Apart extends Stratum {
  unitsA: Unit[]
  unitsB: Unit[]
}
const apart = (stratum: Stratum, day: number): Apart => ({ ...stratum, unitsA: unitsOf(stratum.a, day, sideA), unitsB: unitsOf(stratum.b, day, sideB) })

function adjust({ level, share }: Rung, strata: readonly Apart[], day: number, rules: OutcomeRules): Adjusted {
  const nothing: Adjusted = { level: strata.length === 0 ? 0 : level, strata: strata.length, share, a: null, b: null, difference: null, low: null, high: null }
  if (strata.length === 0) return nothing
  const weights = weightsOfStrata(strata)
  const [a, b] = [weighedSurvival(strata.map(({ unitsA }) => unitsA), weights, day, rules), weighedSurvival(strata.map(({ unitsB }) => unitsB), weights, day, rules)]
  return a && b ? { ...nothing, a: a.side, b: b.side, ...differenceInterval(a, b) } : nothing
}

type Tested = ClusterTest & { excess: number; units: ScoredUnit[] }
interface Asked {
  day: number
  seed: number | undefined
}

/** Deaths of every crate above what was to be expected of it (log-rank scores), stratum by stratum, and the test of them. */
function testOf(strata: readonly Apart[], { day, seed }: Asked): Tested {
  const scores = new Map<string, { a?: ScoredUnit; b?: ScoredUnit }>()
  for (const { unitsA, unitsB } of strata) {
    const units = [...unitsA, ...unitsB]
    const { risk, dead } = atRiskOf(units, day)
    for (const unit of units) {
      let [score, staying] = [0, unit.n]
      for (let on = 0; on <= day; on += 1) {
        const atRisk = risk[on] as number
        if (atRisk > 0) score += (unit.dead[on] as number) - (staying * (dead[on] as number)) / atRisk
        staying -= unit.left[on] as number
      }
      const sides = scores.get(unit.crate) ?? {}
      if (!scores.has(unit.crate)) scores.set(unit.crate, sides)
      const side = unit.group === sideA ? 'a' : 'b'
      const known = sides[side]
      if (known) known.score += score
      else sides[side] = { crate: unit.crate, group: unit.group, score }
    }
  }
  const units = [...scores.values()].flatMap(({ a, b }) => [...(a ? [a] : []), ...(b ? [b] : [])])
  const excess = units.reduce((sum, { group, score }) => (group === sideA ? sum + score : sum), 0)
  return { ...clusterTest({ units, a: sideA, ...(seed === undefined ? {} : { seed }) }), excess, units }
}

function mixOf(strata: readonly Stratum[], p: number, raw: { difference: number; low: number; high: number }, adjusted: number, { leans, mixShare }: OutcomeRules): Mix | null {
  const isReversed = p <= leans && raw.difference * adjusted < 0 && Math.min(Math.abs(raw.difference), Math.abs(adjusted)) >= mixShare
  const isExplained = p > leans && (raw.low > 0 || raw.high < 0)
  if (!isReversed && !isExplained) return null
  const [allA, allB] = [strata.reduce((sum, { fishA }) => sum + fishA, 0), strata.reduce((sum, { fishB }) => sum + fishB, 0)]
  const shares = strata.map(({ name, fishA, fishB }) => ({ stratum: name, shareA: fishA / allA, shareB: fishB / allB }))
  const unlike = ({ shareA, shareB }: { shareA: number; shareB: number }): number => Math.abs(shareA - shareB)
  const first = shares.reduce((most, each) => (unlike(each) > unlike(most) + dust ? each : most))
  return { kind: isReversed ? 'reversed' : 'explained', ...first }
}

/** The crate, else the outbreak, without which nothing would be left of a difference. */
function hangsOn(strata: readonly Stratum[], test: Tested, asked: Asked, { leans }: OutcomeRules): HangsOn | null {
  const without = (change: (rows: readonly LossRow[]) => LossRow[]): number => {
    const left = strata.map(({ name, a, b }) => stratumOf(name, change(a), change(b))).filter(({ fishA, fishB }) => fishA > 0 && fishB > 0)
    return left.length === 0 ? 1 : testOf(left.map((stratum) => apart(stratum, asked.day)), asked).p
  }
  const crate = heaviestCrate(test)
  if (crate !== null && without((rows) => rows.filter((row) => row.crate !== crate)) > leans) return { kind: 'crate', id: crate }
  const event = deadliestEvent(strata, asked.day)
  if (event !== null && without((rows) => rows.map((row) => withoutEvent(row, event))) > leans) return { kind: 'event', id: event }
  return null
}

function heaviestCrate({ statistic, units }: Tested): string | null {
  const towards = statistic < 0 ? -1 : 1
  const sums = new Map<string, number>()
  for (const { crate, group, score } of units) sums.set(crate, (sums.get(crate) ?? 0) + towards * (group === sideA ? score : -score))
  let most: [string, number] | null = null
  for (const each of [...sums].sort(([one], [other]) => (one < other ? -1 : 1))) if (most === null || each[1] > most[1] + dust) most = each
  return most?.[0] ?? null
}

function deadliestEvent(strata: readonly Stratum[], day: number): string | null {
  const deaths = new Map<string, number>()
  for (const { a, b } of strata) for (const row of [...a, ...b]) for (const exit of row.out) if (exit.event !== undefined && exit.day <= day) deaths.set(exit.event, (deaths.get(exit.event) ?? 0) + exit.dead)
  return [...deaths].sort(([one, fish], [other, more]) => more - fish || (one < other ? -1 : 1))[0]?.[0] ?? null
}

const withoutEvent = (row: LossRow, event: string): LossRow => ({ ...row, out: row.out.map((exit) => (exit.event === event ? { ...exit, dead: 0, gone: exit.gone + exit.dead } : exit)) })

function attributedShare(rows: readonly LossRow[]): number {
  const attributed = rows.reduce((sum, { shared = 0 }) => sum + shared, 0)
  const dead = attributed === 0 ? 0 : rows.reduce((sum, row) => sum + deadBy(row), 0)
  return dead === 0 ? 0 : attributed / dead
}
