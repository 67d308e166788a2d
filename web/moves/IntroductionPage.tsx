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
import { Sheet } from '../ui/Sheet'
import { useFormat } from '../ui/useFormat'
import { useTick } from '../ui/useTick'
import { stepTime } from './introductionClock'
import { useIntroduction, useMoveWrites, useVessels } from './useMoves'
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
  const { id, number, tank, day, steps, endedAtMs, entries, state } = introduction
  const writes = useMoveWrites()
  const [refused, setRefused] = useState<{ problem: unknown; tried: Happened } | null>(null)
  const [asking, setAsking] = useState<'look' | 'box' | 'dead' | null>(null)
  const happened = (kind: Happened['kind'], more: Happened['more'] = {}, against: AgainstRule | null = null): void => {
    setAsking(null)
    setRefused(null)
    void writes.happened(id, kind, { ...more, ...(against ?? {}) }).catch((problem: unknown) => setRefused({ problem, tried: { kind, more } }))
  }
  const next = steps.find(({ doneAtMs }) => doneAtMs === null)
  const isIn = state !== 'not begun'
  const isOpen = endedAtMs === null
  const doStep = (step: StepNow): void => happened(kindOf(step), { stepIndex: step.index, who: whoOf(step, introduction) })
  return (
    <HandScreen className="introduction" title={`Into ${tank.code}`} aside={<span>introduction {number}, day {day}</span>} back={{ to: '/bench', label: 'back to the bench' }}>
      <Now introduction={introduction} next={next} />
      {refused && <Refused problem={refused.problem} mayRescue onAgain={(against) => happened(refused.tried.kind, refused.tried.more, against)} />}
      {isOpen && isIn && (
        <div className="introduction-more" role="group" aria-label="Something else happened">
          {introduction.boxes.map(({ who }) => (
            <Button key={who} size="hand" onClick={() => happened('back', { who })}>
              {who} back
            </Button>
          ))}
          <Button size="hand" onClick={() => setAsking('box')}>
            box a bully …
          </Button>
          <Button size="hand" onClick={() => happened('taken out', { toTankId: introduction.from.id })}>
            newcomers out <small>to {introduction.from.code}</small>
          </Button>
          <Button size="hand" onClick={() => setAsking('dead')}>
            one died …
          </Button>
        </div>
      )}
      <div className="move-parts">
        <Steps steps={steps} startedAtMs={introduction.startedAtMs} next={next?.index ?? null} />
        <Story introduction={introduction} />
      </div>
      {isOpen ? (
        <div className="thumb-bar">
          {entries.length > 0 && (
            <Button look="bare" size="hand" className="undo" onClick={() => void writes.undoIntroduction(id).catch((problem: unknown) => setRefused({ problem, tried: { kind: 'step', more: {} } }))}>
              undo <small>{entries.at(-1)?.words}</small>
            </Button>
          )}
          {isIn && (
            <Button look={next && next.dueAtMs <= nowMs() ? 'plain' : 'act'} size="hand" onClick={() => setAsking('look')}>
              <strong>Look</strong>
              <small>quiet, chased, hurt</small>
            </Button>
          )}
          {next && (
            <Button look={!isIn || next.dueAtMs <= nowMs() ? 'act' : 'plain'} size="hand" onClick={() => doStep(next)}>
              <strong>Done</strong>
              <small>
                <InUnits>{next.words}</InUnits>
              </small>
            </Button>
          )}
        </div>
      ) : (
        <p>
          {state === 'done' ? 'Over: they live together.' : 'Over.'} <Link to={`/room/${tank.code}`}>{tank.code}</Link>
        </p>
      )}
      <LookSheet introduction={introduction} isOpen={asking === 'look'} onClose={() => setAsking(null)} onSay={(level, who) => happened('look', { level, who })} />
      <BoxSheet introduction={introduction} isOpen={asking === 'box'} onClose={() => setAsking(null)} onBox={(who, vesselId) => happened('box', { who, vesselId })} />
      <Sheet title="Which newcomer died?" isOpen={asking === 'dead'} onClose={() => setAsking(null)}>
        <div className="introduction-more">
          {introduction.newcomers.map(({ name }) => (
            <Button key={name} size="hand" onClick={() => happened('dead', { who: name })}>
              {name}
            </Button>
          ))}
        </div>
      </Sheet>
    </HandScreen>
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

function Story({ introduction: { entries } }: { introduction: IntroductionView }) {
  const format = useFormat()
  // Steps stand beside it with their times.
  const told = entries.filter(({ stepIndex }) => stepIndex === null)
  return (
    <section aria-label="What happened">
      <h3>What happened</h3>
      {told.length === 0 && <p className="aside-word">Nothing yet.</p>}
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

interface SheetProps {
  introduction: IntroductionView
  isOpen: boolean
  onClose: () => void
}

function LookSheet({ introduction: { residents }, isOpen, onClose, onSay }: SheetProps & { onSay: (level: 'quiet' | 'chased' | 'hurt', who: string | null) => void }) {
  const [level, setLevel] = useState<'chased' | 'hurt' | null>(null)
  const say = (seen: 'quiet' | 'chased' | 'hurt', who: string | null): void => {
    setLevel(null)
    onSay(seen, who)
  }
  return (
    <Sheet title={level === null ? 'What is seen?' : 'By whom?'} isOpen={isOpen} onClose={() => (setLevel(null), onClose())}>
      <div className="introduction-more">
        {level === null ? (
          <>
            <Button size="hand" onClick={() => say('quiet', null)}>
              quiet
            </Button>
            <Button size="hand" onClick={() => setLevel('chased')}>
              chased
            </Button>
            <Button size="hand" onClick={() => setLevel('hurt')}>
              hurt
            </Button>
          </>
        ) : (
          <>
            {residents.map(({ name }) => (
              <Button key={name} size="hand" onClick={() => say(level, name)}>
                {name}
              </Button>
            ))}
            <Button size="hand" onClick={() => say(level, null)}>
              nobody saw by whom
            </Button>
          </>
        )}
      </div>
    </Sheet>
  )
}

function BoxSheet({ introduction: { residents, newcomers }, isOpen, onClose, onBox }: SheetProps & { onBox: (who: string, vesselId: string) => void }) {
  const { vessels = [] } = useVessels()
  const [who, setWho] = useState<string | null>(null)
  const free = vessels.filter(({ kind, fish }) => kind === 'box' && fish.length === 0)
  const bullies = [...residents, ...newcomers].map(({ name }) => name)
  return (
    <Sheet title={who === null ? 'Who goes into a box?' : `${who}: into which box?`} isOpen={isOpen} onClose={() => (setWho(null), onClose())}>
      <div className="introduction-more">
        {who === null
          ? bullies.map((name) => (
              <Button key={name} size="hand" onClick={() => setWho(name)}>
                {name}
              </Button>
            ))
          : free.map(({ id, name }) => (
              <Button key={id} size="hand" onClick={() => (setWho(null), onBox(who, id))}>
                {name}
              </Button>
            ))}
        {who !== null && free.length === 0 && <p>No box is free. A lead enters them under Setup, Buckets and boxes.</p>}
      </div>
    </Sheet>
  )
}
