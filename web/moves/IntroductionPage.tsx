import { useState } from 'react'
import { Link, useParams } from 'react-router'
import type { IntroductionView, StepNow } from '../../core/moves/introductionView'
import { proposalWords } from '../../core/moves/introductionWords'
import type { RecordIntroduction } from '../../core/moves/introductions.schema'
import { nowMs } from '../api/clock'
import { Button } from '../ui/Button'
import { formatSpan } from '../ui/format'
import { HandScreen } from '../ui/HandScreen'
import { InUnits } from '../ui/InUnits'
import { Trouble, Waiting } from '../ui/PageState'
import { Refused, type AgainstRule } from '../ui/RuleRefusal'
import { useFormat } from '../ui/useFormat'
import { useTick } from '../ui/useTick'
import { stepTime } from './introductionClock'
import { BoxSheet, DeadSheet, LookSheet } from './IntroductionSheets'
import { useIntroduction, useMoveWrites } from './useMoves'
import './moves.css'
import './introduction.css'

type Happened = { kind: RecordIntroduction['kind']; more: Partial<Omit<RecordIntroduction, 'kind' | 'happenedAtMs'>> }

/** Newcomers and those who defend their place: the clock, what to do now, what was seen. */
export function IntroductionPage() {
  const { introductionId = '' } = useParams()
  const { introduction, problem } = useIntroduction(introductionId)
  if (!introduction) return problem ? <Trouble problem={problem} back={{ to: '/bench', label: 'The bench' }} /> : <Waiting what="the introduction" />
  return <Introduction introduction={introduction} />
}

function Introduction({ introduction }: { introduction: IntroductionView }) {
  useTick(1000)
  const { id, number, tank, day, steps, endedAtMs, isGivenUp, state } = introduction
  const writes = useMoveWrites()
  const [refused, setRefused] = useState<{ problem: unknown; tried: Happened } | null>(null)
  const [asking, setAsking] = useState<Asking | null>(null)
  const happened = (kind: Happened['kind'], more: Happened['more'] = {}, against: AgainstRule | null = null): void => {
    setAsking(null)
    setRefused(null)
    void writes.happened(id, kind, { ...more, ...(against ?? {}) }).catch((problem: unknown) => setRefused({ problem, tried: { kind, more } }))
  }
  const refuse = (problem: unknown): void => setRefused({ problem, tried: { kind: 'step', more: {} } })
  const next = endedAtMs === null ? steps.find(({ doneAtMs }) => doneAtMs === null) : undefined
  const isIn = state !== 'not begun'
  const isOpen = endedAtMs === null
  const doStep = (step: StepNow): void => happened(kindOf(step), { stepIndex: step.index, who: whoOf(step, introduction) })
  return (
    <HandScreen className="introduction" title={`Into ${tank.code}`} aside={<span>introduction {number}, day {day}</span>} back={{ to: '/bench', label: 'back to the bench' }}>
      <Now introduction={introduction} next={next} />
      {refused && <Refused problem={refused.problem} mayRescue onAgain={(against) => happened(refused.tried.kind, refused.tried.more, against)} />}
      {isOpen && isIn && <MoreHappened introduction={introduction} onHappened={happened} onAsk={setAsking} />}
      <div className="move-parts">
        <Steps steps={steps} startedAtMs={introduction.startedAtMs} next={next?.index ?? null} />
        <Story introduction={introduction} />
      </div>
      {isOpen && !isIn && (
        <div className="introduction-more">
          <Button size="hand" onClick={() => void writes.endIntroduction(id).catch(refuse)}>
            not after all
          </Button>
        </div>
      )}
      {!isOpen && (
        <p>
          {state === 'done' ? 'Over: they live together.' : isGivenUp ? 'Given up.' : 'Over.'} <Link to={`/room/${tank.code}`}>{tank.code}</Link>
        </p>
      )}
      <ThumbBar introduction={introduction} next={next} onUndo={() => void writes.undoIntroduction(id).catch(refuse)} onLook={() => setAsking('look')} onStep={doStep} />
      <LookSheet introduction={introduction} isOpen={asking === 'look'} onClose={() => setAsking(null)} onSay={(level, who) => happened('look', { level, who })} />
      <BoxSheet introduction={introduction} isOpen={asking === 'box'} onClose={() => setAsking(null)} onBox={(who, vesselId) => happened('box', { who, vesselId })} />
      <DeadSheet introduction={introduction} isOpen={asking === 'dead'} onClose={() => setAsking(null)} onSay={(who) => happened('dead', { who })} />
    </HandScreen>
  )
}

type Asking = 'look' | 'box' | 'dead'

/** What else may happen besides steps and looks. */
function MoreHappened({ introduction: { boxes, from }, onHappened, onAsk }: { introduction: IntroductionView; onHappened: (kind: Happened['kind'], more: Happened['more']) => void; onAsk: (what: Asking) => void }) {
  return (
    <div className="introduction-more" role="group" aria-label="Something else happened">
      {boxes.map(({ who }) => (
        <Button key={who} size="hand" onClick={() => onHappened('back', { who })}>
          {who} back
        </Button>
      ))}
      <Button size="hand" onClick={() => onAsk('box')}>
        box a bully …
      </Button>
      <Button size="hand" onClick={() => onHappened('taken out', { toTankId: from.id })}>
        newcomers out <small>to {from.code}</small>
      </Button>
      <Button size="hand" onClick={() => onAsk('dead')}>
        one died …
      </Button>
    </div>
  )
}

