import type { Limits } from '../limits/houseLimits'
import { quantile } from '../stats/quantile'
import { createBagDraws, likelyBag, type DrawnBag } from './drawBag'
import { limitNames, type Figures, type LimitName, type Ratios } from './figures'
import { gapPpt, offeredSchools, orderFor, practiceOf, situationOf, type AcclimationQuestion, type HouseDefaults, type Situation } from './question'
import { createFastRun, makeSeries } from './runFast'
import { gradedFromPpt, nameOfSchool, schools as tradeSchools, type School, type SchoolVariant } from './schools'
import { stretched } from './stretch'
import { hourLimitOf, isTogether, paceOf, sceneOf, tryMethod, workMinutes, type MethodScene, type Tried } from './tryMethod'

export interface Spread {
  low: number
  median: number
  high: number
}

/** One school, judged over all draws. */
export interface JudgedSchool {
  key: string
  /** With its variant. */
  name: string
  variant: SchoolVariant | null
  /** Most that an hour may move the salinity by, ppt; null where hours do not count. */
  perHour: number | null
  /** 90th percentiles over draws; of oxygen the 10th. */
  figures: Figures
  likely: Figures
  spread: Record<keyof Figures, Spread>
  ratios: Ratios
  /** 90th percentile of the largest ratio; what is judged by. */
  worst: number
  worstMedian: number
  /** 10th percentile. */
  worstLow: number
  worstLikely: number
  /** The limit with the largest 90th percentile of its own. */
  binds: LimitName
  shareUnderLimits: number
  /** Share of draws in which no other school comes nearer to nothing. */
  shareBest: number
  workMinutes: number
  /** Tank water for the whole lot, L. */
  litres: number
}

export interface Verdict {
  situation: Situation
  order: readonly string[]
  schools: JudgedSchool[]
  /** Schools that stay under every limit, in the house's order. */
  equal: string[]
  /** Within 0.06 of a limit, either side. */
  borderline: string[]
  recommended: string
  /** Share of draws in which the recommended one stays under the limits, or comes as near as the best. */
  sure: number
  draws: number
}

/** Everything a judgement was made from, for the value of readings. */
export interface Ensemble {
  question: AcclimationQuestion
  scene: MethodScene
  schools: readonly School[]
  bags: DrawnBag[]
  tried: Tried[][]
  likely: Tried[]
}

/** Worst ratios so far apart count as the same. */
export const nearlyEqual = 0.05
const closeToLimit = 0.06
export const usualSeed = 20240

export interface JudgeOptions {
  draws: number
  seed?: number
  schools?: readonly School[]
  /** Called after every so many draws; answering false stops. */
  onProgress?: (done: number) => boolean
}

/** Draws plausible bags and carries every school on offer out on each. */
export function drawEnsemble(question: AcclimationQuestion, limits: Limits, { draws, seed = usualSeed, schools = tradeSchools, onProgress }: JudgeOptions): Ensemble {
  const scene = sceneOf(question, limits)
  const offered = offeredSchools(question, schools).map((school) => stretched(school, paceOf(scene)) ?? school)
  const [run, series, next] = [createFastRun(), makeSeries(), createBagDraws(question, seed)]
  const all = (bag: DrawnBag): Tried[] => offered.map((school) => tryMethod(school, bag, scene, run, series))
  const ensemble: Ensemble = { question, scene, schools: offered, bags: [], tried: [], likely: all(likelyBag(question)) }
  for (let nth = 0; nth < draws; nth += 1) {
    const bag = next()
    ensemble.bags.push(bag)
    ensemble.tried.push(all(bag))
    if (nth % 50 === 49 && onProgress?.(nth + 1) === false) break
  }
  return practiceOf(question).slowsFloats ? withSlowedFloats(ensemble, (school, bag) => tryMethod(school, bag, scene, run, series)) : ensemble
}

/** A school as it is done for a delivery: stretched where hours ask for it, floated slowly where somebody chose so. */
export function schoolFor(school: School, variant: SchoolVariant | null, question: AcclimationQuestion, limits: Limits): School {
  return stretched(school, paceOf(sceneOf(question, limits))) ?? (variant === 'slowed float' ? { ...school, variant } : school)
}

/** A float slowed stands in the place of a plain one where temperature is what that one comes nearest to, and it comes less near. */
function withSlowedFloats(ensemble: Ensemble, attempt: (school: School, bag: DrawnBag) => Tried): Ensemble {
  const [schools, tried, likely] = [[...ensemble.schools], ensemble.tried.map((row) => [...row]), [...ensemble.likely]]
  schools.forEach((school, column) => {
    if (school.variant || !school.steps.some(({ step }) => step === 'float')) return
    const plain = judgeSchool(school, ensemble, column, [])
    if (plain.binds !== 'T') return
    const slowed: School = { ...school, variant: 'slowed float' }
    const rows = ensemble.bags.map((bag) => attempt(slowed, bag))
    if (quantile(rows.map(({ worst }) => worst), 0.9) >= plain.worst) return
    schools[column] = slowed
    likely[column] = attempt(slowed, likelyBag(ensemble.question))
    rows.forEach((row, nth) => ((tried[nth] as Tried[])[column] = row))
  })
  return { ...ensemble, schools, tried, likely }
}

