import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { quantile, weightedQuantile } from '../stats/quantile'
import { readingKinds, readingSd, type ReadingKind } from './drawBag'
import { nearlyEqual, rankIn, usualSeed, type Ensemble, type Verdict } from './judge'
import { nominalOf } from './question'

/** What taking one reading would be worth. */
export interface ReadingValue {
  kind: ReadingKind
  /** Share of cases in which knowing it changes the choice. */
  change: number
  /** How much worst ratio above the limits it saves on average. */
  saving: number
}

const mostTruths = 400

/** Readings that were not taken yet; salinity is not asked for in fresh water. */
export function openReadings({ question }: Pick<Ensemble, 'question'>): ReadingKind[] {
  const { measured } = question
  const taken: Record<ReadingKind, boolean> = {
    pH: measured.ph !== undefined,
    ammonia: measured.tanMgL !== undefined,
    salinity: measured.salinityPpt !== undefined || nominalOf(question).salinityPpt <= 2,
    temperature: measured.tempC !== undefined,
    alkalinity: measured.alkalinityMeqL !== undefined,
  }
  return readingKinds.filter((kind) => !taken[kind])
}

/**
 * Says for every reading that is still open how often it would change the recommendation, and what that saves: each of the
 * first draws is taken for the truth in turn, read with the instrument's spread, and all draws weighed by how well they fit.
 */
export function valueOfReadings(ensemble: Ensemble, verdict: Pick<Verdict, 'order' | 'recommended'>, seed = usualSeed): ReadingValue[] {
  const { columns, decide, old } = decider(ensemble, verdict)
  return openReadings(ensemble).map((kind) => valueOf(kind, ensemble, columns, decide, old, seed))
}

/** From where on a reading would change the choice, and to what. */
export interface TurningPoint {
  kind: ReadingKind
  side: 'above' | 'below'
  value: number
  /** Key of the school that would then be taken. */
  school: string
}
const lookedAt = [0.02, 0.06, 0.1, 0.15, 0.2, 0.25, 0.3, 0.35, 0.4, 0.45, 0.5, 0.55, 0.6, 0.65, 0.7, 0.75, 0.8, 0.85, 0.9, 0.94, 0.98] as const

/**
 * Says what would change the recommendation: for every reading that is still open, the nearest figures to either side of
 * the middle, among those that are plausible, at which another school is chosen.
 */
export function turningPoints(ensemble: Ensemble, verdict: Pick<Verdict, 'order' | 'recommended'>): TurningPoint[] {
  const { decide, old } = decider(ensemble, verdict)
  return openReadings(ensemble).flatMap((kind): TurningPoint[] => {
    const weigh = weigher(kind, ensemble)
    const values = lookedAt.map((share) => quantile(ensemble.bags.map(({ truth }) => truth[kind]), share))
    const chosen = values.map((value) => decide(weigh(value)))
    const middle = Math.floor(values.length / 2)
    if (chosen[middle] !== old) return []
    const turn = (step: 1 | -1): TurningPoint[] => {
      for (let nth = middle + step; nth >= 0 && nth < values.length; nth += step) {
        const school = ensemble.schools[chosen[nth] ?? old]?.key
        if (chosen[nth] !== old && school) return [{ kind, side: step > 0 ? 'above' : 'below', value: ((values[nth] ?? 0) + (values[nth - step] ?? 0)) / 2, school }]
      }
      return []
    }
    const [above, below] = [turn(1), turn(-1)]
    // What changes the choice on both sides within what the instrument can tell says nothing to whoever reads it.
    const gap = (above[0]?.value ?? Infinity) - (below[0]?.value ?? -Infinity)
    return gap < 2 * readingSd(kind, values[middle] ?? 0, ensemble.question.measured) ? [] : [...above, ...below]
  })
}