/** The way back, also out of what ended it by mistake; a look, and the step that is next: what is due is orange. */
function ThumbBar({ introduction: { entries, state, endedAtMs, isGivenUp }, next, onUndo, onLook, onStep }: { introduction: IntroductionView; next: StepNow | undefined; onUndo: () => void; onLook: () => void; onStep: (step: StepNow) => void }) {
  const [last, isOpen, isIn, isStepDue] = [isGivenUp ? 'given up' : entries.at(-1)?.words, endedAtMs === null, state !== 'not begun', next !== undefined && next.dueAtMs <= nowMs()]
  if (!isOpen && !last) return null
  return (
    <div className="thumb-bar">
      {last && (
        <Button look={isOpen ? 'bare' : 'plain'} size="hand" className={isOpen ? 'undo' : undefined} onClick={onUndo}>
          undo <small><InUnits>{last}</InUnits></small>
        </Button>
      )}
      {isOpen && isIn && (
        <Button look={isStepDue ? 'plain' : 'act'} size="hand" onClick={onLook}>
          <strong>Look</strong>
          <small>quiet, chased, hurt</small>
        </Button>
      )}
      {next && (
        <Button look={!isIn || isStepDue ? 'act' : 'plain'} size="hand" onClick={() => onStep(next)}>
          <strong>Done</strong>
          <small>
            <InUnits>{next.words}</InUnits>
          </small>
        </Button>
      )}
    </div>
  )
}

/** What a step is to the clock: most are done and no more. */
function kindOf({ code }: StepNow): RecordIntroduction['kind'] {
  if (code === 'newcomers-in') return 'in'
  if (code === 'divider-out') return 'divider out'
  return code === 'dominants-back' || code === 'subdominants-back' ? 'back' : 'step'
}

/** Whom a step is about. */
function whoOf({ code }: StepNow, { newcomers, plan }: IntroductionView): string | null {
  if (code === 'newcomers-in') return newcomers.map(({ name }) => name).join(', ')
  return code === 'dominants-back' ? plan.dominants.join(', ') : code === 'subdominants-back' ? plan.subdominants.join(', ') : null
}

/** The one next thing, and until when. */
function Now({ introduction: { proposes, boxes, nextLookAtMs, state, endedAtMs }, next }: { introduction: IntroductionView; next: StepNow | undefined }) {
  if (endedAtMs !== null) return null
  const box = boxes[0]
  const isStep = next !== undefined && (state === 'not begun' || next.dueAtMs <= nowMs() + 3_600_000)
  const dueAtMs = proposes === 'box' || proposes === 'take out' ? nowMs() : isStep ? next.dueAtMs : (nextLookAtMs ?? box?.dueAtMs ?? null)
  return (
    <p className="introduction-next" role="status">
      {proposes === 'box' || proposes === 'take out' || proposes === 'return' ? proposalWords(proposes) : isStep ? <InUnits>{next.words}</InUnits> : 'Look'}
      <small>
        {dueAtMs === null ? '' : dueAtMs <= nowMs() ? `now${nowMs() - dueAtMs > 60_000 ? `, ${formatSpan(nowMs() - dueAtMs)} late` : ''}` : `in ${formatSpan(dueAtMs - nowMs())}`}
        {box && `. ${box.who} ${box.vessel ? `in ${box.vessel}` : 'in its box'}, ${box.dueAtMs > nowMs() ? `${formatSpan(box.dueAtMs - nowMs())} more` : 'time is over'}`}
      </small>
    </p>
  )
}

function Steps({ steps, startedAtMs, next }: { steps: readonly StepNow[]; startedAtMs: number; next: number | null }) {
  const format = useFormat()
  return (
    <section aria-label="Steps">
      <h3>Steps</h3>
      <ol className="introduction-steps">
        {steps.map(({ index, words, dueAtMs, doneAtMs }) => (
          <li key={index} className={doneAtMs !== null ? 'is-done' : index === next ? 'is-next' : undefined}>
            <span>{doneAtMs === null ? (dueAtMs - startedAtMs > 86_400_000 ? stepTime(Math.round((dueAtMs - startedAtMs) / 60_000)) : format.time(dueAtMs)) : format.time(doneAtMs)}</span>
            <span>
              <InUnits>{words}</InUnits>
            </span>
          </li>
        ))}
      </ol>
    </section>
  )
}

function Story({ introduction: { entries, endedAtMs } }: { introduction: IntroductionView }) {
  const format = useFormat()
  // Steps stand beside it with their times.
  const told = entries.filter(({ stepIndex }) => stepIndex === null)
  return (
    <section aria-label="What happened">
      <h3>What happened</h3>
      {told.length === 0 && <p className="aside-word">Nothing{endedAtMs === null && ' yet'}.</p>}
      <ol className="introduction-story">
        {told.toReversed().map(({ id, words, who, kind, atMs, by }) => (
          <li key={id}>
            <span>
              <InUnits>{words}</InUnits>
              {kind === 'look' && who && `: ${who}`}
            </span>
            <small>
              {format.moment(atMs)} {by}
            </small>
          </li>
        ))}
      </ol>
    </section>
  )
}
