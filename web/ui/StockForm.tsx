import { useState } from 'react'
import type { StockChanged } from '../../core/stock/stock.schema'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from './Button'
import { TextField } from './Field'

const whys: readonly { why: StockChanged; label: string }[] = [
  { why: 'bought', label: 'came in' },
  { why: 'counted', label: 'are there' },
  { why: 'thrown away', label: 'thrown away' },
]

/**
 * Counts things that lie in the house, or says that some came in or were thrown away.
 * @param called - what one counts, in the plural: "cubes of mysis".
 */
export function StockForm({ called, onChange }: { called: string; onChange: (change: { why: StockChanged; pieces: number }) => Promise<unknown> }) {
  const [typed, setTyped] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const send = (why: StockChanged): void => {
    if (!/^\d{1,6}$/.test(typed.trim())) return setProblem('How many? A whole number')
    setProblem(null)
    void onChange({ why, pieces: Number(typed) }).then(() => setTyped(''), (error: unknown) => setProblem(sentenceOf(error)))
  }
  return (
    <div className="entry-form">
      <TextField label={`How many ${called}`} inputMode="numeric" size="hand" value={typed} onChange={setTyped} problem={problem} />
      <div className="button-row">
        {whys.map(({ why, label }) => (
          <Button key={why} size="hand" onClick={() => send(why)}>
            {label}
          </Button>
        ))}
      </div>
    </div>
  )
}
