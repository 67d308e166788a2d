import { registers, type RegisterField as Field } from '../../core/setup/registers'
import { useRegister } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { ChoiceField, TextField } from '../ui/Field'
import { SalinityDoubtRow } from '../ui/SalinityDoubtRow'
import { useUnits } from '../ui/useUnits'
import { unitOf } from './registerForm'

interface Props {
  field: Field
  value: string | string[]
  problem: string | null
  onChange: (value: string | string[]) => void
}

/** One field of a row, as its description asks: a line, a figure with its unit, a choice, several choices. */
export function RegisterField({ field, value, problem, onChange }: Props) {
  const units = useUnits()
  const unit = unitOf(field, units)
  if (field.kind === 'choices') return <Choices field={field} chosen={Array.isArray(value) ? value : []} onChange={onChange} />
  const text = Array.isArray(value) ? '' : value
  const doubt = field.kind === 'measure' ? units.doubt(field.quantity, text) : null
  const shared = { label: field.label, unit, hint: field.hint, problem: doubt ? null : problem, value: text, onChange }
  if (field.kind === 'choice' || field.kind === 'reference') {
    return (
      <ChoiceField {...shared}>
        <option value="">{field.isRequired ? 'choose' : 'not said'}</option>
        {field.kind === 'choice' ? field.options.map((option) => <option key={option}>{option}</option>) : <References register={field.register} kept={text} />}
      </ChoiceField>
    )
  }
  return (
    <TextField
      {...shared}
      rows={field.kind === 'text' && field.max > 200 ? 2 : undefined}
      inputMode={field.kind === 'text' ? undefined : field.kind === 'whole' ? 'numeric' : 'decimal'}
      below={doubt && <SalinityDoubtRow doubt={doubt} onTake={(ppt) => onChange(`${ppt} ppt`)} />}
    />
  )
}

/** Rows in use, and the one that is chosen even if it was retired since. */
function References({ register, kept }: { register: Extract<Field, { kind: 'reference' }>['register']; kept: string }) {
  const { rows = [] } = useRegister(register)
  return rows
    .filter((row) => row.retiredAtMs === null || row.id === kept)
    .map((row) => (
      <option key={row.id} value={row.id}>
        {String(row.values[registers[register].key])}
      </option>
    ))
}

function Choices({ field, chosen, onChange }: { field: Extract<Field, { kind: 'choices' }>; chosen: string[]; onChange: (value: string[]) => void }) {
  return (
    <fieldset className="field choices">
      <legend className="form-label">
        {field.label} {field.hint && <small>{field.hint}</small>}
      </legend>
      {field.options.map((option) => (
        <Button key={option} look="bare" className="choice" aria-pressed={chosen.includes(option)} onClick={() => onChange(chosen.includes(option) ? chosen.filter((each) => each !== option) : [...chosen, option])}>
          {option}
        </Button>
      ))}
    </fieldset>
  )
}
