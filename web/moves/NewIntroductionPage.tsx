import { useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import type { MovedFish } from '../../core/moves/moves.schema'
import type { PlannedIntroduction } from '../../core/moves/introductionView'
import { introductionStepWords } from '../../core/moves/introductionWords'
import { errorsByField, sentenceOf } from '../api/ApiProblem'
import { useTankOf } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { Tick } from '../ui/Field'
import { HandScreen } from '../ui/HandScreen'
import { InUnits } from '../ui/InUnits'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { Notice, Problem } from '../ui/Notice'
import { fishOfAddress } from '../ui/fishOfAddress'
import { MoveCheckLines } from './MoveCheckLines'
import { stepTime } from './introductionClock'
import { useIntroductionPlan, useMoveWrites } from './useMoves'
import './moves.css'
import './introduction.css'

/** How newcomers come into a tank whose residents defend it, before anything is begun. */
export function NewIntroductionPage() {
  const [search] = useSearchParams()
  const [from, to] = [useTankOf(search.get('from')), useTankOf(search.get('to'))]
  const fish = fishOfAddress(search)
  if (search.get('from') === null || search.get('to') === null || fish.length === 0) return <Nothing>Choose the fish and the tank first: on the page of the tank they stand in, under “move”.</Nothing>
  if (!from.tank || !to.tank) return from.problem || to.problem ? <Trouble problem={from.problem ?? to.problem} back={{ to: '/room', label: 'The room' }} /> : <Waiting what="the tanks" />
  return <Plan from={{ id: from.tank.id, code: from.tank.code }} to={{ id: to.tank.id, code: to.tank.code }} fish={fish} />
}

interface Place {
  id: string
  code: string
}

function Plan({ from, to, fish }: { from: Place; to: Place; fish: MovedFish[] }) {
  const [hasMirror, setMirror] = useState(false)
  const [hasDivider, setDivider] = useState(false)
  const [dominants, setDominants] = useState<string[]>([])
  const [refused, setRefused] = useState<unknown>(null)
  const navigate = useNavigate()
  const writes = useMoveWrites()
  const { planned, problem } = useIntroductionPlan({ from: from.id, to: to.id, fish, hasMirror, hasDivider, dominants })
  const back = { to: `/room/${from.code}/move?to=tank:${to.id}&fish=${encodeURIComponent(JSON.stringify(fish))}`, label: 'back to the move' }
  if (!planned) return problem ? <Trouble problem={problem} back={back} /> : <Waiting what="the plan" />
  const mayBegin = planned.plan.mode !== 'do not' && planned.plan.mode !== 'not yet'
  const begin = (): void => void writes.beginIntroduction({ tankId: to.id, fromTankId: from.id, fish, hasMirror, hasDivider, dominants }).then(({ id }) => navigate(`/bench/introductions/${id}`, { replace: true }), setRefused)
  const toggle = (speciesId: string): void => setDominants((all) => (all.includes(speciesId) ? all.filter((each) => each !== speciesId) : [...all, speciesId]))
  return (
    <HandScreen className="introduction" title={`Into ${to.code}: how`} back={back}>
      <div className="move-parts">
        <div>
          <p className="introduction-mode">{modeWords(planned)}</p>
          <ul className="introduction-reasons">
            {planned.reasons.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
          <h3>Who rules {to.code}?</h3>
          <div className="net-list" role="group" aria-label="Who rules">
            {planned.residents.map(({ speciesId, name, quantity }) => (
              <Button key={`${speciesId} ${name}`} size="hand" aria-pressed={dominants.includes(speciesId)} onClick={() => toggle(speciesId)}>
                {name} <small>{quantity}</small>
              </Button>
            ))}
          </div>
          <div className="introduction-has">
            <Tick label="a divider is at hand" isOn={hasDivider} onChange={setDivider} />
            <Tick label="a mirror is at hand" isOn={hasMirror} onChange={setMirror} />
          </div>
          <MoveCheckLines check={planned.check} />
        </div>
        <PlannedSteps planned={planned} />
      </div>
      <Notice>House guidance, no promise of peace. Watch; a fish that hides and is bitten comes out.</Notice>
      {refused !== null && <Problem>{Object.values(errorsByField(refused) ?? {})[0] ?? sentenceOf(refused)}</Problem>}
      <div className="thumb-bar">
        <Button look="act" size="hand" disabled={!mayBegin} onClick={begin}>
          <strong>{mayBegin ? 'Begin' : 'Not like this'}</strong>
          <small>{planned.newcomers.map(({ name, quantity }) => `${quantity} ${name}`).join(', ')} into {to.code}</small>
        </Button>
      </div>
    </HandScreen>
  )
}

function modeWords({ plan }: PlannedIntroduction): string {
  const rulers = plan.dominants.join(', ')
  const words: Record<PlannedIntroduction['plan']['mode'], string> = {
    'do not': 'Do not: one would swallow the other.',
    plain: 'In, lights off, look: nobody has to come out.',
    out: `${rulers} out for about ${plan.outMinutes} min, newcomers in, then back.`,
    divider: `Behind a divider first: ${rulers} cannot be taken out.`,
    'not yet': 'Not yet.',
  }
  return words[plan.mode]
}

function PlannedSteps({ planned: { plan, newcomers } }: { planned: PlannedIntroduction }) {
  const names = { dominants: plan.dominants.join(', '), subdominants: plan.subdominants.join(', '), newcomers: newcomers.map(({ name, quantity }) => `${quantity} ${name}`).join(', '), vessels: plan.vessels.map(({ id }) => id).join(', ') }
  if (plan.steps.length === 0) return null
  return (
    <section aria-label="Steps">
      <h3>Steps</h3>
      <ol className="introduction-steps">
        {plan.steps.map((step, index) => (
          <li key={index}>
            <span>{stepTime(step.at)}</span>
            <span>
              <InUnits>{introductionStepWords(step, names)}</InUnits>
              {step.minutes > 0 && step.minutes < 240 && <small> {step.minutes} min</small>}
            </span>
          </li>
        ))}
      </ol>
      {plan.vessels.map(({ id, litres, fish, minutes }) => (
        <p key={id} className="aside-word">
          {id}: {fish.join(', ')}, {litres.toFixed(1)} L, bears them {minutes} min.
        </p>
      ))}
    </section>
  )
}
