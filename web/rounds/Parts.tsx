import { useState } from 'react'
import type { RoundView } from '../../core/rounds/roundView'
import { sentenceOf } from '../api/ApiProblem'
import { Button, ButtonLink } from '../ui/Button'
import { plural } from '../ui/format'
import { Problem } from '../ui/Notice'
import { useRoundWrites } from './useRound'

/** What is left of each part, with the tank it begins at. */
function partsOf({ people, stops }: RoundView): { part: number; left: number; from: string }[] {
  return Array.from({ length: people }, (_, index) => {
    const open = stops.filter((stop) => stop.part === index + 1 && stop.check === null)
    return { part: index + 1, left: open.length, from: open[0]?.code ?? '' }
  })
}

/** How many walk it: what is unchecked is shared out anew. */
export function ShareOut({ round }: { round: RoundView }) {
  const { splitRound } = useRoundWrites()
  const [problem, setProblem] = useState<string | null>(null)
  return (
    <div className="share-out" role="group" aria-label="Walked by">
      <span>walked by</span>
      {[1, 2, 3, 4].map((people) => (
        <Button key={people} aria-pressed={round.people === people} onClick={() => void splitRound(round.id, people).then(() => setProblem(null), (error: unknown) => setProblem(sentenceOf(error)))}>
          {people === 1 ? 'one' : people}
        </Button>
      ))}
      <Problem>{problem}</Problem>
    </div>
  )
}

interface PartProps {
  round: RoundView
  part: number | null
  onTake: (part: number) => void
}

/** Which part of a shared round is walked on this device: asked once, and told from then on. */
export function Shared({ round, part, onTake }: PartProps) {
  if (round.people === 1 || round.closed) return null
  if (part !== null) {
    const own = partsOf(round)[part - 1]
    return (
      <p className="aside-word">
        Part {part} of {round.people}: {plural(own?.left ?? 0, 'tank')} left.
      </p>
    )
  }
  return (
    <div className="whose" role="group" aria-label="Which part do you walk?">
      <p>The round is shared out. Which part do you walk?</p>
      {partsOf(round).map((each) => (
        <Button key={each.part} size="hand" disabled={each.left === 0} onClick={() => onTake(each.part)}>
          part {each.part}
          <small>{each.left > 0 ? `${plural(each.left, 'tank')} from ${each.from}` : 'done'}</small>
        </Button>
      ))}
    </div>
  )
}

/** This part is walked; others may not be. */
export function PartDone({ round, part, onTake, onBack }: PartProps & { onBack?: () => void }) {
  const others = partsOf(round).filter(({ part: other, left }) => other !== part && left > 0)
  return (
    <div className="round-done">
      <h2>Part {part} is checked.</h2>
      <p>Left: {others.map((each) => `${plural(each.left, 'tank')} of part ${each.part}`).join(', ')}.</p>
      {others.map((each) => (
        <Button key={each.part} size="hand" onClick={() => onTake(each.part)}>
          walk part {each.part} too
          <small>from {each.from}</small>
        </Button>
      ))}
      <div className="thumb-bar">
        <Button size="hand" className="undo" disabled={!onBack} onClick={onBack}>
          back
        </Button>
        <ButtonLink look="act" size="hand" to="/room">
          <strong>To the room</strong>
        </ButtonLink>
      </div>
    </div>
  )
}
