import { useCallback, useEffect, useRef, useState } from 'react'
import { addressOf } from '../../core/commands/declare'
import { deliveryApi } from '../../core/crates/crates.api'
import type { ChoiceProgress } from '../../core/tankChoice/tankChoice'
import { sentenceOf, ApiProblem } from '../api/ApiProblem'

/** Has the server search for tanks; answers come better and better until it is proven, the time is up, or it is ended. */
export function useTankSearch(crateId: string) {
  const running = useRef<AbortController | null>(null)
  const [answer, setAnswer] = useState<ChoiceProgress | null>(null)
  const [isRunning, setRunning] = useState(false)
  const [problem, setProblem] = useState<string | null>(null)
  const cancel = useCallback((): void => {
    running.current?.abort()
    running.current = null
    setRunning(false)
  }, [])
  useEffect(() => cancel, [cancel])

  const search = async (onAnswer: (answer: ChoiceProgress) => void): Promise<void> => {
    cancel()
    const own = new AbortController()
    running.current = own
    setRunning(true)
    setProblem(null)
    setAnswer(null)
    try {
      let isDone = false
      for await (const each of answersOf(crateId, own.signal)) {
        isDone = each.isDone
        setAnswer(each)
        onAnswer(each)
      }
      if (!isDone) setProblem('The search broke off before it was done; try again')
    } catch (error) {
      if (!own.signal.aborted) setProblem(error instanceof ApiProblem ? sentenceOf(error) : 'The search broke off; try again')
    }
    if (running.current === own) cancel()
  }
  return { answer, isRunning, problem, search, cancel }
}

async function* answersOf(crateId: string, signal: AbortSignal): AsyncGenerator<ChoiceProgress> {
  const response = await fetch(addressOf(deliveryApi.searchTanks, { crateId }), { credentials: 'same-origin', signal })
  if (!response.ok || !response.body) throw new ApiProblem(await response.json())
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader()
  let rest = ''
  for (;;) {
    const { done, value } = await reader.read()
    if (done) return
    const lines = (rest + value).split('\n')
    rest = lines.pop() ?? ''
    for (const line of lines) yield JSON.parse(line) as ChoiceProgress
  }
}
