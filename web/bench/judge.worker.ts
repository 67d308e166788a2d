import { expose } from 'comlink'
import { methodCurves, type MethodCurves } from '../../core/acclimation/methodCurves'
import type { AcclimationQuestion, HouseDefaults } from '../../core/acclimation/question'
import type { School } from '../../core/acclimation/schools'
import type { Limits } from '../../core/limits/houseLimits'
import type { DisplayUnits } from '../../core/units/units'
import { answerQuestion, type JudgeProgress } from './answerQuestion'

// Away from the page, so that no touch waits for two thousand bags.
const api = {
  judge: (question: AcclimationQuestion, limits: Limits, schools: School[], defaults: HouseDefaults, units: DisplayUnits, onProgress: (progress: JudgeProgress) => void): void => answerQuestion({ question, limits, schools, defaults, units }, onProgress),
  curves: (school: School, question: AcclimationQuestion, limits: Limits): MethodCurves => methodCurves(school, question, limits),
}
export type JudgeApi = typeof api
expose(api)
