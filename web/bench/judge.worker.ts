import { expose } from 'comlink'
import { methodCurves, type MethodCurves } from '../../core/acclimation/methodCurves'
import type { AcclimationQuestion } from '../../core/acclimation/question'
import type { School } from '../../core/acclimation/schools'
import type { Limits } from '../../core/limits/houseLimits'
import { answerQuestion, type Asked, type JudgeProgress } from './answerQuestion'

// Away from the page, so that no touch waits for two thousand bags.
const api = {
  judge: (asked: Asked, onProgress: (progress: JudgeProgress) => void): void => answerQuestion(asked, onProgress),
  curves: (school: School, question: AcclimationQuestion, limits: Limits): MethodCurves => methodCurves(school, question, limits),
}
export type JudgeApi = typeof api
expose(api)
