import { useState } from 'react'
import { Link } from 'react-router'
import type { BagFigures, BagWords } from '../../core/bench/bagFigures'
import type { BenchSubject } from '../../core/bench/benchView'
import type { RunKind } from '../../core/bench/runPlan'
import { bathCaution, planBath } from '../../core/bench/specialRuns'
import { firstSteps } from '../../core/crates/triage'
import { sentenceOf } from '../api/ApiProblem'
import { useLimits } from '../api/sharedReads'
import { useGoOn } from '../ui/useGoOn'
import { useUnits } from '../ui/useUnits'
import { startBody } from './startBody'
import { useBenchWrites } from './useBench'

interface Props {
  subject: BenchSubject
  figures: BagFigures
  words: BagWords
  isReady: boolean
}

/** What may come before acclimating: a bath, a harsher dip for strong fish, a look through the bag. */
export function FirstResponse({ subject, figures, words, isReady }: Props) {
  const goOn = useGoOn()
  const limits = useLimits()
  const units = useUnits()
  const { startRun } = useBenchWrites()
  const [kind, setKind] = useState<'bath' | 'dip' | null>(null)
  const [agentId, setAgent] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const { triage, agents, sources, tank } = subject
  if (sources.length === 0 || tank === null || subject.lineIds.length === 0) return null
  const fish = sources.reduce((sum, { quantity }) => sum + quantity, 0)
  const isStrong = triage?.step === firstSteps[2]
  const isPressing = triage !== null && (triage.step === firstSteps[0] || triage.step === firstSteps[1])
  const agent = agents.find(({ id }) => id === agentId)
  const plan = kind && agent ? planBath(kind, { agent, fish, kinds: subject.kinds, to: tank.code, tankSalinityPpt: figures.tankPpt ?? 0, limits, units: units.display }) : null
  const begin = async (runKind: RunKind, vesselL: number): Promise<void> => {
    try {
      const { id } = await startRun({ ...startBody(subject, figures, words), kind: runKind, schoolKey: null, agentId: runKind === 'look' ? null : agentId, toOutside: null, isPooled: true, vessel: runKind === 'look' ? 'their own bags' : 'bath', vesselL, dropsPerMl: 20, isDark: false, sentence: null, predicted: null })
      goOn(`/bench/runs/${id}`)
    } catch (error) {
      setProblem(sentenceOf(error))
    }
  }
  return (
    <section className={isPressing ? 'first-response is-pressing' : 'first-response'} aria-label="First response">
      {triage && isPressing && (
        <p>
          <strong>First: {triage.step}.</strong> Because: {triage.reasons.join(', ')}. {triage.cautions.join(' ')}
        </p>
      )}
      <div className="entry-buttons">
        <button type="button" className="button" aria-pressed={kind === 'bath'} onClick={() => setKind(kind === 'bath' ? null : 'bath')}>
          First-response bath
        </button>
        {isStrong && (
          <button type="button" className="button" aria-pressed={kind === 'dip'} onClick={() => setKind(kind === 'dip' ? null : 'dip')}>
            Entry dip
          </button>
        )}
        <button type="button" className="button" disabled={!isReady} onClick={() => void begin('look', 1)}>
          Look through the bag
        </button>
      </div>
      {kind && (
        <div className="bath-plan">
          {agents.length === 0 ? (
            <p>
              No agent is entered. <Link to="/setup/agents">Setup, Agents</Link>: strength, level and minutes from the label of your product.
            </p>
          ) : (
            <label className="reading">
              <span>agent</span>
              <select className="form-select" value={agentId} onChange={(event) => setAgent(event.currentTarget.value)}>
                <option value="">choose</option>
                {agents.map(({ id, name, bathMgL, dipMgL }) => {
                  const isMissing = (kind === 'bath' ? bathMgL : dipMgL) === null
                  return (
                    <option key={id} value={id} disabled={isMissing}>
                      {name}
                      {isMissing ? `, no ${kind} entered` : ''}
                    </option>
                  )
                })}
              </select>
            </label>
          )}
          {plan && !plan.ok && <p role="alert">{plan.reason}</p>}
          {plan?.ok && (
            <p>
              <strong>
                {units.show('volume', plan.litres)}, {plan.doseMl < 1 ? plan.doseMl.toFixed(2) : plan.doseMl.toFixed(1)} mL, {plan.minutes} min
              </strong>{' '}
              for {fish} fish, then into {tank.code}. {agent?.cautions}
            </p>
          )}
          {plan?.ok && plan.withCare.length > 0 && <p className="notice is-watch">{plan.withCare.join(', ')}: {agent?.substance} with care only, while they eat and are watched.</p>}
          {plan?.ok && agent?.substance === null && <p className="notice is-watch">Whether they bear it is not known: Setup, Agents does not say what {agent.name} counts as.</p>}
          <p className="notice">{bathCaution}</p>
          {kind === 'dip' && <p className="aside-word">Offered because every bag was found strong. Never for weak fish.</p>}
          <button type="button" className="button" disabled={!plan?.ok || !isReady} onClick={() => plan?.ok && void begin(kind, plan.litres * 1.5)}>
            Start the {kind}
          </button>
        </div>
      )}
      {problem && <p role="alert" className="form-problem">{problem}</p>}
    </section>
  )
}
