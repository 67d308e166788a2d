import { useState } from 'react'
import { sentenceOf } from '../api/ApiProblem'
import { Button, ButtonLink } from './Button'
import { Problem } from './Notice'

/** Something that was recorded, and by what it is taken back. */
export interface Done {
  words: string
  movementId: string
  /** Where it was a contact and no movement. */
  contactId?: string
  fightId?: string
  /** Whether all that was recorded in the same touch is taken back with it. */
  isWhole?: boolean
  /** The card that goes along with fish that left. */
  cardTo?: string
}

/** What was recorded here just now, and the way back. */
export function JustDone({ done, onBack }: { done: readonly Done[]; onBack: (last: Done) => Promise<unknown> }) {
  const [problem, setProblem] = useState<string | null>(null)
  // Whoever presses twice takes two back, not one of them twice.
  const [going, setGoing] = useState<readonly Done[]>([])
  const left = done.filter((each) => !going.includes(each))
  const last = left.at(-1)
  if (!last) return null
  const back = (): void => {
    setGoing([...going, last])
    void onBack(last)
      .then(() => setProblem(null), (error: unknown) => setProblem(sentenceOf(error)))
      .finally(() => setGoing((all) => all.filter((each) => each !== last)))
  }
  return (
    <p className="just-done" role="status">
      <span>
        {last.words}
        {left.length > 1 ? `, the last of ${left.length}` : ''}. Recorded.
      </span>
      <Button onClick={back}>take it back</Button>
      {last.cardTo && <ButtonLink to={last.cardTo}>take-along card</ButtonLink>}
      <Problem>{problem}</Problem>
    </p>
  )
}
