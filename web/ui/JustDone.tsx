import { useState } from 'react'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from './Button'
import { Problem } from './Notice'

/** Something that was recorded, and by what it is taken back. */
export interface Done {
  words: string
  movementId: string
}

/** What was recorded here just now, and the way back. */
export function JustDone({ done, onBack }: { done: readonly Done[]; onBack: (last: Done) => Promise<unknown> }) {
  const [problem, setProblem] = useState<string | null>(null)
  const last = done.at(-1)
  if (!last) return null
  const back = (): void => void onBack(last).then(() => setProblem(null), (error: unknown) => setProblem(sentenceOf(error)))
  return (
    <p className="just-done" role="status">
      <span>
        {last.words}
        {done.length > 1 ? `, the last of ${done.length}` : ''}. Recorded.
      </span>
      <Button onClick={back}>take it back</Button>
      <Problem>{problem}</Problem>
    </p>
  )
}
