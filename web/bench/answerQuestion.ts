import { readingKinds, type ReadingKind } from '../../core/acclimation/drawBag'
import { drawEnsemble, judge, type Ensemble, type Spread, type Verdict } from '../../core/acclimation/judge'
import type { HouseDefaults } from '../../core/acclimation/question'
import { bestReading, turningPoints, valueOfReadings, type ReadingValue } from '../../core/acclimation/readingValue'
import { bestRemedy } from '../../core/acclimation/remedies'
import { readingSentence, turningSentence, verdictWords } from '../../core/acclimation/sentences'
import type { School } from '../../core/acclimation/schools'
import type { SpeciesLimits } from '../../core/acclimation/figures'
import { adviceFrom, allowedSchools, type Delivery, type DeliveryAdvice } from '../../core/bench/adviseDelivery'
import type { Limits } from '../../core/limits/houseLimits'
import type { DisplayUnits } from '../../core/units/units'
import { quantile } from '../../core/stats/quantile'

export interface JudgeAnswer {
  verdict: Verdict
  limits: SpeciesLimits
  /** What to do first, and by which school after it. */
  advice: DeliveryAdvice
  /** The recommendation for the water in the bag, and the rest of it. */
  sentence: string
  why: string
  /** Which reading to take; null while only the first answer stands. */
  reading: string | null
  readings: ReadingValue[]
  /** The opened bag as it is taken to be: 10th, 50th and 90th percentile of what readings would show. */
  bag: Record<ReadingKind, Spread>
  /** What would change the recommendation; null when nothing plausible would, or it is not known yet. */
  turning: string | null
}
export interface JudgeProgress {
  done: number
  of: number
  /** A new answer, when there is one. */
  answer: JudgeAnswer | null
}

/** A delivery to be judged, by which limits, with which schools, and how figures are shown. */
export interface Asked {
  delivery: Delivery
  limits: Limits
  schools: readonly School[]
  defaults: HouseDefaults
  units: DisplayUnits
}

export const firstDraws = 200
export const allDraws = 2000

/** Judges a delivery: a first answer from a few draws, the firm one from all, progress in between. */
export function answerQuestion({ delivery, limits, schools, defaults, units }: Asked, onProgress: (progress: JudgeProgress) => void): void {
  const { question } = delivery
  if (!question) return
  const allowed = allowedSchools(delivery, schools)
  const answer = (draws: number, isLast: boolean): JudgeAnswer => {
    const ensemble = drawEnsemble(question, limits, { draws, schools: allowed, onProgress: (done) => (onProgress({ done, of: allDraws, answer: null }), true) })
    const verdict = judge(ensemble, defaults)
    const recommended = verdict.schools.find(({ key }) => key === verdict.recommended)
    const remedy = isLast && verdict.equal.length === 0 && recommended ? bestRemedy(recommended, question, limits, allowed, units) : null
    const speciesLimits = ensemble.scene.limits
    const readings = isLast ? valueOfReadings(ensemble, verdict) : []
    return {
      ...{ verdict, limits: speciesLimits, readings, bag: bagOf(ensemble), ...verdictWords(verdict, question, speciesLimits, remedy, units) },
      advice: adviceFrom(delivery, ensemble, verdict, { limits, schools, defaults, units }, false),
      reading: isLast ? readingSentence(bestReading(readings)) : null,
      turning: isLast ? turningSentence(turningPoints(ensemble, verdict), verdict.schools, units) : null,
    }
  }
  onProgress({ done: firstDraws, of: allDraws, answer: answer(firstDraws, false) })
  onProgress({ done: allDraws, of: allDraws, answer: answer(allDraws, true) })
}

function bagOf({ bags }: Ensemble): Record<ReadingKind, Spread> {
  const spread = (kind: ReadingKind): Spread => {
    const values = bags.map(({ truth }) => truth[kind])
    return { low: quantile(values, 0.1), median: quantile(values, 0.5), high: quantile(values, 0.9) }
  }
  return Object.fromEntries(readingKinds.map((kind) => [kind, spread(kind)])) as Record<ReadingKind, Spread>
}
