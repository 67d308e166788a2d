import { useState } from 'react'
import { Link } from 'react-router'
import type { TrialView } from '../../core/outcomes/outcomeViews'
import { plural } from '../../core/words/plural'
import { sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { RowSection } from '../ui/Rows'
import { Table } from '../ui/Table'
import { useFormat } from '../ui/useFormat'
import { BeginTrial } from './BeginTrial'
import { OutcomesNav } from './OutcomesNav'
import { useTrials, useTrialWrites } from './useTrials'
import './outcomes.css'

/** What is being tried: two schools over crates, by a schedule that was drawn once. */
export function TrialsPage() {
  const { trials: view, problem } = useTrials()
  const { recorder } = useSession()
  if (!view) return problem ? <Trouble problem={problem} /> : <Waiting what="the trials" />
  const [running, ended] = [view.trials.filter(({ state }) => state !== 'ended'), view.trials.filter(({ state }) => state === 'ended')]
  return (
    <>
      <Lead title="Trials" nav={<OutcomesNav />}>
        {running[0]?.sentence ?? (view.proposal ? `Worth trying: ${view.proposal.schools.join(' or ')}. Nobody can tell yet which keeps more alive.` : 'No trial runs. Two schools that are both within the house’s limits can be held against each other here, crate by crate.')}
      </Lead>
      {running.map((trial) => (
        <TrialSheet key={trial.id} trial={trial} />
      ))}
      {running.length === 0 && recorder.role === 'lead' && <BeginTrial view={view} />}
      {running.length === 0 && recorder.role !== 'lead' && <p className="aside-word">A lead begins a trial.</p>}
      <RowSection title="Ended" count={ended.length}>
        {ended.map((trial) => (
          <li key={trial.id} className="record">
            <TrialSheet trial={trial} />
          </li>
        ))}
      </RowSection>
    </>
  )
}

function TrialSheet({ trial }: { trial: TrialView }) {
  const { number, schools, day, cratesPerSchool, done, blocks, crates, taken, state, note, asDone } = trial
  const format = useFormat()
  return (
    <section className="row-section trial" aria-label={`Trial ${number}`}>
      <h2>
        Trial {number}: {schools[0]} or {schools[1]}
      </h2>
      {state === 'ended' && <p>{trial.sentence}</p>}
      {note && <p className="aside-word">{note}</p>}
      <dl className="facts">
        <div>
          <dt>followed to day {day}</dt>
          <dd>
            {done[0]} of {schools[0]}, {done[1]} of {schools[1]}; {cratesPerSchool} of each wanted
          </dd>
        </div>
        <div>
          <dt>places used</dt>
          <dd>{blocks.map(({ block, used, of }) => `${block} ${used} of ${of}`).join('; ')}</dd>
        </div>
        {taken.map(({ look, sentence, by, atMs }) => (
          <div key={`${look} ${atMs}`}>
            <dt>{format.moment(atMs)}</dt>
            <dd>
              {sentence} <small>{by}</small>
            </dd>
          </div>
        ))}
        {asDone !== null && (
          <div>
            <dt>as it was really done</dt>
            <dd>{asDone}</dd>
          </div>
        )}
      </dl>
      {state !== 'ended' && <LeadsPart trial={trial} />}
      {crates.length > 0 && (
        <details>
          <summary>{plural(crates.length, 'crate')}</summary>
          <Table responsive>
            <thead>
              <tr>
                <th scope="col">crate</th>
                <th scope="col">supplier</th>
                <th scope="col">by the schedule</th>
                <th scope="col">as done</th>
                <th scope="col">fish</th>
                <th scope="col">day {day}</th>
              </tr>
            </thead>
            <tbody>
              {crates.map((crate) => (
                <tr key={crate.crateId}>
                  <th scope="row">
                    <Link to={`/crates/${crate.crateId}`}>{crate.number}</Link>
                  </th>
                  <td>{crate.block}</td>
                  <td>{crate.school}</td>
                  <td>{crate.asDone ?? 'not begun'}</td>
                  <td>{crate.fish}</td>
                  <td>{crate.isFollowed ? 'over' : 'not yet'}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        </details>
      )}
    </section>
  )
}

/** What waits for a lead: a look that is due, a pause, the end. */
function LeadsPart({ trial: { id, state, pausedBy } }: { trial: TrialView }) {
  const { recorder } = useSession()
  const writes = useTrialWrites()
  const [words, setWords] = useState('')
  const [isEnding, setEnding] = useState(false)
  const [problem, setProblem] = useState<string | null>(null)
  const attempt = (write: Promise<unknown>): void => void write.then(() => (setProblem(null), setWords(''), setEnding(false)), (error: unknown) => setProblem(sentenceOf(error)))
  if (recorder.role !== 'lead') return state === 'running' ? null : <p className="aside-word">A lead decides.</p>
  return (
    <div className="trial-lead">
      {state === 'look due' && (
        <Button look="act" size="hand" onClick={() => attempt(writes.takeLook(id))}>
          take the look
        </Button>
      )}
      {(state === 'paused' || isEnding) && <TextField label={isEnding ? 'Why it ends' : 'Why it may go on'} value={words} onChange={setWords} />}
      {state === 'paused' && pausedBy !== null && !isEnding && (
        <Button look="act" size="hand" onClick={() => attempt(writes.goOn(id, pausedBy, words))}>
          it goes on
        </Button>
      )}
      <Button look={isEnding ? 'act' : 'quiet'} onClick={() => (isEnding ? attempt(writes.end(id, words)) : setEnding(true))}>
        {isEnding ? 'end it without a result' : 'end this trial …'}
      </Button>
      <Problem>{problem}</Problem>
    </div>
  )
}
