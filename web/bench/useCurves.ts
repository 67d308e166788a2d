import { wrap } from 'comlink'
import { useEffect, useState } from 'react'
import type { MethodCurves } from '../../core/acclimation/methodCurves'
import type { AcclimationQuestion } from '../../core/acclimation/question'
import type { School } from '../../core/acclimation/schools'
import type { Limits } from '../../core/limits/houseLimits'
import type { JudgeApi } from './judge.worker'

/** Curves of one school on a delivery, reckoned in a worker of their own; null until they are there. */
export function useCurves(school: School | null, question: AcclimationQuestion | null, limits: Limits): MethodCurves | null {
  const [found, setFound] = useState<{ stamp: string; curves: MethodCurves } | null>(null)
  const stamp = school && question ? JSON.stringify([school.key, question, limits]) : ''
  useEffect(() => {
    if (!school || !question) return
    const worker = new Worker(new URL('./judge.worker.ts', import.meta.url), { type: 'module' })
    void wrap<JudgeApi>(worker)
      .curves(school, question, limits)
      .then((curves) => setFound({ stamp, curves }))
      // Without curves the verdict stands all the same.
      .catch(() => undefined)
      .finally(() => worker.terminate())
    return () => worker.terminate()
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the stamp stands for all three
  }, [stamp])
  return found?.stamp === stamp ? found.curves : null
}
