import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { useParams } from 'react-router'
import { emptyValues } from '../../core/setup/registerCsv'
import { isRegisterName, registers, type FieldGroup, type RegisterField as Field, type RegisterName, type RegisterRow, type RegisterValues } from '../../core/setup/registers'
import { ApiProblem, errorsByField, sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { useRegister } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { StaleChoice } from '../ui/StaleChoice'
import { useBack } from '../ui/useBack'
import { useGoOn } from '../ui/useGoOn'
import { useUnits, type Units } from '../ui/useUnits'
import { RegisterField } from './RegisterField'
import { fromInputs, toInputs, unitOf, type Inputs } from './registerForm'
import { useReferenceNames } from './useReferenceNames'
import { useRegisterWrites } from './useSetup'
import './setup.css'
import './species.css'

/** One row of a list: look, change, retire, bring back. */
export function RegisterRowPage() {
  const { register = '', id = '' } = useParams()
  if (!isRegisterName(register)) return <Nothing>There is no such list.</Nothing>
  return <KnownRow key={`${register} ${id}`} register={register} id={id} />
}

function KnownRow({ register, id }: { register: RegisterName; id: string }) {
  const { rows, problem } = useRegister(register)
  const isNew = id === 'new'
  const row = rows?.find((each) => each.id === id)
  if (!rows) return problem ? <Trouble problem={problem} /> : <Waiting what={registers[register].title.toLowerCase()} />
  if (!row && !isNew) return <Trouble problem={new Error()} back={{ to: `/setup/${register}`, label: registers[register].title }} />
  return <RowForm register={register} row={row ?? null} />
}

function RowForm({ register, row }: { register: RegisterName; row: RegisterRow | null }) {
  const { one, title, fields, groups, key } = registers[register]
  const { recorder } = useSession()
  const units = useUnits()
  const names = useReferenceNames(register)
  const goOn = useGoOn()
  const writes = useRegisterWrites(register)
  // The row as it was when the form was opened: what a save is held against, whatever comes in meanwhile.
  const [base, setBase] = useState<{ version: number; values: RegisterValues }>(() => ({ version: row?.version ?? 0, values: row?.values ?? emptyValues(fields) }))
  const [inputs, setInputs] = useState<Inputs>(() => toInputs(register, base.values, units))
  const [errors, setErrors] = useState<Record<string, string>>({})
  const [stale, setStale] = useState<{ current: RegisterRow; mine: RegisterValues } | null>(null)
  const [isSending, setIsSending] = useState(false)
  const back = useBack(`/setup/${register}`)
  // Opened before what was just written came back, the form would show what stood there earlier. What nobody has touched follows.
  const isTouched = (): boolean => JSON.stringify(inputs) !== JSON.stringify(toInputs(register, base.values, units))
  if (row && row.version > base.version && !isSending && stale === null && !isTouched()) {
    setBase({ version: row.version, values: row.values })
    setInputs(toInputs(register, row.values, units))
  }

  async function send(work: () => Promise<unknown>, mine: RegisterValues): Promise<void> {
    setIsSending(true)
    try {
      await work()
      goOn(back)
    } catch (error) {
      if (error instanceof ApiProblem && error.code === 'stale') setStale({ current: error.current as RegisterRow, mine })
      else setErrors(errorsByField(error, 'values') ?? { '': sentenceOf(error) })
    }
    setIsSending(false)
  }
  function save(version = base.version): void {
    const read = fromInputs(register, inputs, base.values, units)
    setErrors(read.ok ? {} : read.errors)
    if (read.ok) void send(() => (row ? writes.editRow(row.id, version, read.values) : writes.addRow(read.values)), read.values)
  }
  const shown = (field: Field, values: RegisterValues): string => {
    const value = values[field.name] ?? null
    return field.kind === 'reference' && value !== null ? names(field.register, String(value)) : [toInputs(register, values, units)[field.name] ?? ''].flat().join(', ')
  }
  const strangers = Object.entries(errors).filter(([name]) => !fields.some((field) => field.name === name))
  const isLead = recorder.role === 'lead'
  return (
    <>
      <Lead title={row ? String(base.values[key]) : `New ${one}`} aside={row?.retiredAtMs ? 'retired' : title}>
        {isLead ? '' : 'A lead keeps this list.'}
      </Lead>
      {stale && (
        <StaleChoice
          one={one}
          fields={fields.map((field) => ({ label: field.label, mine: shown(field, stale.mine), theirs: shown(field, stale.current.values) }))}
          onMine={() => {
            setStale(null)
            save(stale.current.version)
          }}
          onTheirs={() => {
            setStale(null)
            setBase(stale.current)
            setInputs(toInputs(register, stale.current.values, units))
          }}
        />
      )}
      <Form noValidate className="register-form" onSubmit={(event) => (event.preventDefault(), save())}>
        {(groups ?? [{ title: '', about: '', fields }]).map((group) => (
          <FieldSet key={group.title} group={group} isLead={isLead} isNew={row === null} inputs={inputs} errors={errors} onChange={(name, value) => setInputs({ ...inputs, [name]: value })} />
        ))}
        {strangers.map(([name, message]) => (
          <Problem key={name}>{message}</Problem>
        ))}
        {isLead && (
          <div className="entry-buttons">
            <Button type="submit" look="act" disabled={isSending || stale !== null}>
              {row ? 'Save' : `Add ${one}`}
            </Button>
            <Button look="quiet" onClick={() => goOn(back)}>
              leave it
            </Button>
            {row && (
              <Button className="retire-button" disabled={isSending} onClick={() => void send(() => writes.retireRow(row.id, row.version, row.retiredAtMs === null, `${one} ${String(row.values[key])}`), row.values)}>
                {row.retiredAtMs === null ? 'Retire' : 'Bring back'}
              </Button>
            )}
          </div>
        )}
      </Form>
    </>
  )
}

interface FieldSetProps {
  group: FieldGroup
  isLead: boolean
  isNew: boolean
  inputs: Inputs
  errors: Record<string, string>
  onChange: (name: string, value: string | string[]) => void
}

/** On a phone fifty fields are a long way: a group is shut there, with what it says in one line, until it is asked for. */
const isWide = (): boolean => typeof window.matchMedia !== 'function' || window.matchMedia('(min-width: 720px)').matches

/** Fields that are read together, under what they are used for. */
function FieldSet({ group: { title, about, fields }, isLead, isNew, inputs, errors, onChange }: FieldSetProps) {
  const [wasOpen, setOpen] = useState(() => isNew || isWide())
  const units = useUnits()
  const isOpen = wasOpen || fields.some(({ name }) => errors[name])
  const list = (
    <fieldset disabled={!isLead} className="register-fields">
      {fields.map((field) => (
        <RegisterField key={field.name} field={field} value={inputs[field.name] ?? ''} problem={errors[field.name] ?? null} onChange={(value) => onChange(field.name, value)} />
      ))}
    </fieldset>
  )
  if (title === '') return list
  return (
    <section className="field-group" aria-label={title}>
      <header>
        <h2>
          <Button look="bare" className="group-title" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
            {title}
          </Button>
        </h2>
        <p>{isOpen ? about : digestOf(fields, inputs, units)}</p>
      </header>
      {isOpen && list}
    </section>
  )
}

/** What the fields of a group say, in one line; what is not said is left out. */
const digestOf = (fields: readonly Field[], inputs: Inputs, units: Units): string =>
  fields
    .map((field) => ({ field, value: [inputs[field.name] ?? ''].flat().join(', ') }))
    .filter(({ value }) => value !== '')
    .map(({ field, value }) => `${field.label}: ${[value, unitOf(field, units)].filter(Boolean).join(' ')}`)
    .join(' · ') || 'nothing is said yet'
