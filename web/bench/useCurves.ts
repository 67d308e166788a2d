import { wrap } from 'comlink'
import { useEffect, useState } from 'react'
import type { MethodCurves } from '../../core/acclimation/methodCurves'
import type { AcclimationQuestion } from '../../core/acclimation/question'
import type { School } from '../../core/acclimation/schools'
import type { Limits } from '../../core/limits/houseLimits'
import { useStable } from '../ui/useStable'
import type { JudgeApi } from './judge.worker'

/** Curves of one school on a delivery, reckoned in a worker of their own; null until they are there. */
export function useCurves(school: School | null, question: AcclimationQuestion | null, limits: Limits): MethodCurves | null {
  const asked = useStable(school && question ? { school, question, limits } : null)
  const [found, setFound] = useState<{ asked: object; curves: MethodCurves } | null>(null)
  useEffect(() => {
    if (!asked) return
    const worker = new Worker(new URL('./judge.worker.ts', import.meta.url), { type: 'module' })
    void wrap<JudgeApi>(worker)
      .curves(asked.school, asked.question, asked.limits)
      .then((curves) => setFound({ asked, curves }))
      // Without curves the verdict stands all the same.
      .catch(() => undefined)
      .finally(() => worker.terminate())
    return () => worker.terminate()
  }, [asked])
  return asked !== null && found?.asked === asked ? found.curves : null
}