/** Decides as the verdict does, with every draw weighed. */
function decider(ensemble: Ensemble, { order, recommended }: Pick<Verdict, 'order' | 'recommended'>) {
  const columns = ensemble.schools.map((_, column) => Float64Array.from(ensemble.tried, (row) => row[column]?.worst ?? Infinity))
  const orders = columns.map((worsts) => Array.from(worsts.keys()).sort((a, b) => (worsts[a] as number) - (worsts[b] as number)))
  const old = ensemble.schools.findIndex(({ key }) => key === recommended)
  const ranks = ensemble.schools.map(({ key }) => rankIn(order, key))
  const decide = (weights: Float64Array): number => chosenBy(columns.map((worsts, column) => weightedQuantile(orders[column] ?? [], worsts, weights, 0.9)), ranks, old)
  return { columns, decide, old }
}

/** Weighs all draws by how well they fit a reading. The weights are good until the next one is asked for. */
function weigher(kind: ReadingKind, { bags, question }: Ensemble): (read: number) => Float64Array {
  const values = Float64Array.from(bags, (bag) => bag.truth[kind])
  const spreads = values.map((value) => Math.max(readingSd(kind, value, question.measured), bandwidthOf(values)))
  const weights = new Float64Array(values.length)
  return (read) => {
    for (let each = 0; each < values.length; each += 1) {
      const spread = spreads[each] as number
      weights[each] = Math.exp(-0.5 * ((read - (values[each] as number)) / spread) ** 2) / spread
    }
    return weights
  }
}

function valueOf(kind: ReadingKind, ensemble: Ensemble, columns: readonly Float64Array[], decide: (weights: Float64Array) => number, old: number, seed: number): ReadingValue {
  const { bags, question } = ensemble
  const generator = xoroshiro128plus(seed + 1)
  const values = bags.map(({ truth }) => truth[kind])
  const weigh = weigher(kind, ensemble)
  const truths = Math.min(mostTruths, values.length)
  let [changes, saved] = [0, 0]
  for (let truth = 0; truth < truths; truth += 1) {
    const read = (values[truth] as number) + readingSd(kind, values[truth] as number, question.measured) * normal(generator)
    const chosen = decide(weigh(read))
    if (chosen === old) continue
    changes += 1
    saved += Math.max(1, columns[old]?.[truth] ?? 1) - Math.max(1, columns[chosen]?.[truth] ?? 1)
  }
  return { kind, change: changes / truths, saving: Math.max(0, saved / truths) }
}

/** Silverman's bandwidth, so that a handful of draws is not taken for certainty. Never 0. */
function bandwidthOf(values: Float64Array): number {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length
  const sd = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / Math.max(1, values.length - 1))
  return Math.max(1e-9, 1.06 * sd * values.length ** -0.2)
}

function normal(generator: ReturnType<typeof xoroshiro128plus>): number {
  return Math.sqrt(-2 * Math.log(Math.max(uniformFloat64(generator), 1e-12))) * Math.cos(2 * Math.PI * uniformFloat64(generator))
}

/** The first under its limits in the house's order; else the nearest, the old one when it is as near. */
function chosenBy(worsts: readonly number[], ranks: readonly number[], old: number): number {
  const byRank = worsts.map((_, column) => column).sort((a, b) => (ranks[a] ?? 0) - (ranks[b] ?? 0) || (worsts[a] ?? 0) - (worsts[b] ?? 0))
  const under = byRank.find((column) => (worsts[column] ?? Infinity) < 1)
  if (under !== undefined) return under
  const smallest = Math.min(...worsts)
  if ((worsts[old] ?? Infinity) <= smallest + nearlyEqual) return old
  return byRank.find((column) => (worsts[column] ?? Infinity) <= smallest + nearlyEqual) ?? old
}

/** The reading most worth taking; null when none would change anything that matters. */
export function bestReading(values: readonly ReadingValue[]): ReadingValue | null {
  const bySaving = [...values].sort((a, b) => b.saving - a.saving)[0]
  if (bySaving && bySaving.saving >= 0.02) return bySaving
  const byChange = [...values].sort((a, b) => b.change - a.change)[0]
  return byChange && byChange.change >= 0.1 ? byChange : null
}
