import { useState } from 'react'
import { Form } from 'react-bootstrap'
import type { Quantity } from '../../core/units/units'
import { Field } from './Field'
import { SalinityDoubtRow } from './SalinityDoubtRow'
import { readNumber, useUnits, type Units } from './useUnits'

interface Props {
  label: string
  /** Its unit is the room's choice; left out for a figure that has one unit only. */
  quantity?: Quantity
  unit?: string
  /** In base units, as `min` and `max` are. */
  value: number | null
  min: number
  max: number
  onChange: (value: number | null) => void
}

/** One optional measured figure in the room's unit. A figure outside the range is said at once and not taken, nor is a salinity on a doubtful scale. */
export function ReadingField({ label, quantity, unit = '', value, min, max, onChange }: Props) {
  const units = useUnits()
  const [text, setText] = useState<string | null>(null)
  const figure = (base: number): string => plain(quantity ? units.figure(quantity, base) : String(base))
  const shown = text ?? (value === null ? '' : figure(value))
  const unitWord = quantity ? units.label(quantity) : unit
  const read = (typed: string): number | null => readWithin(units, quantity, typed, min, max)
  const doubtOf = (typed: string) => units.doubt(quantity, typed)
  // What was answered is no longer text in hand.
  const doubt = text === null ? null : doubtOf(text)
  const problem = text !== null && text.trim() !== '' && read(text) === null && !doubt ? `${figure(min)} to ${figure(max)} ${unitWord}` : null
  const type = (typed: string): void => {
    setText(typed)
    onChange(doubtOf(typed) ? null : read(typed))
  }
  const below = doubt && (
    <SalinityDoubtRow
      doubt={doubt}
      onTake={(ppt) => {
        setText(null)
        onChange(ppt)
      }}
    />
  )
  return (
    <Field label={label} unit={unitWord} size="hand" problem={problem} below={below}>
      {(tied) => <Form.Control inputMode="decimal" autoComplete="off" placeholder="–" {...tied} aria-invalid={problem !== null || doubt !== null} value={shown} onChange={(event) => type(event.currentTarget.value)} onBlur={() => problem === null && doubt === null && setText(null)} />}
    </Field>
  )
}

/** A figure as it is typed. */
const plain = (figure: string): string => figure.replace('−', '-').replace(/\.0$/, '')

function readWithin(units: Units, quantity: Quantity | undefined, typed: string, min: number, max: number): number | null {
  const base = quantity ? units.read(quantity, typed) : readNumber(typed)
  return Number.isFinite(base) && base >= min && base <= max ? base : null
}
