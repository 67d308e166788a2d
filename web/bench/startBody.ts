import { schoolFor } from '../../core/acclimation/judge'
import type { AcclimationQuestion } from '../../core/acclimation/question'
import type { School } from '../../core/acclimation/schools'
import { planRun } from '../../core/bench/planRun'
import { mostLitres, vesselFor } from '../../core/bench/runPlan'
import type { Limits } from '../../core/limits/houseLimits'
import { figureInputs, wordInputs, type BagFigures, type BagWords } from '../../core/bench/bagFigures'
import type { BenchSubject } from '../../core/bench/benchView'
import type { StartRun } from '../../core/bench/bench.schema'

/** What stands in the request whichever kind of run is begun. */
export function startBody(subject: BenchSubject, figures: BagFigures, words: BagWords): Pick<StartRun, 'sources' | 'figures' | 'words' | 'tankId'> {
  return {
    sources: subject.sources.map(({ placeId, lotId, quantity, isOfKind = false }) => ({ placeId, lotId, quantity, ...(isOfKind ? { isOfKind } : {}) })),
    figures: Object.fromEntries(figureInputs.map(({ name }) => [name, figures[name] ?? null])),
    words: Object.fromEntries(wordInputs.map(({ name, options = [] }) => [name, words[name] ?? options[0] ?? ''])),
    tankId: subject.tank?.id ?? null,
  }
}

/** Vessel that a school usually takes, L, and whether it takes one at all. */
export function usualVessel(school: School, question: AcclimationQuestion, limits: Limits, isPooled: boolean): { usualL: number; usesVessel: boolean } {
  const plan = planRun(school, { question, limits, to: '', tankL: null, isPooled, dropsPerMl: 20 })
  return { usualL: vesselFor(mostLitres(question.bag.waterL, plan)), usesVessel: plan.some(({ fish }) => fish === 'vessel') }
}

/** A school as it is advised or chosen for a delivery. */
export const schoolInHand = (schools: readonly School[], key: string | null, variant: School['variant'] | null, question: AcclimationQuestion | null, limits: Limits): School | null => {
  const school = schools.find((each) => each.key === key)
  return school && question ? schoolFor(school, variant ?? null, question, limits) : null
}
