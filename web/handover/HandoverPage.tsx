import { useState } from 'react'
import type { HandoverView } from '../../core/handover/handoverView'
import { sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { InUnits } from '../ui/InUnits'
import { HandScreen } from '../ui/HandScreen'
import { Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { Row, RowSection } from '../ui/Rows'
import { plural } from '../ui/format'
import { useFormat } from '../ui/useFormat'
import { useHandover, useHandoverWrites, useOpen } from './useHandover'
import './handover.css'

/** What others did since whoever reads was last here, what is open, and words for those who come next; on one page, read and ticked. */
export function HandoverPage() {
  const { handover, problem } = useHandover()
  if (!handover) return problem ? <Trouble problem={problem} back={{ to: '/today', label: 'Today' }} /> : <Waiting what="what happened" />
  return <Handover handover={handover} />
}

function Handover({ handover }: { handover: HandoverView }) {
  const { sinceMs, untilMs, sections } = handover
  const { recorder } = useSession()
  const { tick } = useHandoverWrites()
  const [problem, setProblem] = useState<string | null>(null)
  const [hasRead, setRead] = useState(false)
  const format = useFormat()
  const done = (): void => void tick(untilMs).then(() => (setRead(true), setProblem(null)), (error: unknown) => setProblem(sentenceOf(error)))
  return (
    <HandScreen className="handover" title="Handover" back={{ to: '/today', label: 'Today' }} aside={<span>{recorder.name}</span>}>
      <p className="lead-sentence">{hasRead ? `Read, ${recorder.name}.` : `${sections.length === 0 ? 'Nobody else recorded anything' : 'What others did'} since you were here, ${format.moment(sinceMs)}.`}</p>
      <div className="work-columns">
        <div>
          <Words handover={handover} />
          {sections.map(({ title, rows }) => (
            <RowSection key={title} title={title} count={rows.length}>
              {rows.map(({ words, detail, to, mark }, index) =>
                to === null ? (
                  <li key={index} className="record handover-line">
                    <InUnits>{words}</InUnits> {detail && <small>{detail}</small>}
                  </li>
                ) : (
                  <Row key={index} to={to} mark={mark ?? 'plan'}>
                    <InUnits>{words}</InUnits>
                    {detail && <small>{detail}</small>}
                  </Row>
                ),
              )}
            </RowSection>
          ))}
        </div>
        <div>
          <Open />
        </div>
      </div>
      <Problem>{problem}</Problem>
      {!hasRead && (
        <div className="thumb-bar">
          <Button look="act" size="hand" onClick={done}>
            <strong>Read</strong>
            <small>what is open is mine now</small>
          </Button>
        </div>
      )}
    </HandScreen>
  )
}

/** Words that were left, and a line for one's own. */
function Words({ handover: { notes } }: { handover: HandoverView }) {
  const { recorder } = useSession()
  const { leave, takeOff } = useHandoverWrites()
  const [typed, setTyped] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const format = useFormat()
  const attempt = (write: Promise<unknown>, after?: () => void): void => void write.then(() => (setProblem(null), after?.()), (error: unknown) => setProblem(sentenceOf(error)))
  const send = (): void => (typed.trim() === '' ? setProblem('Write what those who come next should know') : attempt(leave(typed.trim()), () => setTyped('')))
  return (
    <section className="row-section">
      <h2>Words left</h2>
      <ul className="record-list">
        {notes.map(({ id, by, atMs, words }) => (
          <li key={id} className="record handover-word">
            <span>
              {words}
              <small>
                {by}, {format.moment(atMs)}
              </small>
            </span>
            {(by === recorder.name || recorder.role === 'lead') && (
              <Button look="quiet" aria-label={`take off: ${words}`} onClick={() => attempt(takeOff(id))}>
                take off
              </Button>
            )}
          </li>
        ))}
      </ul>
      <form noValidate className="handover-form" onSubmit={(event) => (event.preventDefault(), send())}>
        <TextField label="For those who come next" value={typed} onChange={setTyped} problem={problem} />
        <Button type="submit">Leave it</Button>
      </form>
    </section>
  )
}

/** What is open and waits for whoever is here now. */
function Open() {
  const { acts, unchecked, due } = useOpen()
  return (
    <RowSection title="Open" count={acts.length + due.length + (unchecked > 0 ? 1 : 0)} nothing="Nothing presses.">
      {acts.map(({ tankId, code, species, reasons }) => (
        <Row key={tankId} to={`/room/${code}`} mark="harm" aside="act now">
          <strong>{code}</strong> {species}
          <small>{reasons[0]}</small>
        </Row>
      ))}
      {due.map((item) => (
        <Row key={item.id} to={item.to} mark={item.urgency === 'now' ? 'act' : 'plan'}>
          <strong>{item.about}</strong> <InUnits>{item.what}</InUnits>
        </Row>
      ))}
      {unchecked > 0 && (
        <Row to="/rounds" mark="plan">
          <strong>{plural(unchecked, 'tank')}</strong> not looked at today
        </Row>
      )}
    </RowSection>
  )
}
