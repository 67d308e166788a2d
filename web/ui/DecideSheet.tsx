import { useState } from 'react'
import type { JudgedStop } from '../../core/rounds/roundView'
import { mostKnownDays } from '../../core/rounds/rounds.schema'
import type { ActWrites } from '../api/actWrites'
import { sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { Button } from './Button'
import { TextField } from './Field'
import { plural } from './format'
import { Problem } from './Notice'
import { Sheet } from './Sheet'
import { useFormat } from './useFormat'

type Sign = JudgedStop['signs'][number]

const knownDays = [1, 3, mostKnownDays] as const

interface Props {
  code: string
  signs: readonly Sign[]
  writes: ActWrites
  isOpen: boolean
  onClose: () => void
}

/** Signs of a tank, one by one: it is one, it is none, it is known. */
export function DecideSheet({ code, signs, writes, isOpen, onClose }: Props) {
  return (
    <Sheet title={`Signs in ${code}`} isOpen={isOpen} onClose={onClose}>
      <p className="aside-word">A sign that is confirmed begins the holds of all fish on its water again, on the day it was last seen. Nothing begins again by itself. That a sign is none, or known, is a lead’s word.</p>
      {signs.map((sign) => (
        <DecideOne key={`${sign.sign} ${sign.lotId ?? ''}`} sign={sign} writes={writes} />
      ))}
    </Sheet>
  )
}

function DecideOne({ sign, writes }: { sign: Sign; writes: ActWrites }) {
  const { recorder } = useSession()
  const format = useFormat()
  const [problem, setProblem] = useState<string | null>(null)
  const [saying, setSaying] = useState<'dismissed' | 'known' | null>(null)
  const [note, setNote] = useState('')
  const attempt = (write: Promise<unknown>): void => void write.then(() => (setProblem(null), setSaying(null)), (error: unknown) => setProblem(sentenceOf(error)))
  const { words, decision, asksHold, firstMs, lastMs } = sign
  return (
    <section className="decide-sign" aria-label={words}>
      <p>
        <strong>{words}</strong> seen {firstMs === lastMs ? format.moment(lastMs) : `from ${format.moment(firstMs)} to ${format.moment(lastMs)}`}
      </p>
      {decision && <Decided decision={decision} onUndo={() => attempt(writes.undoDecision(decision.id))} />}
      <div className="decide-ways">
        {asksHold && decision?.as !== 'confirmed' && (
          <Button size="hand" look={decision === null ? 'act' : 'plain'} onClick={() => attempt(writes.decide(sign, 'confirmed'))}>
            <strong>It is one: the hold begins again</strong>
          </Button>
        )}
        {recorder.role === 'lead' && decision === null && (
          <>
            <Button size="hand" aria-pressed={saying === 'dismissed'} onClick={() => setSaying(saying === 'dismissed' ? null : 'dismissed')}>
              it is none …
            </Button>
            <Button size="hand" aria-pressed={saying === 'known'} onClick={() => setSaying(saying === 'known' ? null : 'known')}>
              it is known …
            </Button>
          </>
        )}
      </div>
      {saying === 'dismissed' && (
        <>
          <TextField label="why it is none" size="hand" maxLength={500} value={note} onChange={setNote} />
          <Button size="hand" onClick={() => attempt(writes.decide(sign, 'dismissed', { note }))}>
            it is none
          </Button>
        </>
      )}
      {saying === 'known' && (
        <>
          <p className="aside-word">It raises nothing for so long, unless it grows worse. What is grave calls for somebody all the same.</p>
          <div className="decide-ways">
            {knownDays.map((days) => (
              <Button key={days} size="hand" onClick={() => attempt(writes.decide(sign, 'known', { days }))}>
                known for {plural(days, 'day')}
              </Button>
            ))}
          </div>
        </>
      )}
      <Problem>{problem}</Problem>
    </section>
  )
}

const asWords = { confirmed: 'It is one: holds began again', dismissed: 'It is none', known: 'Known' } as const

function Decided({ decision: { as, by, atMs, untilMs, note }, onUndo }: { decision: NonNullable<Sign['decision']>; onUndo: () => void }) {
  const format = useFormat()
  return (
    <p>
      {asWords[as]}
      {untilMs === null ? '' : ` until ${format.moment(untilMs)}`}
      {note ? `: ${note}` : ''}. {by}, {format.moment(atMs)}.{' '}
      <Button look="quiet" onClick={onUndo}>
        take it back
      </Button>
    </p>
  )
}
