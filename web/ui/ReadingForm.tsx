import { useState } from 'react'
import { badgeSteps, readingKinds, readingNames, showReading, type ReadingKind } from '../../core/room/glass.schema'
import { errorsByField, sentenceOf } from '../api/ApiProblem'
import { Button } from './Button'
import { ChoiceField } from './Field'
import { FigureField, readDesk } from './FigureField'
import { readingInput } from './readingInput'
import { ReadingOptions } from './ReadingOptions'
import { useUnits } from './useUnits'

/** Asks for one figure read at a tank, in the units of the room. */
export function ReadingForm({ onKeep }: { onKeep: (what: ReadingKind, value: number, words: string) => Promise<unknown> }) {
  const units = useUnits()
  const [what, setWhat] = useState<ReadingKind>('tempC')
  const [typed, setTyped] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const field = readingInput(what, 'Reading')
  const keep = (): void => {
    const value = readDesk(field, typed, units)
    if (value === undefined || Number.isNaN(value)) return setProblem('Reading must be a number')
    void onKeep(what, value, `${readingKinds[what].label} ${showReading(what, value, units.display)}`).catch((error: unknown) => setProblem(errorsByField(error)?.value ?? sentenceOf(error)))
  }
  return (
    <>
      <ChoiceField label="What was read" value={what} onChange={(next) => setWhat(readingNames.find((each) => each === next) ?? 'tempC')}>
        <ReadingOptions />
      </ChoiceField>
      {what === 'freeAmmoniaMgL' && (
        <div className="badge-steps" role="group" aria-label="Step of the badge">
          {badgeSteps.map((step) => (
            <Button key={step} size="hand" aria-pressed={typed === String(step)} onClick={() => (setProblem(null), setTyped(String(step)))}>
              {step}
            </Button>
          ))}
        </div>
      )}
      <FigureField field={field} size="hand" value={typed} problem={problem} onChange={(value) => (setProblem(null), setTyped(value))} />
      <Button look="act" size="hand" disabled={typed.trim() === ''} onClick={keep}>
        keep it
      </Button>
    </>
  )
}
