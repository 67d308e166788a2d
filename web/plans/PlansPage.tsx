import { useState } from 'react'
import { Link } from 'react-router'
import { capital } from '../../core/words/capital'
import { isAmiss, stateWords } from '../../core/plans/planWords'
import type { PlanView, ToMeasure } from '../../core/plans/planView'
import { errorsByField, sentenceOf } from '../api/ApiProblem'
import { Apart } from '../ui/Apart'
import { Button, ButtonLink } from '../ui/Button'
import { TextField } from '../ui/Field'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { useFormat } from '../ui/useFormat'
import { usePlans, usePlanWrites } from './usePlans'
import './plans.css'

/** Moves that wait: what can go first, then what is amiss, then what each of the others waits for. */
export function PlansPage() {
  const { plans, problem } = usePlans()
  if (!plans) return problem ? <Trouble problem={problem} /> : <Waiting what="the plans" />
  const open = plans.filter(({ ended }) => ended === null)
  const rank = ({ state }: PlanView): number => (state === 'ready' ? 0 : state === 'ask' ? 1 : isAmiss(state) ? 2 : 3)
  const ended = plans.filter((each) => each.ended !== null).sort((a, b) => (b.ended?.atMs ?? 0) - (a.ended?.atMs ?? 0))
  return (
    <>
      <Lead title="Plans">
        <PlansSentence open={open} />
      </Lead>
      <ul className="plan-list">
        {[...open].sort((a, b) => rank(a) - rank(b) || a.number - b.number).map((plan) => (
          <Apart key={plan.id} what={`Plan ${plan.number}`} of={plan} isRow>
            <PlanRow plan={plan} />
          </Apart>
        ))}
      </ul>
      {ended.length > 0 && (
        <details className="plans-ended">
          <summary>{plural(ended.length, 'plan')} of the last days</summary>
          <ul className="plan-list">
            {ended.map((plan) => (
              <EndedRow key={plan.id} plan={plan} />
            ))}
          </ul>
        </details>
      )}
    </>
  )
}

function PlansSentence({ open }: { open: readonly PlanView[] }) {
  const first = open.find(({ state }) => state === 'ready')
  if (open.length === 0) return <>No move waits for anything. One is planned under “move” on the page of a tank, where the fish and the place are chosen.</>
  if (first) return <>Plan {first.number} can go now: {fishWords(first)} from {first.from.code} to {first.to.code}.</>
  const asking = open.find(({ state }) => state === 'ask')
  if (asking) return <>Plan {asking.number} asks for a measure.</>
  return <>{plural(open.length, 'plan waits', 'plans wait')}; none can go yet.</>
}

const fishWords = ({ fish }: PlanView): string => fish.map(({ name, quantity }) => `${quantity} ${name}`).join(', ')

/** The page of the move that carries a plan out, with everything filled in. */
const moveOf = ({ id, from, to, fish }: PlanView): string =>
  `/room/${from.code}/move?plan=${id}&to=tank:${to.id}&fish=${encodeURIComponent(JSON.stringify(fish.map(({ speciesId, strain, quantity }) => ({ speciesId, strain, lotIds: [], quantity }))))}`

/** A plan for the same fish once this one is done. */
const thenOf = ({ id, to, fish }: PlanView): string =>
  `/plans/new?from=${to.code}&fish=${encodeURIComponent(JSON.stringify(fish.map(({ speciesId, strain, quantity }) => ({ speciesId, strain, lotIds: [], quantity }))))}&facts=${encodeURIComponent(JSON.stringify([{ is: 'done', planId: id }]))}`