/**
 * Judges every school by how near it comes to a limit, and recommends one. It compares waters: there is no toxicity in it,
 * and it predicts no survival.
 * Source: docs/science.md#judging.
 */
export function judge(ensemble: Ensemble, defaults: HouseDefaults = {}): Verdict {
  const { question, schools, tried } = ensemble
  const situation = situationOf(question)
  const order = orderFor(situation, defaults, gapPpt(question) > gradedFromPpt && practiceOf(question).gradesHours)
  const best = tried.map((row) => Math.min(...row.map(({ worst }) => worst)))
  const judged = schools.map((school, column) => judgeSchool(school, ensemble, column, best))
  const ranked = [...judged].sort((a, b) => rankIn(order, a.key) - rankIn(order, b.key) || a.worst - b.worst)
  const equal = ranked.filter(({ worst }) => worst < 1)
  const smallest = Math.min(...judged.map(({ worst }) => worst))
  const recommended = (equal[0] ?? nearestOf(ranked, smallest))?.key ?? ''
  const column = schools.findIndex(({ key }) => key === recommended)
  const isSure = (row: Tried[], index: number): boolean => (row[column]?.worst ?? Infinity) < 1 || (row[column]?.worst ?? Infinity) <= (best[index] ?? 0) + nearlyEqual
  return {
    ...{ situation, order, schools: judged, recommended },
    equal: equal.map(({ key }) => key),
    borderline: judged.filter(({ worst }) => Math.abs(worst - 1) <= closeToLimit).map(({ key }) => key),
    sure: tried.filter(isSure).length / tried.length,
    draws: tried.length,
  }
}

/** Where no school stays under the limits: the first of the nearest, but none that runs short of oxygen while another does not. */
function nearestOf(ranked: readonly JudgedSchool[], smallest: number): JudgedSchool | undefined {
  const nearest = ranked.find(({ worst }) => worst <= smallest + nearlyEqual)
  if (!nearest || nearest.ratios.do < 1) return nearest
  const breathing = ranked.filter(({ ratios }) => ratios.do < 1)
  return breathing.length > 0 ? breathing.reduce((best, each) => (each.worst < best.worst ? each : best)) : ranked.reduce((best, each) => (each.ratios.do < best.ratios.do ? each : best))
}

/** Place in the house's order; an aerated drip comes last of all, because it is for oxygen only. */
export function rankIn(order: readonly string[], key: string): number {
  if (key === 'dripAir') return order.length + 1
  const place = order.indexOf(key)
  return place < 0 ? order.length : place
}

function judgeSchool(school: School, { tried, likely, question, scene }: Ensemble, column: number, best: readonly number[]): JudgedSchool {
  const rows = tried.map((row) => row[column] as Tried)
  const keys = Object.keys(rows[0]?.figures ?? {}) as (keyof Figures)[]
  const of = (key: keyof Figures): number[] => rows.map(({ figures }) => figures[key])
  const spread = Object.fromEntries(keys.map((key) => [key, { low: quantile(of(key), 0.1), median: quantile(of(key), 0.5), high: quantile(of(key), 0.9) }])) as Record<keyof Figures, Spread>
  const ratios = Object.fromEntries(limitNames.map((name) => [name, quantile(rows.map((row) => row.ratios[name]), 0.9)])) as Ratios
  const worsts = rows.map(({ worst }) => worst)
  return {
    ...{ key: school.key, name: nameOfSchool(school), variant: school.variant ?? null, perHour: Number.isFinite(hourLimitOf(school, scene)) ? hourLimitOf(school, scene) : null },
    ...{ spread, ratios, likely: likely[column]?.figures as Figures },
    figures: Object.fromEntries(keys.map((key) => [key, key === 'lowestOxygenMgL' ? spread[key].low : spread[key].high])) as unknown as Figures,
    ...{ worst: quantile(worsts, 0.9), worstMedian: quantile(worsts, 0.5), worstLow: quantile(worsts, 0.1), worstLikely: likely[column]?.worst ?? NaN },
    binds: limitNames.reduce((top, name) => (ratios[name] > ratios[top] ? name : top)),
    shareUnderLimits: worsts.filter((worst) => worst < 1).length / rows.length,
    shareBest: worsts.filter((worst, index) => worst <= (best[index] ?? 0)).length / rows.length,
    workMinutes: workMinutes(school, question.bags),
    litres: (likely[column]?.figures.litres ?? 0) * (school.isPooled || isTogether(school) ? 1 : question.bags),
  }
}
