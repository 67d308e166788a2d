import { useState } from 'react'
import { houseOrders, situationWords, type Situation } from '../../core/acclimation/question'
import { schools as tradeSchools } from '../../core/acclimation/schools'
import { sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { useHouseSchools, useSchools } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { SchoolForm, stepWords } from './SchoolForm'
import { useSchoolWrites } from './useSetup'
import './setup.css'

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
        Ways of acclimating. Those of the trade are always compared; a way of the house’s own is put together here from steps and compared with them at the Water desk.
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
      <div className="first-choices">
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