function PlanRow({ plan }: { plan: PlanView }) {
  const format = useFormat()
  const writes = usePlanWrites()
  const [problem, setProblem] = useState<string | null>(null)
  const { number, state, from, to, facts, waits, join, deadlock, untilOn, note, madeBy, madeAtMs, takes } = plan
  const end = (as: 'done' | 'dropped'): void => void writes.end(plan.id, as).catch((error: unknown) => setProblem(sentenceOf(error)))
  return (
    <li className={`plan is-${state}`} id={`plan-${number}`}>
      <div className="plan-head">
        <strong>
          {number} · {fishWords(plan)}
        </strong>
        <span>
          <Link to={`/room/${from.code}`}>{from.code}</Link> to <Link to={`/room/${to.code}`}>{to.code}</Link>
        </span>
        <span className={`plan-state is-${state}`}>{stateWords[state]}</span>
      </div>
      {state !== 'ready' && (
        <p className="plan-waits">
          {deadlock.length > 0 ? `Waits for ${deadlock.join(', ')}, and they for it: one of them needs a third place.` : `${isAmiss(state) ? '' : 'Waits for '}${join === 'any' && facts.length > 1 ? 'any of: ' : ''}${waits.join('; ') || facts.join('; ')}.`}
        </p>
      )}
      {plan.measure.map((fish) => (
        <Measure key={`${fish.tankId} ${fish.speciesId}`} fish={fish} onMeasure={(cm) => writes.measured(fish, cm)} />
      ))}
      {state !== 'ready' && plan.things.map((thing) => <Count key={thing.name} {...thing} onCount={(have) => writes.count(thing.name, have)} />)}
      <div className="entry-buttons">
        {state === 'ready' && (
          <ButtonLink look="act" to={moveOf(plan)}>
            move them
          </ButtonLink>
        )}
        {plan.readAt.map((code) => (
          <ButtonLink key={code} size="hand" to={`/room/${code}`}>
            read at {code}
          </ButtonLink>
        ))}
        <ButtonLink look="quiet" to={thenOf(plan)}>
          and then …
        </ButtonLink>
        <Button look="quiet" onClick={() => end('done')}>
          done already
        </Button>
        <Button look="quiet" onClick={() => end('dropped')}>
          drop it
        </Button>
        <small className="aside-word">
          {takes === 'whole' ? `${to.code} is kept for them. ` : ''}
          {untilOn ? `Until ${untilOn}. ` : ''}
          {note ? `${capital(note)}. ` : ''}
          {madeBy}, {format.moment(madeAtMs)}
        </small>
      </div>
      <Problem>{problem}</Problem>
    </li>
  )
}

function EndedRow({ plan }: { plan: PlanView }) {
  const format = useFormat()
  const writes = usePlanWrites()
  const { number, state, from, to, ended } = plan
  return (
    <li className="plan">
      <span>
        {number} · {fishWords(plan)}, {from.code} to {to.code}: {stateWords[state]}
      </span>
      <small className="aside-word">
        {ended?.by}, {ended ? format.moment(ended.atMs) : ''}
      </small>
      <Button look="quiet" onClick={() => void writes.end(plan.id, 'open')}>
        open it again
      </Button>
    </li>
  )
}

/** Fish that only a ruler can tell of. */
function Measure({ fish, onMeasure }: { fish: ToMeasure; onMeasure: (cm: number) => Promise<unknown> }) {
  return <Figure label={`Length of ${fish.species} in ${fish.tankCode}`} unit="cm" words="measured" path="cm" onSend={onMeasure} />
}

/** How many of something are here. */
function Count({ name, have, onCount }: { name: string; have: number | null; onCount: (have: number) => Promise<unknown> }) {
  return <Figure label={`${name} here now`} first={have === null ? '' : String(have)} words="count" path="have" onSend={onCount} />
}

function Figure({ label, unit, first = '', words, path, onSend }: { label: string; unit?: string; first?: string; words: string; path: string; onSend: (value: number) => Promise<unknown> }) {
  const [typed, setTyped] = useState(first)
  const [problem, setProblem] = useState<string | null>(null)
  const send = (): void => {
    void onSend(Number(typed.replace(',', '.'))).then(
      () => setProblem(null),
      (error: unknown) => setProblem(errorsByField(error)?.[path] ?? sentenceOf(error)),
    )
  }
  return (
    <div className="plan-figure">
      <TextField label={label} unit={unit} inputMode="decimal" value={typed} problem={problem} onChange={setTyped} />
      <Button size="hand" disabled={typed.trim() === ''} onClick={send}>
        {words}
      </Button>
    </div>
  )
}
