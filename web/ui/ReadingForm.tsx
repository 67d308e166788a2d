import { useState } from 'react'
import { copperKits } from '../../core/dosing/agents'
import { badgeSteps, readingKinds, readingNames, showReading, type ReadingKind } from '../../core/room/glass.schema'
import { errorsByField, sentenceOf } from '../api/ApiProblem'
import { Button } from './Button'
import { ChoiceField } from './Field'
import { FigureField, readDesk } from './FigureField'
import { readingInput } from './readingInput'
import { ReadingOptions } from './ReadingOptions'
import { useUnits } from './useUnits'

/** Asks for one figure read at a tank, in the units of the room. */
export function ReadingForm({ onKeep }: { onKeep: (what: ReadingKind, value: number, words: string, instrument: string | null) => Promise<unknown> }) {
  const units = useUnits()
  const [what, setWhat] = useState<ReadingKind>('tempC')
  const [typed, setTyped] = useState('')
  const [kit, setKit] = useState<string | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const field = readingInput(what, 'Reading')
  const keep = (): void => {
    const value = readDesk(field, typed, units)
    if (value === undefined || Number.isNaN(value)) return setProblem('Reading must be a number')
    if (what === 'copperMgL' && kit === null) return setProblem('Say with which kit: one does not read the other’s copper')
    void onKeep(what, value, `${readingKinds[what].label} ${showReading(what, value, units.display)}`, what === 'copperMgL' ? kit : null).catch((error: unknown) => setProblem(errorsByField(error)?.value ?? sentenceOf(error)))
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
      {what === 'copperMgL' && (
        <div className="entry-buttons" role="group" aria-label="Read with">
          {copperKits.map((each) => (
            <Button key={each} size="hand" aria-pressed={kit === each} onClick={() => (setProblem(null), setKit(each))}>
              {each}
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
