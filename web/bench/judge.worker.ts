import { expose } from 'comlink'
import { methodCurves, type MethodCurves } from '../../core/acclimation/methodCurves'
import type { AcclimationQuestion, HouseDefaults } from '../../core/acclimation/question'
import type { School } from '../../core/acclimation/schools'
import type { Limits } from '../../core/limits/houseLimits'
import { answerQuestion, type JudgeProgress } from './answerQuestion'

// Away from the page, so that no touch waits for two thousand bags.
const api = {
  judge: (question: AcclimationQuestion, limits: Limits, schools: School[], defaults: HouseDefaults, onProgress: (progress: JudgeProgress) => void): void => answerQuestion(question, limits, schools, defaults, onProgress),
  curves: (school: School, question: AcclimationQuestion, limits: Limits): MethodCurves => methodCurves(school, question, limits),
}
export type JudgeApi = typeof api
expose(api)
