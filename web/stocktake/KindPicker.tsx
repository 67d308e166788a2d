import { useState } from 'react'
import type { Water } from '../../core/room/room.schema'
import { kindsByLetters } from '../../core/stocktake/kindsByLetters'
import type { KindName } from '../../core/stocktake/stocktakeView'
import { nameKey } from '../../core/words/nameKey'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'

interface Props {
  known: readonly KindName[]
  water: Water
  /** Kinds that are likely: offered before anything is typed. */
  recent: readonly string[]
  onChoose: (species: string) => void
}

/** A kind of fish by one touch where it was just met, else by a few letters; one that nobody knows is taken as it is written. */
export function KindPicker({ known, water, recent, onChoose }: Props) {
  const [letters, setLetters] = useState('')
  const found = letters.trim() === '' ? recent : kindsByLetters(known, letters, water, 10)
  // A kind under another of its names is that kind, and not a second one in the same tank.
  const isNew = letters.trim().length > 2 && !known.some(({ name, otherNames }) => [name, ...otherNames.split(',')].some((each) => nameKey(each) === nameKey(letters)))
  const choose = (species: string): void => {
    setLetters('')
    onChoose(species)
  }
  return (
    <div className="kind-picker">
      <TextField label="Kind of fish, by a few letters" autoComplete="off" size="hand" maxLength={80} value={letters} onChange={setLetters} />
      <div className="kind-choice" role="group" aria-label="Kinds">
        {found.map((name) => (
          <Button key={name} size="hand" onClick={() => choose(name)}>
            {name}
          </Button>
        ))}
        {isNew && (
          <Button size="hand" className="is-new" onClick={() => choose(letters.trim())}>
            new kind: {letters.trim()}
          </Button>
        )}
      </div>
    </div>
  )
}
