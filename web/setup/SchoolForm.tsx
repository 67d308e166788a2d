import { Form } from 'react-bootstrap'
import { useFieldArray, useWatch } from 'react-hook-form'
import { handlings } from '../../core/acclimation/schools'
import { addSchoolSchema, ownSteps, stepFields, type HouseSchool, type KeepSchool, type KeptStep, type OwnStep } from '../../core/acclimation/schools.schema'
import { Button } from '../ui/Button'
import { FormField, FormProblem } from '../ui/FormField'
import { Problem } from '../ui/Notice'
import { readingResolver, type Reading } from '../ui/readingResolver'
import { schemaErrors } from '../ui/schemaErrors'
import { StaleChoice } from '../ui/StaleChoice'
import { readNumber } from '../ui/useUnits'
import { useVersionedForm } from '../ui/useVersionedForm'
import { useSchoolWrites } from './useSetup'

export const stepWords: Record<OwnStep, string> = { float: 'float it shut', open: 'open, leave it', pour: 'pour into a bucket', fill: 'tank water runs in', add: 'tank water at once', dump: 'pour some away', wait: 'wait', transfer: 'fish into the tank' }
const fieldWords = { minutes: 'minutes', times: 'times bag water', share: 'share, 0 to 1' } as const
const stepOptions = ownSteps.map((step) => ({ value: step, label: stepWords[step] }))

/** A school as it stands in its fields. */
type TypedStep = Record<'minutes' | 'times' | 'share', string> & { step: OwnStep; handling: (typeof handlings)[number] }
type TypedSchool = Record<'name' | 'handsPerBagMin' | 'handsPerLotMin', string> & { steps: TypedStep[] }

const emptyStep = { minutes: '', times: '', share: '', handling: 'bucket' } as const
const wait: TypedStep = { ...emptyStep, step: 'wait', minutes: '10' }
const beginning: TypedSchool = { name: '', handsPerBagMin: '5', handsPerLotMin: '0', steps: [{ ...emptyStep, step: 'float' }, { ...emptyStep, step: 'pour' }, { ...emptyStep, step: 'fill', minutes: '30', times: '3' }, { ...emptyStep, step: 'transfer' }] }

const typedStepOf = ({ step, minutes, times, share, handling }: KeptStep): TypedStep => ({ step, minutes: String(minutes ?? ''), times: String(times ?? ''), share: String(share ?? ''), handling: handling === 'none' ? 'bucket' : handling })
const typedOf = ({ name, handsPerBagMin, handsPerLotMin, steps }: KeepSchool): TypedSchool => ({ name, handsPerBagMin: String(handsPerBagMin), handsPerLotMin: String(handsPerLotMin), steps: steps.map(typedStepOf) })

function readStep(typed: TypedStep): KeptStep {
  const asked = stepFields[typed.step]
  const figure = (field: 'minutes' | 'times' | 'share'): number | null => (asked.includes(field) && typed[field].trim() !== '' ? readNumber(typed[field]) : null)
  return { step: typed.step, minutes: figure('minutes'), times: figure('times'), share: figure('share'), handling: asked.includes('handling') ? typed.handling : 'none' }
}

const keptOf = ({ name, handsPerBagMin, handsPerLotMin, steps }: TypedSchool): KeepSchool => ({ name: name.trim(), handsPerBagMin: readNumber(handsPerBagMin), handsPerLotMin: readNumber(handsPerLotMin), steps: steps.map(readStep) })

function readSchool(typed: TypedSchool): Reading<KeepSchool> {
  const values = keptOf(typed)
  const errors = schemaErrors(addSchoolSchema, values)
  return Object.keys(errors).length === 0 ? { ok: true, values } : { ok: false, errors }
}

const inWords = (steps: readonly KeptStep[]): string => steps.map(({ step, minutes, times, share }) => [stepWords[step], minutes && `${minutes} min`, times && `${times} times`, share].filter(Boolean).join(' ')).join(', ')

/** A school of the house, put together from steps: a new one, or one that is changed or retired. */
export function SchoolForm({ school, onDone }: { school: HouseSchool | null; onDone: () => void }) {
  const { addSchool, editSchool, retireSchool } = useSchoolWrites()
  const { form, submit, send, stale, isBusy } = useVersionedForm({
    row: school,
    toFields: (row) => (row ? typedOf(row) : beginning),
    resolver: () => readingResolver(readSchool),
    write: (kept, version) => (school ? editSchool(school.id, version, kept) : addSchool(kept)).then(onDone),
  })
  const rows = useFieldArray({ control: form.control, name: 'steps' })
  const steps = useWatch({ control: form.control, name: 'steps' })
  const mine = form.getValues()
  const { errors } = form.formState
  return (
    <Form noValidate className="entry-form" onSubmit={(event) => (event.preventDefault(), void submit())}>
      {stale && (
        <StaleChoice
          one="school"
          fields={[
            { label: 'name', mine: mine.name, theirs: stale.theirs.name },
            { label: 'minutes for each bag', mine: mine.handsPerBagMin, theirs: String(stale.theirs.handsPerBagMin) },
            { label: 'minutes for the lot', mine: mine.handsPerLotMin, theirs: String(stale.theirs.handsPerLotMin) },
            { label: 'steps', mine: inWords(keptOf(mine).steps), theirs: inWords(stale.theirs.steps) },
          ]}
          onMine={stale.onMine}
          onTheirs={stale.onTheirs}
        />
      )}
      <div className="field-row">
        <FormField form={form} name="name" label="Name of the school" autoComplete="off" />
        <FormField form={form} name="handsPerBagMin" label="Work for each bag" unit="min" inputMode="decimal" />
        <FormField form={form} name="handsPerLotMin" label="Work for the lot" unit="min" inputMode="decimal" />
      </div>
      <ol className="own-steps">
        {rows.fields.map(({ id }, at) => (
          <li key={id} className="field-row">
            <FormField form={form} name={`steps.${at}.step`} label={`step ${at + 1}`} isLabelHidden options={stepOptions} />
            {stepFields[steps[at]?.step ?? 'float'].map((field) =>
              field === 'handling' ? (
                <FormField key={field} form={form} name={`steps.${at}.handling`} label={`how, step ${at + 1}`} isLabelHidden options={handlings} />
              ) : (
                <FormField key={field} form={form} name={`steps.${at}.${field}`} label={fieldWords[field]} inputMode="decimal" autoComplete="off" />
              ),
            )}
            <Button look="quiet" onClick={() => rows.remove(at)}>
              take off
            </Button>
          </li>
        ))}
      </ol>
      <Problem>{errors.steps?.root?.message ?? errors.steps?.message}</Problem>
      <FormProblem form={form} />
      <div className="entry-buttons">
        <Button onClick={() => rows.insert(Math.max(0, rows.fields.length - 1), wait)}>Add a step</Button>
        <Button type="submit" look="act" disabled={isBusy}>
          {school ? 'Save the school' : 'Add the school'}
        </Button>
        {school && (
          <Button className="retire-button" disabled={isBusy} onClick={() => void send(() => retireSchool(school).then(onDone))}>
            {school.retiredAtMs === null ? 'Retire' : 'Bring back'}
          </Button>
        )}
      </div>
    </Form>
  )
}
