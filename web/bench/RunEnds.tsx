import { useState } from 'react'
import type { RunView } from '../../core/bench/benchView'
import { Form } from 'react-bootstrap'
import { errorsByField, sentenceOf } from '../api/ApiProblem'
import { useRoomView } from '../api/sharedReads'
import { Labelled } from '../ui/Labelled'
import { RuleRefusal, ruleRefusalOf, type AgainstRule } from '../ui/RuleRefusal'
import { TankOptions } from '../ui/TankOptions'
import { runTo } from './laneWords'
import { useRunWrites } from './useBench'

/** The end of a look through the bag. */
export function Decide({ run }: { run: RunView }) {
  const { decideLook } = useRunWrites(run.id)
  const [note, setNote] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const decide = (outcome: 'add' | 'do not add'): void => void decideLook({ outcome, note: note || null }).catch((error: unknown) => setProblem(sentenceOf(error)))
  return (
    <section className="count-out" aria-label="Decide">
      <label className="reading">
        <span>
          what was seen <small>may be left out</small>
        </span>
        <input value={note} maxLength={500} onChange={(event) => setNote(event.currentTarget.value)} />
      </label>
      {problem && <p role="alert" className="form-problem">{problem}</p>}
      <div className="thumb-bar">
        <button type="button" className="hand-button" onClick={() => decide('do not add')}>
          <strong>Do not add</strong>
          <small>frees {runTo(run)}</small>
        </button>
        <button type="button" className="hand-button act" onClick={() => decide('add')}>
          <strong>Add them</strong>
          <small>then choose how</small>
        </button>
      </div>
    </section>
  )
}

/** Ends a run early. Fish that stand in its vessel are somewhere then: in which tank is asked. */
export function EndEarly({ run }: { run: RunView }) {
  const { stopRun } = useRunWrites(run.id)
  const { room } = useRoomView()
  const [because, setBecause] = useState<string | null>(null)
  // Not the tank that was planned: a run ends early because something went otherwise.
  const [tankId, setTankId] = useState('')
  const [problem, setProblem] = useState<unknown>(null)
  if (because === null)
    return (
      <button type="button" className="quiet-button" onClick={() => setBecause('')}>
        end this run early
      </button>
    )
  const said = ruleRefusalOf(problem) ? null : errorsByField(problem)
  const stop = (against: AgainstRule | null): void => {
    setProblem(null)
    stopRun(because, run.inVessel > 0 ? tankId || null : null, against).catch(setProblem)
  }
  return (
    <form
      className="end-early"
      onSubmit={(event) => {
        event.preventDefault()
        stop(null)
      }}
    >
      <Labelled label="why it ends" problem={said?.because ?? null}>
        {(field) => <Form.Control {...field} value={because} maxLength={500} onChange={(event) => setBecause(event.currentTarget.value)} />}
      </Labelled>
      {run.inVessel > 0 && (
        <Labelled label={`tank that the ${run.inVessel} fish of its vessel are in now`} problem={said?.tankId ?? null}>
          {(field) => (
            <Form.Select {...field} value={tankId} onChange={(event) => setTankId(event.currentTarget.value)}>
              <option value="">choose</option>
              <TankOptions tanks={room?.tanks ?? []} />
            </Form.Select>
          )}
        </Labelled>
      )}
      {run.inVessel > 0 && <p className="aside-word">They go there as many as the books have. Count them in their tank, and record the dead there.</p>}
      <button type="submit" className="hand-button">
        End it
      </button>
      <button type="button" className="quiet-button" onClick={() => setBecause(null)}>
        leave it
      </button>
      <RuleRefusal problem={problem} mayRescue onAgain={stop} />
      {problem !== null && said === null && ruleRefusalOf(problem) === null && <p role="alert" className="form-problem">{sentenceOf(problem)}</p>}
    </form>
  )
}
