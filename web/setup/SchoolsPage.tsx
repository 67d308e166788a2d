import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { schoolsApi } from '../../core/acclimation/schools.api'
import { addSchoolSchema, ownSteps, stepFields, type HouseSchool, type KeepSchool, type KeptStep, type OwnStep } from '../../core/acclimation/schools.schema'
import { houseOrders, situationWords, type Situation } from '../../core/acclimation/question'
import { handlings, schools as tradeSchools } from '../../core/acclimation/schools'
import { currentOf, errorsByField, sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { useHouseSchools, useSchools } from '../api/sharedReads'
import { useWrite } from '../api/useOutbox'
import { Labelled } from '../ui/Labelled'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { schemaErrors } from '../ui/schemaErrors'
import { StaleChoice } from '../ui/StaleChoice'
import { readNumber } from '../ui/useUnits'

const stepWords: Record<OwnStep, string> = { float: 'float it shut', open: 'open, leave it', pour: 'pour into a bucket', fill: 'tank water runs in', add: 'tank water at once', dump: 'pour some away', wait: 'wait', transfer: 'fish into the tank' }
const fieldWords = { minutes: 'minutes', times: 'times the bag’s water', share: 'share, 0 to 1', handling: 'how' } as const

/** Schools of acclimation: those of the trade, and the house's own, put together from steps. */
export function SchoolsPage() {
  const { schools, problem } = useHouseSchools()
  const { recorder } = useSession()
  const [open, setOpen] = useState<string | null>(null)
  if (!schools) return problem ? <Trouble problem={problem} /> : <Waiting what="the schools" />
  const isLead = recorder.role === 'lead'
  return (
    <>
      <Lead title="Schools" aside={`${tradeSchools.length} of the trade`}>
        Ways of acclimating. Those of the trade are always compared ({tradeSchools.map(({ name }) => name.toLowerCase()).join('; ')}); a way of the house’s own is put together here from steps and compared with them at the Water desk.
      </Lead>
      <ul className="record-list">
        {schools.map((school) => (
          <li key={school.id} className="record">
            <button type="button" className="person-line" aria-expanded={open === school.id} disabled={!isLead} onClick={() => setOpen(open === school.id ? null : school.id)}>
              <strong>{school.name}</strong>
              <span>
                {school.steps.map(({ step }) => stepWords[step]).join(', ')}
                {school.retiredAtMs === null ? '' : ' (retired)'}
              </span>
            </button>
            {open === school.id && <SchoolForm school={school} onDone={() => setOpen(null)} />}
          </li>
        ))}
      </ul>
      <FirstChoices isLead={isLead} />
      {isLead && (open === 'new' ? <SchoolForm school={null} onDone={() => setOpen(null)} /> : <button type="button" className="button" onClick={() => setOpen('new')}>Add a school of the house</button>)}
    </>
  )
}

/** Which school comes first where several stay under the limits. */
function FirstChoices({ isLead }: { isLead: boolean }) {
  const { defaults } = useHouseSchools()
  const schools = useSchools()
  const write = useWrite()
  const [problem, setProblem] = useState<string | null>(null)
  const choose = (situation: Situation, schoolKey: string | null, version: number): void =>
    void write(schoolsApi.chooseDefault, { params: { situation }, label: 'a first choice', body: { schoolKey, version } }, { refusals: 'form' }).then(() => setProblem(null), (error: unknown) => setProblem(sentenceOf(error)))
  const nameOf = (key: string | undefined): string => schools.find((each) => each.key === key)?.name ?? ''
  return (
    <section aria-label="First choices">
      <h2>First choice where several stay under the limits</h2>
      <div className="desk-fields">
        {(defaults ?? []).map(({ situation, schoolKey, version }) => (
          <Form.Group key={situation} controlId={`first-${situation}`} className="field">
            <Form.Label>for {situationWords[situation]}</Form.Label>
            <Form.Select value={schoolKey ?? ''} disabled={!isLead} onChange={(event) => choose(situation, event.currentTarget.value || null, version)}>
              <option value="">usual: {nameOf(houseOrders[situation].order[0])}</option>
              {schools.map(({ key, name }) => (
                <option key={key} value={key}>
                  {name}
                </option>
              ))}
            </Form.Select>
          </Form.Group>
        ))}
      </div>
      {problem && <p role="alert" className="form-problem">{problem}</p>}
    </section>
  )
}

/** A step as it stands in its fields. */
type TypedStep = Record<'step' | 'minutes' | 'times' | 'share' | 'handling', string>
const typedOf = ({ step, minutes, times, share, handling }: KeptStep): TypedStep => ({ step, minutes: String(minutes ?? ''), times: String(times ?? ''), share: String(share ?? ''), handling: handling === 'none' ? 'bucket' : handling })
const beginning: TypedStep[] = [{ step: 'float' }, { step: 'pour' }, { step: 'fill', minutes: '30', times: '3' }, { step: 'transfer' }].map((step) => ({ minutes: '', times: '', share: '', handling: 'bucket', ...step }))

function readStep(typed: TypedStep): KeptStep {
  const asked = stepFields[typed.step as OwnStep]
  const figure = (field: 'minutes' | 'times' | 'share'): number | null => (asked.includes(field) && typed[field].trim() !== '' ? readNumber(typed[field]) : null)
  return { step: typed.step as OwnStep, minutes: figure('minutes'), times: figure('times'), share: figure('share'), handling: asked.includes('handling') ? (typed.handling as KeptStep['handling']) : 'none' }
}

function SchoolForm({ school, onDone }: { school: HouseSchool | null; onDone: () => void }) {
  const write = useWrite()
  const [name, setName] = useState(school?.name ?? '')
  const [work, setWork] = useState({ bag: String(school?.handsPerBagMin ?? 5), lot: String(school?.handsPerLotMin ?? 0) })
  const [steps, setSteps] = useState<TypedStep[]>(school ? school.steps.map(typedOf) : beginning)
  const [version, setVersion] = useState(school?.version ?? 0)
  const [errors, setErrors] = useState<Record<string, string>>({})
  const [stale, setStale] = useState<HouseSchool | null>(null)
  const mine = (): KeepSchool => ({ name: name.trim(), handsPerBagMin: readNumber(work.bag), handsPerLotMin: readNumber(work.lot), steps: steps.map(readStep) })

  const [label, push] = [`school ${name}`, { refusals: 'form' } as const]
  async function settle(sent: Promise<unknown>): Promise<void> {
    try {
      await sent.then(onDone, (error: unknown) => setStale(currentOf<HouseSchool>(error)))
    } catch (error) {
      setErrors(errorsByField(error) ?? { '': sentenceOf(error) })
    }
  }
  const save = (asVersion: number): void => {
    const kept = mine()
    const found = schemaErrors(addSchoolSchema, kept)
    setErrors(found)
    if (Object.keys(found).length > 0) return
    void settle(school ? write(schoolsApi.editSchool, { params: { schoolId: school.id }, label, body: { ...kept, version: asVersion } }, push) : write(schoolsApi.addSchool, { label, body: kept }, push))
  }
  const retire = ({ id, version: seen, retiredAtMs }: HouseSchool): void => void settle(write(schoolsApi.retireSchool, { params: { schoolId: id }, label, body: { isRetired: retiredAtMs === null, version: seen } }, push))
  const change = (at: number, part: Partial<TypedStep>): void => setSteps(steps.map((step, index) => (index === at ? { ...step, ...part } : step)))
  const inWords = (each: readonly KeptStep[]): string => each.map(({ step, minutes, times, share }) => [stepWords[step], minutes && `${minutes} min`, times && `${times} times`, share].filter(Boolean).join(' ')).join(', ')
  const others = Object.entries(errors).filter(([path]) => !path.startsWith('steps[') && path !== 'name')
  return (
    <Form noValidate className="entry-form" onSubmit={(event) => (event.preventDefault(), save(version))}>
      {stale && (
        <StaleChoice
          one="school"
          fields={[{ label: 'name', mine: name, theirs: stale.name }, { label: 'steps', mine: inWords(mine().steps), theirs: inWords(stale.steps) }]}
          onMine={() => {
            setStale(null)
            setVersion(stale.version)
            save(stale.version)
          }}
          onTheirs={() => {
            setStale(null)
            setVersion(stale.version)
            setName(stale.name)
            setSteps(stale.steps.map(typedOf))
          }}
        />
      )}
      <div className="field-row">
        <Figure label="Name of the school" value={name} problem={errors.name} onChange={setName} />
        <Figure label="Work for each bag (min)" value={work.bag} problem={undefined} onChange={(bag) => setWork({ ...work, bag })} />
        <Figure label="Work for the lot (min)" value={work.lot} problem={undefined} onChange={(lot) => setWork({ ...work, lot })} />
      </div>
      <ol className="own-steps">
        {steps.map((typed, at) => (
          <li key={at} className="field-row">
            <Form.Select aria-label={`step ${at + 1}`} value={typed.step} onChange={(event) => change(at, { step: event.currentTarget.value })}>
              {ownSteps.map((step) => (
                <option key={step} value={step}>
                  {stepWords[step]}
                </option>
              ))}
            </Form.Select>
            {stepFields[typed.step as OwnStep].map((field) =>
              field === 'handling' ? (
                <Form.Select key={field} aria-label={`how, step ${at + 1}`} value={typed.handling} onChange={(event) => change(at, { handling: event.currentTarget.value })}>
                  {handlings.map((handling) => (
                    <option key={handling}>{handling}</option>
                  ))}
                </Form.Select>
              ) : (
                <Figure key={field} label={fieldWords[field]} value={typed[field]} problem={errors[`steps[${at}].${field}`]} onChange={(value) => change(at, { [field]: value })} />
              ),
            )}
            <button type="button" className="quiet-button" onClick={() => setSteps(steps.filter((_, index) => index !== at))}>
              take off
            </button>
          </li>
        ))}
      </ol>
      {others.map(([path, message]) => (
        <p key={path} className="form-problem" role="alert">
          {message}
        </p>
      ))}
      <div className="entry-buttons">
        <button type="button" className="button" onClick={() => setSteps([...steps.slice(0, -1), { step: 'wait', minutes: '10', times: '', share: '', handling: 'bucket' }, ...steps.slice(-1)])}>
          Add a step
        </button>
        <Button type="submit" className="act" disabled={stale !== null}>
          {school ? 'Save the school' : 'Add the school'}
        </Button>
        {school && (
          <button type="button" className="button retire-button" onClick={() => retire(school)}>
            {school.retiredAtMs === null ? 'Retire' : 'Bring back'}
          </button>
        )}
      </div>
    </Form>
  )
}

function Figure({ label, value, problem, onChange }: { label: string; value: string; problem: string | undefined; onChange: (value: string) => void }) {
  return (
    <Labelled label={label} problem={problem ?? null}>
      {(shared) => <Form.Control {...shared} value={value} autoComplete="off" onChange={(event) => onChange(event.currentTarget.value)} />}
    </Labelled>
  )
}
