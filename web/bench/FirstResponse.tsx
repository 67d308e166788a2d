import { useState } from 'react'
import { Link } from 'react-router'
import { nominalOf } from '../../core/acclimation/question'
import { nameOfSchool, type School } from '../../core/acclimation/schools'
import type { Delivery, DeliveryAdvice } from '../../core/bench/adviseDelivery'
import type { BagFigures, BagWords } from '../../core/bench/bagFigures'
import type { BenchSubject } from '../../core/bench/benchView'
import { mayBePooled } from '../../core/bench/fishRules'
import type { RunKind } from '../../core/bench/runPlan'
import { bathCaution, planBath } from '../../core/bench/specialRuns'
import { bathStep, isPressing, plainStep, releaseStep, strongStep } from '../../core/crates/triage'
import type { StartRun } from '../../core/bench/bench.schema'
import { useLimits } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { Notice } from '../ui/Notice'
import { Refused } from '../ui/RuleRefusal'
import { useGoOn } from '../ui/useGoOn'
import { useUnits } from '../ui/useUnits'
import { startBody, usualVessel } from './startBody'
import { useBenchWrites } from './useBench'

interface Props {
  subject: BenchSubject
  delivery: Delivery
  /** Null while nothing is judged. */
  advice: DeliveryAdvice | null
  figures: BagFigures
  words: BagWords
  /** The school that takes least time, where the fish are to be released at once. */
  quick: School | null
  isReady: boolean
}

/** What comes before acclimating, and is the one orange button then: release at once, a bath; a harsher dip for strong fish, a look through the bag. */
export function FirstResponse(props: Props) {
  const { triage, sources, tank, lineIds } = props.subject
  if (sources.length === 0 || lineIds.length === 0) return null
  const isSaid = triage !== null && triage.step !== plainStep && triage.step !== strongStep
  return (
    <section className={triage && isPressing(triage.step) ? 'first-response is-pressing' : 'first-response'} aria-label="First response">
      {isSaid && (
        <p>
          <strong>First: {triage.step}.</strong> Because: {triage.reasons.join(', ')}. {triage.cautions.join(' ')}
        </p>
      )}
      {tank !== null ? <Responses {...props} /> : isSaid && <Notice>No tank is planned: choose it above.</Notice>}
    </section>
  )
}

type Body = Pick<StartRun, 'kind' | 'vessel' | 'vesselL'> & Partial<StartRun>

/** What can be begun before any school, once it is known where the fish go. */
function Responses({ subject, delivery, advice, figures, words, quick, isReady }: Props) {
  const goOn = useGoOn()
  const limits = useLimits()
  const { startRun } = useBenchWrites()
  const [kind, setKind] = useState<'bath' | 'dip' | null>(null)
  const [refused, setRefused] = useState<{ body: Body; problem: unknown } | null>(null)
  const { triage } = subject
  const { question } = delivery
  const isBathFirst = triage?.step === bathStep
  const begin = async (body: Body): Promise<void> => {
    setRefused(null)
    try {
      const { id } = await startRun({ ...startBody(subject, figures, words), ...{ schoolKey: null, agentId: null, toOutside: null, isPooled: true, dropsPerMl: 20, isDark: true, sentence: null, predicted: null }, ...body })
      goOn(`/bench/runs/${id}`)
    } catch (problem) {
      setRefused({ body, problem })
    }
  }
  const release = (school: School): void => {
    if (!question) return
    const isPooled = question.bags > 1 && mayBePooled(subject.kinds)
    const { usualL, usesVessel } = usualVessel(school, question, limits, isPooled)
    void begin({ kind: 'acclimation', schoolKey: school.key, isPooled, vessel: usesVessel ? 'bucket' : 'their own bags', vesselL: usualL, sentence: advice?.sentence ?? null })
  }
  return (
    <>
      {triage?.step === releaseStep && (
        <div className="entry-buttons">
          <Button look="act" disabled={!quick || !isReady} onClick={() => quick && release(quick)}>
            {quick ? `Release now: ${nameOfSchool(quick)}` : 'Release now'}
          </Button>
        </div>
      )}
      <div className="entry-buttons">
        <Button look={isBathFirst && kind === null ? 'act' : 'plain'} aria-pressed={kind === 'bath'} onClick={() => setKind(kind === 'bath' ? null : 'bath')}>
          First-response bath
        </Button>
        {triage?.step === strongStep && (
          <Button aria-pressed={kind === 'dip'} onClick={() => setKind(kind === 'dip' ? null : 'dip')}>
            Entry dip
          </Button>
        )}
        <Button disabled={!isReady} onClick={() => void begin({ kind: 'look', vessel: 'their own bags', vesselL: 1, isDark: false })}>
          Look through the bag
        </Button>
      </div>
      {kind && !question && <Notice>{delivery.water.why} A bath is made of water like the bag’s.</Notice>}
      {kind && question && <BathPlan key={kind} kind={kind} subject={subject} bag={nominalOf(question)} isRead={question.measured.salinityPpt !== undefined && question.measured.tempC !== undefined} isFirst={isBathFirst} isReady={isReady} onBegin={(runKind, agentId, vesselL) => void begin({ kind: runKind, agentId, vessel: 'bath', vesselL })} />}
      <Refused problem={refused?.problem ?? null} mayRescue onAgain={(against) => refused && void begin({ ...refused.body, ...(against ?? {}) })} />
    </>
  )
}

