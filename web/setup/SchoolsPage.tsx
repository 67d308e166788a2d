import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { addSchoolSchema, ownSteps, stepFields, type HouseSchool, type KeepSchool, type KeptStep, type OwnStep } from '../../core/acclimation/schools.schema'
import { houseOrders, situationWords, type Situation } from '../../core/acclimation/question'
import { handlings, schools as tradeSchools } from '../../core/acclimation/schools'
import { currentOf, errorsByField, sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { useHouseSchools, useSchools } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { ChoiceField, TextField } from '../ui/Field'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { schemaErrors } from '../ui/schemaErrors'
import { StaleChoice } from '../ui/StaleChoice'
import { readNumber } from '../ui/useUnits'
import { useSchoolWrites } from './useSetup'
import './setup.css'

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
            <Button look="bare" className="person-line" aria-expanded={open === school.id} disabled={!isLead} onClick={() => setOpen(open === school.id ? null : school.id)}>
              <strong>{school.name}</strong>
              <span>
                {school.steps.map(({ step }) => stepWords[step]).join(', ')}
                {school.retiredAtMs === null ? '' : ' (retired)'}
              </span>
            </Button>
            {open === school.id && <SchoolForm school={school} onDone={() => setOpen(null)} />}
          </li>
        ))}
      </ul>
      <FirstChoices isLead={isLead} />
      {isLead && (open === 'new' ? <SchoolForm school={null} onDone={() => setOpen(null)} /> : <Button onClick={() => setOpen('new')}>Add a school of the house</Button>)}
    </>
  )
}

/** Which school comes first where several stay under the limits. */
function FirstChoices({ isLead }: { isLead: boolean }) {
  const { defaults } = useHouseSchools()
  const schools = useSchools()
  const { chooseDefault } = useSchoolWrites()
  const [problem, setProblem] = useState<string | null>(null)
  const choose = (situation: Situation, schoolKey: string | null, version: number): void =>
    void chooseDefault(situation, schoolKey, version).then(() => setProblem(null), (error: unknown) => setProblem(sentenceOf(error)))
  const nameOf = (key: string | undefined): string => schools.find((each) => each.key === key)?.name ?? ''
  return (
    <section aria-label="First choices">
      <h2>First choice where several stay under the limits</h2>
      <div className="desk-fields">
        {(defaults ?? []).map(({ situation, schoolKey, version }) => (
          <ChoiceField key={situation} label={`for ${situationWords[situation]}`} isDisabled={!isLead} value={schoolKey ?? ''} onChange={(key) => choose(situation, key || null, version)}>
            <option value="">usual: {nameOf(houseOrders[situation].order[0])}</option>
            {schools.map(({ key, name }) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </ChoiceField>
        ))}
      </div>
      <Problem>{problem}</Problem>
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
  const { addSchool, editSchool, retireSchool } = useSchoolWrites()
  const [name, setName] = useState(school?.name ?? '')
  const [work, setWork] = useState({ bag: String(school?.handsPerBagMin ?? 5), lot: String(school?.handsPerLotMin ?? 0) })
  const [steps, setSteps] = useState<TypedStep[]>(school ? school.steps.map(typedOf) : beginning)
  const [version, setVersion] = useState(school?.version ?? 0)
  const [errors, setErrors] = useState<Record<string, string>>({})
  const [stale, setStale] = useState<HouseSchool | null>(null)
  const mine = (): KeepSchool => ({ name: name.trim(), handsPerBagMin: readNumber(work.bag), handsPerLotMin: readNumber(work.lot), steps: steps.map(readStep) })

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
    void settle(school ? editSchool(school.id, asVersion, kept) : addSchool(kept))
  }
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
        <TextField label="Name of the school" value={name} problem={errors.name} onChange={setName} />
        <TextField label="Work for each bag" unit="min" value={work.bag} onChange={(bag) => setWork({ ...work, bag })} />
        <TextField label="Work for the lot" unit="min" value={work.lot} onChange={(lot) => setWork({ ...work, lot })} />
      </div>
      <ol className="own-steps">
        {steps.map((typed, at) => (
          <li key={at} className="field-row">
            <ChoiceField label={`step ${at + 1}`} isLabelHidden value={typed.step} onChange={(step) => change(at, { step })}>
              {ownSteps.map((step) => (
                <option key={step} value={step}>
                  {stepWords[step]}
                </option>
              ))}
            </ChoiceField>
            {stepFields[typed.step as OwnStep].map((field) =>
              field === 'handling' ? (
                <ChoiceField key={field} label={`how, step ${at + 1}`} isLabelHidden value={typed.handling} onChange={(handling) => change(at, { handling })}>
                  {handlings.map((handling) => (
                    <option key={handling}>{handling}</option>
                  ))}
                </ChoiceField>
              ) : (
                <TextField key={field} label={fieldWords[field]} value={typed[field]} problem={errors[`steps[${at}].${field}`]} onChange={(value) => change(at, { [field]: value })} />
              ),
            )}
            <Button look="quiet" onClick={() => setSteps(steps.filter((_, index) => index !== at))}>
              take off
            </Button>
          </li>
        ))}
      </ol>
      {others.map(([path, message]) => (
        <Problem key={path}>{message}</Problem>
      ))}
      <div className="entry-buttons">
        <Button onClick={() => setSteps([...steps.slice(0, -1), { step: 'wait', minutes: '10', times: '', share: '', handling: 'bucket' }, ...steps.slice(-1)])}>
          Add a step
        </Button>
        <Button type="submit" look="act" disabled={stale !== null}>
          {school ? 'Save the school' : 'Add the school'}
        </Button>
        {school && (
          <Button className="retire-button" onClick={() => void settle(retireSchool(school))}>
            {school.retiredAtMs === null ? 'Retire' : 'Bring back'}
          </Button>
        )}
      </div>
    </Form>
  )
}
