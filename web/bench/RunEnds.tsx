import { useState } from 'react'
import type { RunView } from '../../core/bench/benchView'
import { errorsByField, sentenceOf } from '../api/ApiProblem'
import { useRoomView } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { ChoiceField, TextField } from '../ui/Field'
import { Problem } from '../ui/Notice'
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
      <TextField label="what was seen" isOptional size="hand" maxLength={500} value={note} onChange={setNote} />
      <Problem>{problem}</Problem>
      <div className="thumb-bar">
        <Button size="hand" onClick={() => decide('do not add')}>
          <strong>Do not add</strong>
          <small>frees {runTo(run)}</small>
        </Button>
        <Button look="act" size="hand" onClick={() => decide('add')}>
          <strong>Add them</strong>
          <small>then choose how</small>
        </Button>
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
      <Button look="quiet" onClick={() => setBecause('')}>
        end this run early
      </Button>
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
      <TextField label="why it ends" problem={said?.because} maxLength={500} value={because} onChange={setBecause} />
      {run.inVessel > 0 && (
        <ChoiceField label={`tank that the ${run.inVessel} fish of its vessel are in now`} problem={said?.tankId} value={tankId} onChange={setTankId}>
          <option value="">choose</option>
          <TankOptions tanks={room?.tanks ?? []} />
        </ChoiceField>
      )}
      {run.inVessel > 0 && <p className="aside-word">They go there as many as the books have. Count them in their tank, and record the dead there.</p>}
      <Button type="submit" size="hand">
        End it
      </Button>
      <Button look="quiet" onClick={() => setBecause(null)}>
        leave it
      </Button>
      <RuleRefusal problem={problem} mayRescue onAgain={stop} />
      {problem !== null && said === null && ruleRefusalOf(problem) === null && <Problem>{sentenceOf(problem)}</Problem>}
    </form>
  )
}
