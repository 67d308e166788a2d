import { proxy, wrap } from 'comlink'
import { startTransition, useCallback, useEffect, useRef, useState } from 'react'
import { useStable } from '../ui/useStable'
import { useUnits } from '../ui/useUnits'
import type { Asked, JudgeAnswer, JudgeProgress } from './answerQuestion'
import type { JudgeApi } from './judge.worker'

/** Judges a delivery in a worker; a new question, or leaving the page, ends the one before. */
export function useJudgement() {
  const units = useStable(useUnits().display)
  const worker = useRef<Worker | null>(null)
  const [answer, setAnswer] = useState<JudgeAnswer | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const [progress, setProgress] = useState<{ done: number; of: number } | null>(null)
  const [isAsked, setAsked] = useState(false)
  const cancel = useCallback((): void => {
    worker.current?.terminate()
    worker.current = null
    setProgress(null)
  }, [])
  useEffect(() => cancel, [cancel])

  const ask = useCallback((asked: Omit<Asked, 'units'>): void => {
    cancel()
    setAnswer(null)
    setProblem(null)
    setProgress({ done: 0, of: 1 })
    setAsked(true)
    const own = new Worker(new URL('./judge.worker.ts', import.meta.url), { type: 'module' })
    worker.current = own
    const onProgress = ({ done, of, answer: next }: JudgeProgress): void => {
      if (worker.current !== own) return
      setProgress({ done, of })
      // Drawn between touches, not before the next of them.
      if (next) startTransition(() => setAnswer(next))
    }
    void wrap<JudgeApi>(own)
      .judge({ ...asked, units }, proxy(onProgress))
      .then(() => worker.current === own && cancel())
      .catch(() => {
        if (worker.current !== own) return
        cancel()
        setProblem('The schools cannot be compared for these figures. Any of them can still be begun; judge by temperature and salinity, and by the fish.')
      })
  }, [cancel, units])
  return { answer, problem, progress, /** Nothing answered yet, and nobody said that it is enough. */ isWaiting: !answer && (progress !== null || !isAsked), ask, cancel }
}
