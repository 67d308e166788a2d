import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { deliveryApi } from '../../core/crates/crates.api'
import type { PreparationKind, StepView } from '../../core/crates/preparation'
import { sentenceOf } from '../api/ApiProblem'
import { nowMs } from '../api/clock'
import { useRead } from '../api/useRead'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { useFormat } from '../ui/useFormat'
import { CrateTabs } from './CrateTabs'
import { useCrate, useCrateEdits } from './useCrates'

/** What has to be ready before a crate comes, each with its time and who did it. */
export function PreparationPage() {
  const { crateId = '' } = useParams()
  const { crate } = useCrate(crateId)
  const { data, problem } = useRead(deliveryApi.readPreparation, { params: { crateId } })
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
      {problem && (
        <p className="form-problem" role="alert">
          {problem}
        </p>
      )}
      <ul className="record-list steps" aria-label="Preparation">
        {steps.map((step) => {
          const isLate = step.done === null && step.dueAtMs !== null && step.dueAtMs < nowMs()
          return (
            <li key={step.key} className={step.done ? 'record is-done' : isLate ? 'record is-late' : 'record'}>
              <button type="button" className="step" aria-pressed={step.done !== null} onClick={() => toggle(step)}>
                <span className="step-kind">{kindWords[step.kind]}</span>
                <span>
                  <strong>{step.what}</strong>
                  <small>{step.why}</small>
                </span>
                <span className="step-when">{step.done ? `done, ${step.done.by}` : step.dueAtMs === null ? 'now' : `${isLate ? 'was due ' : 'by '}${format.moment(step.dueAtMs)}`}</span>
              </button>
              {step.key === 'tanks-chosen' && <Link to={`/crates/${crateId}/tanks`}>Choose tanks</Link>}
            </li>
          )
        })}
      </ul>
    </>
  )
}
