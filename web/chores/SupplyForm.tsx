import { useState } from 'react'
import type { ChangeSupplies } from '../../core/chores/chores.schema'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { useChoreWrites } from './useChores'

const whys: readonly { why: ChangeSupplies['why']; label: string }[] = [
  { why: 'bought', label: 'came in' },
  { why: 'counted', label: 'are there' },
  { why: 'thrown away', label: 'thrown away' },
]

/** Counts a consumable, or says that some came in. */
export function SupplyForm({ item }: { item: string }) {
  const { changeSupplies } = useChoreWrites()
  const [typed, setTyped] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const send = (why: ChangeSupplies['why']): void => {
    if (!/^\d{1,6}$/.test(typed.trim())) return setProblem('How many? A whole number')
    setProblem(null)
    void changeSupplies({ item, why, pieces: Number(typed) }).then(() => setTyped(''), (error: unknown) => setProblem(sentenceOf(error)))
  }
  return (
    <div className="entry-form">
      <TextField label={`How many ${item}`} inputMode="numeric" size="hand" value={typed} onChange={setTyped} problem={problem} />
      <div className="supply-forms">
        {whys.map(({ why, label }) => (
          <Button key={why} size="hand" onClick={() => send(why)}>
            {label}
          </Button>
        ))}
      </div>
    </div>
  )
}
