import type { Limits } from '../limits/houseLimits'
import { quantile } from '../stats/quantile'
import { createBagDraws, likelyBag } from './drawBag'
import { usualSeed } from './judge'
import type { AcclimationQuestion } from './question'
import { createFastRun, makeSeries, type Series } from './runFast'
import type { School } from './schools'
import { sceneOf, tryMethod } from './tryMethod'

/** What is drawn of a method. */
export const curveNames = ['unionisedMgL', 'tempC', 'salinityPpt', 'ph'] as const
export type CurveName = (typeof curveNames)[number]
/** One figure over time: the likely bag, and the band in which eight of ten lie. */
export interface Curve {
  low: number[]
  likely: number[]
  high: number[]
}
export interface MethodCurves {
  atMin: number[]
  curves: Record<CurveName, Curve>
}

const points = 90

const readers: Record<CurveName, (series: Series, index: number) => number> = {
  tempC: (series, index) => series.tempC[index] ?? NaN,
  salinityPpt: (series, index) => series.salinityPpt[index] ?? NaN,
  ph: (series, index) => (series.ownPh[index] ?? NaN) + (series.co2Ph[index] ?? NaN),
  unionisedMgL: (series, index) => series.unionisedMgL[index] ?? NaN,
}

/**
 * Follows one school over plausible bags, for a picture: the likely course and the band from the 10th to the 90th percentile
 * at each moment. The last moment is the tank's water.
 * @param draws - bags to draw; 200 give a steady band.
 */
export function methodCurves(school: School, question: AcclimationQuestion, limits: Limits, draws = 200): MethodCurves {
  const scene = sceneOf(question, limits)
  const [run, series, next] = [createFastRun(), makeSeries(), createBagDraws(question, usualSeed)]
  tryMethod(school, likelyBag(question), scene, run, series)
  const lastMin = Math.max(1, series.atMin[series.length - 1] ?? 1)
  const atMin = Array.from({ length: points + 1 }, (_, nth) => (lastMin * nth) / points)
  const likely = sample(series, atMin)
  const drawn = Array.from({ length: draws }, () => {
    tryMethod(school, next(), scene, run, series)
    return sample(series, atMin)
  })
  const band = (name: CurveName, share: number): number[] => atMin.map((_, nth) => quantile(drawn.map((each) => each[name][nth] ?? NaN), share))
  return { atMin, curves: Object.fromEntries(curveNames.map((name) => [name, { low: band(name, 0.1), likely: likely[name], high: band(name, 0.9) }])) as Record<CurveName, Curve> }
}

/** Values of a run at given minutes: the newest moment not after each. */
function sample(series: Series, atMin: readonly number[]): Record<CurveName, number[]> {
  const found = Object.fromEntries(curveNames.map((name) => [name, [] as number[]])) as Record<CurveName, number[]>
  let index = 0
  for (const at of atMin) {
    while (index + 1 < series.length && (series.atMin[index + 1] ?? Infinity) <= at + 1e-6) index += 1
    for (const name of curveNames) found[name].push(readers[name](series, index))
  }
  return found
}
