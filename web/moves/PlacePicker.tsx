import { useState } from 'react'
import { Link } from 'react-router'
import type { MoveChoice } from '../../core/moves/moveView'
import { useRoomView } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { InUnits } from '../ui/InUnits'
import { Sheet } from '../ui/Sheet'
import { groupBy } from '../../core/collections/groupBy'
import { standWord } from './useMoves'

interface Props {
  choices: readonly MoveChoice[] | null
  chosen: string | null
  onChoose: (stand: string) => void
  /** The racks as they stand, to touch the tank there; without it there is no such way. */
  rackTo?: string
}

const marks: Record<MoveChoice['verdict'], string> = { allow: 'free', warn: 'mind', lead: 'lead', impossible: 'no' }
const shown = 4

/** Where they go: the best places first, each with what speaks against it; the others behind one touch. */
export function PlacePicker({ choices, chosen, onChoose, rackTo }: Props) {
  const [isOpen, setOpen] = useState(false)
  const all = choices ?? []
  const best = all.filter(({ kind }) => kind === 'tank').slice(0, shown)
  const other = all.find((each) => standWord(each) === chosen && !best.includes(each))
  const choose = (stand: string): void => {
    onChoose(stand)
    setOpen(false)
  }
  return (
    <section className="place-picker" aria-label="Where to">
      <h3>To</h3>
      <div className="place-list" role="group" aria-label="Best places">
        {[...(other ? [other] : []), ...best].map((choice) => (
          <Place key={choice.id} choice={choice} isChosen={standWord(choice) === chosen} onChoose={choose} />
        ))}
      </div>
      <div className="entry-buttons">
        <Button size="hand" onClick={() => setOpen(true)}>
          another place …
        </Button>
        {rackTo && (
          <Link to={rackTo} className="btn btn-quiet">
            on the racks
          </Link>
        )}
      </div>
      <Sheet title="Where do they go?" isOpen={isOpen} onClose={() => setOpen(false)}>
        <AllPlaces all={all} onChoose={choose} />
      </Sheet>
    </section>
  )
}

function Place({ choice, isChosen, onChoose }: { choice: MoveChoice; isChosen: boolean; onChoose: (stand: string) => void }) {
  const { code, verdict, words, fish, label } = choice
  return (
    <Button size="hand" className={`place is-${verdict}`} aria-pressed={isChosen} onClick={() => onChoose(standWord(choice))}>
      <strong>{code}</strong>
      <small>{fish > 0 ? `${fish} ${label ?? 'fish'}` : (choice.kind === 'vessel' ? label : 'empty')}</small>
      {words && (
        <small className="place-words">
          <InUnits>{words}</InUnits>
        </small>
      )}
    </Button>
  )
}

/** Every place by rack, vessels last. */
function AllPlaces({ all, onChoose }: { all: readonly MoveChoice[]; onChoose: (stand: string) => void }) {
  const { room } = useRoomView()
  const rackOf = new Map((room?.tanks ?? []).map(({ id, rack }) => [id, rack]))
  const inRacks = [...all].sort((a, b) => (a.code < b.code ? -1 : 1))
  return (
    <>
      {[...groupBy(inRacks, ({ kind, id }) => (kind === 'vessel' ? 'Buckets and boxes' : `Rack ${rackOf.get(id) ?? ''}`))].map(([title, places]) => (
        <section key={title} className="all-places">
          <h4>{title}</h4>
          <div className="number-pad" role="group" aria-label={title}>
            {places.map((choice) => (
              <Button key={choice.id} size="hand" className={`place is-${choice.verdict}`} aria-label={`${choice.code}, ${marks[choice.verdict]}`} onClick={() => onChoose(standWord(choice))}>
                {choice.code} <small>{marks[choice.verdict]}</small>
              </Button>
            ))}
          </div>
        </section>
      ))}
    </>
  )
}
