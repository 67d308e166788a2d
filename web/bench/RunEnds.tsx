import { useState } from 'react'
import type { RunView } from '../../core/bench/benchView'
import { sentenceOf } from '../api/ApiProblem'
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

/** Ends a run before its fish are in a tank. */
export function EndEarly({ run }: { run: RunView }) {
  const { stopRun } = useRunWrites(run.id)
  const [because, setBecause] = useState<string | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  if (because === null)
    return (
      <button type="button" className="quiet-button" onClick={() => setBecause('')}>
        end this run early
      </button>
    )
  return (
    <form
      className="end-early"
      onSubmit={(event) => {
        event.preventDefault()
        stopRun(because).catch((error: unknown) => setProblem(sentenceOf(error)))
      }}
    >
      <label className="reading">
        <span>why it ends</span>
        <input value={because} maxLength={500} onChange={(event) => setBecause(event.currentTarget.value)} />
      </label>
      <button type="submit" className="hand-button">
        End it
      </button>
      <button type="button" className="quiet-button" onClick={() => setBecause(null)}>
        leave it
      </button>
      {problem && <p role="alert" className="form-problem">{problem}</p>}
    </form>
  )
}
