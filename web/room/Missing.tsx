import { useState } from 'react'
import { kindName } from '../../core/pools/poolsOf'
import type { MissingFish } from '../../core/room/roomView'
import { sentenceOf } from '../api/ApiProblem'
import { useRoomView } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { NumberChoice } from '../ui/NumberChoice'
import { Problem } from '../ui/Notice'
import { Sheet } from '../ui/Sheet'
import { TankOptions } from '../ui/TankOptions'

interface Props {
  missing: readonly MissingFish[]
  /** `tankId` where they turned up in another tank. */
  onFound: (missing: MissingFish, quantity: number, tankId: string | null) => Promise<unknown>
}

/** Fish that were written off without being seen dead: they may come out of the filter yet. */
export function Missing({ missing, onFound }: Props) {
  if (missing.length === 0) return null
  return (
    <ul className="missing" aria-label="Written off, not seen dead">
      {missing.map((each) => (
        <MissingKind key={`${each.speciesId} ${each.strain ?? ''}`} missing={each} onFound={onFound} />
      ))}
    </ul>
  )
}

function MissingKind({ missing, onFound }: { missing: MissingFish; onFound: Props['onFound'] }) {
  const [isOpen, setOpen] = useState(false)
  const [problem, setProblem] = useState<unknown>(null)
  const [tankId, setTankId] = useState('')
  const find = (quantity: number): void => void onFound(missing, quantity, tankId === '' ? null : tankId).then(() => setOpen(false), setProblem)
  return (
    <li>
      <span>
        {missing.quantity} {kindName(missing)} written off, not seen dead
      </span>
      <span>
        <Button onClick={() => (missing.quantity === 1 ? find(1) : setOpen(true))}>found again</Button>{' '}
        <Button look="quiet" onClick={() => setOpen(true)}>
          elsewhere …
        </Button>
      </span>
      {!isOpen && <Problem>{problem === null ? null : sentenceOf(problem)}</Problem>}
      <Sheet title={`${kindName(missing)} found again: how many?`} isOpen={isOpen} onClose={() => setOpen(false)}>
        <WhereFound tankId={tankId} onChange={setTankId} />
        <NumberChoice label="Number found" most={missing.quantity} onChoose={find} />
        <Problem>{problem === null ? null : sentenceOf(problem)}</Problem>
      </Sheet>
    </li>
  )
}

/** Where they turned up: here, unless somebody says otherwise. */
function WhereFound({ tankId, onChange }: { tankId: string; onChange: (tankId: string) => void }) {
  const { room } = useRoomView()
  return (
    <ChoiceField label="Where" value={tankId} onChange={onChange}>
      <option value="">here</option>
      <TankOptions tanks={room?.tanks ?? []} />
    </ChoiceField>
  )
}
