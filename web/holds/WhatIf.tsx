import { useState } from 'react'
import { useRoomView } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { TankOptions } from '../ui/TankOptions'
import { useWhatIf, type Supposed } from './useHolds'

/** What new fish, or a sign, in a tank would mean today. Nothing is written. */
export function WhatIf() {
  const { room } = useRoomView()
  const [tankId, setTank] = useState('')
  const [what, setWhat] = useState<Supposed>('fish')
  const answer = useWhatIf(tankId === '' ? null : { what, tankId })
  return (
    <details className="hold-lately">
      <summary>What if</summary>
      <div className="field-row">
        <ChoiceField label="In tank" size="hand" value={tankId} onChange={setTank}>
          <option value="">which tank</option>
          <TankOptions tanks={room?.tanks ?? []} />
        </ChoiceField>
        <div className="entry-buttons" role="group" aria-label="What is supposed">
          <Button size="hand" aria-pressed={what === 'fish'} onClick={() => setWhat('fish')}>
            new fish come
          </Button>
          <Button size="hand" aria-pressed={what === 'sign'} onClick={() => setWhat('sign')}>
            a sign is confirmed
          </Button>
        </div>
      </div>
      {answer && (
        <ul className="hold-consequences" role="status">
          {answer.words.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      )}
    </details>
  )
}
