import { useState } from 'react'
import { Form } from 'react-bootstrap'
import type { BagWater } from '../../core/bench/waterOfBag'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { SalinityDoubtRow } from '../ui/SalinityDoubtRow'
import { useUnits } from '../ui/useUnits'

/** What a supplier may say of the water, by the class it then counts as. */
const toldWaters = [['fresh', 'hard'], ['brackish', 'brackish'], ['sea water', 'marine']] as const

interface Props {
  water: BagWater
  /** Salinity as it is typed into the figures. */
  onRead: (typed: string) => void
  onTold: (waterClass: string) => void
}

/** Nothing is advised before it is known which water the bags hold: the field for it has the focus. */
export function AskWater({ water, onRead, onTold }: Props) {
  const units = useUnits()
  const [typed, setTyped] = useState('')
  const doubt = units.doubt('salinity', typed)
  const ppt = units.read('salinity', typed)
  const isRead = doubt === null && ppt >= 0 && ppt <= 40
  const problem = typed.trim() === '' || doubt || isRead ? null : `A salinity between ${units.figure('salinity', 0)} and ${units.show('salinity', 40)}`
  return (
    <section className="ask-water" aria-label="Which water is in the bags">
      <h2>Which water is in the bags?</h2>
      <p>{water.why}</p>
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          if (isRead) onRead(typed)
        }}
      >
        <TextField label="The bag reads" unit={units.label('salinity')} problem={problem} below={doubt && <SalinityDoubtRow doubt={doubt} onTake={(taken) => onRead(`${taken} ppt`)} />} autoFocus inputMode="decimal" value={typed} onChange={setTyped} />
        <Button type="submit" look="act" disabled={!isRead}>
          Compare with this
        </Button>
      </Form>
      <div className="entry-buttons" role="group" aria-label="The supplier says">
        <span>or the supplier says:</span>
        {toldWaters.map(([word, waterClass]) => (
          <Button key={word} onClick={() => onTold(waterClass)}>
            {word}
          </Button>
        ))}
      </div>
    </section>
  )
}
