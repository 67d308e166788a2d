import type { CatchView } from '../../core/moves/moveView'
import { catchWords, gearWords, tipWords } from '../../core/moves/catchWords'
import { Button } from '../ui/Button'

interface Props {
  cards: readonly CatchView[]
  onLift: () => void
  onUndo: (liftId: string) => void
}

/** With what to catch, how much to expect, and how often was lifted: the tank learns. */
export function CatchCards({ cards, onLift, onUndo }: Props) {
  const [first] = cards
  if (!first) return null
  const last = first.liftIds.at(-1)
  return (
    <section className="catch" aria-label="Catching">
      <h3>Catch</h3>
      <ul>
        {cards.map((card) => (
          <li key={card.species}>
            <p>
              <strong>{gearWords(card)}</strong>
              {cards.length > 1 && <small> for {card.species}</small>}
            </p>
            <p className={card.verdict === 'go' ? undefined : 'is-watch'}>{catchWords(card, card.want)}</p>
            <p className="catch-tips">{tipWords(card).slice(0, 3).join(' ')}</p>
            {(tipWords(card).length > 3 || card.unknown.length > 0) && (
              <details>
                <summary>more to mind</summary>
                <p>{tipWords(card).slice(3).join(' ')}</p>
                {card.unknown.length > 0 && <p className="aside-word">Not known, and not reckoned with: {card.unknown.join(', ')}.</p>}
              </details>
            )}
          </li>
        ))}
      </ul>
      <div className="catch-lifts">
        <Button size="hand" onClick={onLift}>
          lifted <small>{first.liftsToday} today, {first.liftsLeft} left</small>
        </Button>
        {last !== undefined && (
          <Button look="quiet" onClick={() => onUndo(last)}>
            take the last lift back
          </Button>
        )}
      </div>
    </section>
  )
}