interface BathProps {
  kind: 'bath' | 'dip'
  subject: BenchSubject
  /** Water the bath is made like. */
  bag: { tempC: number; salinityPpt: number }
  /** Whether both of it were read. */
  isRead: boolean
  isFirst: boolean
  isReady: boolean
  onBegin: (kind: RunKind, agentId: string, vesselL: number) => void
}

/** Which agent, how much of it in which water, and what is said with it. Only agents that have an entry for this use are listed. */
function BathPlan({ kind, subject, bag, isRead, isFirst, isReady, onBegin }: BathProps) {
  const limits = useLimits()
  const units = useUnits()
  const [agentId, setAgent] = useState('')
  const { sources, kinds } = subject
  const fish = sources.reduce((sum, { quantity }) => sum + quantity, 0)
  const agents = subject.agents.filter(({ bathMgL, bathMinutes, dipMgL, dipMinutes }) => (kind === 'bath' ? bathMgL !== null && bathMinutes !== null : dipMgL !== null && dipMinutes !== null))
  const agent = agents.find(({ id }) => id === agentId)
  const to = subject.tank?.code ?? ''
  const plan = agent ? planBath(kind, { agent, fish, bags: sources.length, kinds, to, bag, then: null, limits, units: units.display }) : null
  return (
    <div className="bath-plan">
      {agents.length === 0 ? (
        <p>
          No agent is entered for a {kind}. <Link to="/setup/agents">Setup, Agents</Link>: strength, level and minutes from the label of your product.
        </p>
      ) : (
        <ChoiceField label="agent" size="hand" value={agentId} onChange={setAgent}>
          <option value="">choose</option>
          {agents.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </ChoiceField>
      )}
      {plan && !plan.ok && <p role="alert">{plan.reason}</p>}
      {plan?.ok && (
        <p>
          <strong>
            {units.show('volume', plan.litres)}, {plan.doseMl < 1 ? plan.doseMl.toFixed(2) : plan.doseMl.toFixed(1)} mL, {plan.minutes} min
          </strong>{' '}
          for {fish} fish, in water like the bag’s: {units.show('temperature', bag.tempC)} and {units.show('salinity', bag.salinityPpt)}
          {isRead ? '' : ' (not read: read the bag and make it to that)'}. Then acclimated to {to} from there.{agent?.cautions ? ` Cautions: ${agent.cautions}` : ''}
        </p>
      )}
      {plan?.ok && plan.withCare.length > 0 && <Notice level="watch">{plan.withCare.join(', ')}: {agent?.substance} with care only, while they eat and are watched.</Notice>}
      {kinds.some(({ animal }) => animal === null || animal === undefined) && <Notice level="watch">The species book does not say what animal this is: no dye and no dip for shrimp, crabs, snails or the like.</Notice>}
      {plan?.ok && agent?.substance === null && <Notice level="watch">Whether they bear it is not known: Setup, Agents does not say what {agent.name} counts as.</Notice>}
      <Notice>{bathCaution}</Notice>
      {kind === 'dip' && <p className="aside-word">Offered because every bag was found strong. Never for weak fish.</p>}
      <Button look={isFirst && plan?.ok ? 'act' : 'plain'} disabled={!plan?.ok || !isReady} onClick={() => plan?.ok && onBegin(kind, agentId, plan.litres * 1.5)}>
        Start the {kind}
      </Button>
    </div>
  )
}
