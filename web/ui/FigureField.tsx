import type { DeskInput } from '../../core/desk/calculations'
import { ChoiceField, TextField } from './Field'
import { SalinityDoubtRow } from './SalinityDoubtRow'
import { readNumber, useUnits, type Units } from './useUnits'

/** What was typed, in base units: undefined when nothing, NaN when it is no figure. */
export function readDesk(field: Pick<DeskInput, 'quantity'>, typed: string, units: Units): number | undefined {
  if (typed.trim() === '') return undefined
  if (units.doubt(field.quantity, typed)) return NaN
  return field.quantity ? units.read(field.quantity, typed) : readNumber(typed)
}

/** A bound of a field in the unit people see. */
export const shownBound = (units: Units) => (field: Pick<DeskInput, 'quantity' | 'unit'>, base: number): string => (field.quantity ? units.show(field.quantity, base) : `${base.toLocaleString('en')} ${field.unit ?? ''}`.trim())

interface Props {
  field: DeskInput
  value: string
  problem: string | null
  size?: 'hand'
  onChange: (value: string) => void
}

/** One figure or choice of a calculation; what was typed stays, whatever is wrong with it. */
export function FigureField({ field, value, problem, size, onChange }: Props) {
  const units = useUnits()
  const doubt = units.doubt(field.quantity, value)
  const shared = { label: field.label, unit: field.quantity ? units.label(field.quantity) : field.unit, hint: field.hint, isOptional: field.isOptional, problem: doubt ? null : problem, value, onChange, size }
  if (field.options) {
    return (
      <ChoiceField {...shared}>
        {field.options.map((option) => (
          <option key={option}>{option}</option>
        ))}
      </ChoiceField>
    )
  }
  return <TextField {...shared} inputMode="decimal" below={doubt && <SalinityDoubtRow doubt={doubt} onTake={(ppt) => onChange(`${ppt} ppt`)} />} />
}
