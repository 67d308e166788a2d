import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { Controller, useWatch, type UseFormReturn } from 'react-hook-form'
import { useParams } from 'react-router'
import { emptyValues } from '../../core/setup/registerCsv'
import { isRegisterName, registers, type FieldGroup, type RegisterField as Field, type RegisterName, type RegisterRow, type RegisterValues } from '../../core/setup/registers'
import { useSession } from '../api/session'
import { useRegister } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { FormProblem } from '../ui/FormField'
import { Lead } from '../ui/Lead'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { readingResolver } from '../ui/readingResolver'
import { StaleChoice } from '../ui/StaleChoice'
import { useBack } from '../ui/useBack'
import { useGoOn } from '../ui/useGoOn'
import { useUnits, type Units } from '../ui/useUnits'
import { useVersionedForm } from '../ui/useVersionedForm'
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
  const back = useBack(`/setup/${register}`)
  const valuesOf = (of: RegisterRow | null): RegisterValues => of?.values ?? emptyValues(fields)
  const { form, began, submit, send, stale, isBusy } = useVersionedForm({
    row,
    toFields: (of) => toInputs(register, valuesOf(of), units),
    // A figure nobody touched keeps what stood there.
    resolver: (began) => readingResolver((inputs: Inputs) => fromInputs(register, inputs, valuesOf(began), units)),
    write: (values, version) => (row ? writes.editRow(row.id, version, values) : writes.addRow(values)).then(() => goOn(back)),
    inside: 'values',
  })
  const mine = form.getValues()
  const shown = (field: Field, of: Inputs): string => {
    const value = of[field.name] ?? ''
    return field.kind === 'reference' && value !== '' ? names(field.register, String(value)) : [value].flat().join(', ')
  }
  const isLead = recorder.role === 'lead'
  return (
    <>
      <Lead title={row ? String(valuesOf(began)[key]) : `New ${one}`} aside={row?.retiredAtMs ? 'retired' : title}>
        {isLead ? '' : 'A lead keeps this list.'}
      </Lead>
      {stale && (
        <StaleChoice
          one={one}
          fields={fields.map((field) => ({ label: field.label, mine: shown(field, mine), theirs: shown(field, toInputs(register, stale.theirs.values, units)) }))}
          onMine={stale.onMine}
          onTheirs={stale.onTheirs}
        />
      )}
      <Form noValidate className="register-form" onSubmit={(event) => (event.preventDefault(), void submit())}>
        {(groups ?? [{ title: '', about: '', fields }]).map((group) => (
          <FieldSet key={group.title} group={group} isLead={isLead} isNew={row === null} form={form} />
        ))}
        <FormProblem form={form} />
        {isLead && (
          <div className="entry-buttons">
            <Button type="submit" look="act" disabled={isBusy}>
              {row ? 'Save' : `Add ${one}`}
            </Button>
            <Button look="quiet" onClick={() => goOn(back)}>
              leave it
            </Button>
            {row && (
              <Button className="retire-button" disabled={isBusy} onClick={() => void send(() => writes.retireRow(row.id, row.version, row.retiredAtMs === null, `${one} ${String(row.values[key])}`).then(() => goOn(back)))}>
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
  form: UseFormReturn<Inputs, unknown, RegisterValues>
}

/** On a phone fifty fields are a long way: a group is shut there, with what it says in one line, until it is asked for. */
const isWide = (): boolean => typeof window.matchMedia !== 'function' || window.matchMedia('(min-width: 720px)').matches

/** Fields that are read together, under what they are used for. */
function FieldSet({ group: { title, about, fields }, isLead, isNew, form }: FieldSetProps) {
  const [wasOpen, setOpen] = useState(() => isNew || isWide())
  const units = useUnits()
  const inputs = useWatch({ control: form.control }) as Inputs
  const isOpen = wasOpen || fields.some(({ name }) => form.formState.errors[name])
  const list = (
    <fieldset disabled={!isLead} className="register-fields">
      {fields.map((field) => (
        <Controller
          key={field.name}
          control={form.control}
          name={field.name}
          render={({ field: { value, onChange }, fieldState: { error } }) => <RegisterField field={field} value={value ?? ''} problem={error?.message ?? null} onChange={onChange} />}
        />
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
