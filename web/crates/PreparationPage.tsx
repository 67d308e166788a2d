import { useState } from 'react'
import { Link, useParams } from 'react-router'
import type { PreparationKind, StepView } from '../../core/crates/preparation'
import { sentenceOf } from '../api/ApiProblem'
import { nowMs } from '../api/clock'
import { Button } from '../ui/Button'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { useFormat } from '../ui/useFormat'
import { CrateTabs } from './CrateTabs'
import { useCrate, useCrateEdits, usePreparation } from './useCrates'
import './crates.css'
import './preparation.css'

/** What has to be ready before a crate comes, each with its time and who did it. */
export function PreparationPage() {
  const { crateId = '' } = useParams()
  const { crate } = useCrate(crateId)
  const { data, problem } = usePreparation(crateId)
  if (!crate || !data) return problem ? <Trouble problem={problem} back={{ to: '/crates', label: 'All crates' }} /> : <Waiting what="the preparation" />
  const open = data.steps.filter(({ done }) => done === null)
  const late = open.filter(({ dueAtMs }) => dueAtMs !== null && dueAtMs < nowMs())
  return (
    <>
      <Lead nav={<CrateTabs crateId={crateId} />} title={`Prepare crate ${crate.number}`} aside={crate.supplier}>
        {open.length === 0 ? 'Everything is ready.' : `${plural(open.length, 'step')} to do${late.length > 0 ? `, ${late.length} past its time` : ''}. Next: ${open[0]?.what.replace(/\?$/, '')}.`}
      </Lead>
      {data.steps.length === 0 ? <Nothing>Nothing has to be prepared: this crate has no lines yet.</Nothing> : <StepList crateId={crateId} steps={data.steps} />}
    </>
  )
}

const kindWords: Record<PreparationKind, string> = { tank: 'tank', water: 'water', company: 'company', shelter: 'shelter', tools: 'tools', food: 'food', question: 'ask' }

function StepList({ crateId, steps }: { crateId: string; steps: StepView[] }) {
  const { prepareStep } = useCrateEdits(crateId)
  const [problem, setProblem] = useState<string | null>(null)
  const format = useFormat()
  const toggle = ({ key, done }: StepView): void => {
    setProblem(null)
    void prepareStep(key, done === null).catch((error: unknown) => setProblem(sentenceOf(error)))
  }
  return (
    <>
      <Problem>{problem}</Problem>
      <ul className="record-list steps" aria-label="Preparation">
        {steps.map((step) => {
          const isLate = step.done === null && step.dueAtMs !== null && step.dueAtMs < nowMs()
          return (
            <li key={step.key} className={step.done ? 'record is-done' : isLate ? 'record is-late' : 'record'}>
              <Button look="bare" className="step" aria-pressed={step.done !== null} onClick={() => toggle(step)}>
                <span className="step-kind">{kindWords[step.kind]}</span>
                <span>
                  <strong>{step.what}</strong>
                  <small>{step.why}</small>
                </span>
                <span className="step-when">{step.done ? `done, ${step.done.by}` : step.dueAtMs === null ? 'now' : `${isLate ? 'was due ' : 'by '}${format.moment(step.dueAtMs)}`}</span>
              </Button>
              {step.key === 'tanks-chosen' && <Link to={`/crates/${crateId}/tanks`}>Choose tanks</Link>}
            </li>
          )
        })}
      </ul>
    </>
  )
}
