import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { useForm } from 'react-hook-form'
import type { RunView } from '../../core/bench/benchView'
import { sentenceOf } from '../api/ApiProblem'
import { useRoomView } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { FormField, FormProblem } from '../ui/FormField'
import { Problem } from '../ui/Notice'
import { RuleRefusal } from '../ui/RuleRefusal'
import { tankLabel } from '../ui/TankOptions'
import { useRuleSubmit } from '../ui/useRuleSubmit'
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
  const [isOpen, setOpen] = useState(false)
  return isOpen ? (
    <EndForm run={run} onLeave={() => setOpen(false)} />
  ) : (
    <Button look="quiet" onClick={() => setOpen(true)}>
      end this run early
    </Button>
  )
}

function EndForm({ run, onLeave }: { run: RunView; onLeave: () => void }) {
  const { stopRun } = useRunWrites(run.id)
  const { room } = useRoomView()
  // Not the tank that was planned: a run ends early because something went otherwise.
  const form = useForm({ defaultValues: { because: '', tankId: '' } })
  const { refused, submit } = useRuleSubmit(form, ({ because, tankId }, against) => stopRun(because, run.inVessel > 0 ? tankId || null : null, against))
  const tanks = [{ value: '', label: 'choose' }, ...(room?.tanks ?? []).map((tank) => ({ value: tank.id, label: tankLabel(tank) }))]
  return (
    <Form noValidate className="end-early" onSubmit={(event) => (event.preventDefault(), void submit(null))}>
      <FormField form={form} name="because" label="why it ends" maxLength={500} autoComplete="off" />
      {run.inVessel > 0 && <FormField form={form} name="tankId" label={`tank that the ${run.inVessel} fish of its vessel are in now`} options={tanks} />}
      {run.inVessel > 0 && <p className="aside-word">They go there as many as the books have. Count them in their tank, and record the dead there.</p>}
      <Button type="submit" size="hand">
        End it
      </Button>
      <Button look="quiet" onClick={onLeave}>
        leave it
      </Button>
      <RuleRefusal problem={refused} mayRescue onAgain={(against) => void submit(against)} />
      <FormProblem form={form} />
    </Form>
  )
}
