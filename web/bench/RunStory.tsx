import type { RunView } from '../../core/bench/benchView'
import type { RunEvent } from '../../core/bench/runRecord'
import { useFormat } from '../ui/useFormat'
import { useUnits, type Units } from '../ui/useUnits'

/** The plan with what was done of it, and everything that was recorded on the way. */
export function RunStory({ run, index }: { run: RunView; index: number }) {
  const format = useFormat()
  const units = useUnits()
  const steps = run.events.filter(({ kind }) => kind === 'step')
  const others = run.events.filter(({ kind }) => kind !== 'step' && kind !== 'snooze')
  return (
    <details className="run-story" open={run.endedAtMs !== null}>
      <summary>
        Plan and records: {Math.min(index, run.plan.steps.length)} of {run.plan.steps.length} steps, {others.length} recorded
      </summary>
      <ol>
        {run.plan.steps.map((step, nth) => (
          <li key={nth} className={nth < index ? 'is-done' : nth === index ? 'is-now' : undefined}>
            <span>{step.title}</span> <small>{nth < index ? `${format.time(steps[nth]?.atMs ?? 0)} ${steps[nth]?.staffName ?? ''}` : step.minutes ? (step.minutes >= 1440 ? '1 day' : `${step.minutes} min`) : ''}</small>
          </li>
        ))}
      </ol>
      {others.length > 0 && (
        <ul>
          {others.map((event) => (
            <li key={event.id}>
              {format.time(event.atMs)} {eventWords(event, units)} <small>{event.staffName}</small>
            </li>
          ))}
        </ul>
      )}
      {run.load && <p>Bag water that went into the tank: {units.show('volume', run.load.litres)} with {run.load.tanMgL.toFixed(2)} mg N/L of total ammonia, {(run.load.litres * run.load.tanMgL).toFixed(1)} mg in all.</p>}
      {run.plan.sentence && <p className="aside-word">Recommended then: {run.plan.sentence}</p>}
    </details>
  )
}

function eventWords({ kind, tempC, salinityPpt, ph, tanMgL, isSimulated, mlPerMin, isOn, note }: RunEvent, units: Units): string {
  if (kind === 'reading') return `${[tempC !== null && units.show('temperature', tempC), salinityPpt !== null && units.show('salinity', salinityPpt), ph !== null && `pH ${ph}`, tanMgL !== null && `ammonia ${tanMgL} mg N/L`].filter(Boolean).join(', ')}${isSimulated ? ' (simulated meter)' : ''}`
  if (kind === 'flow') return `flow ${Math.round(mlPerMin ?? 0)} mL/min`
  if (kind === 'air') return `air stone ${isOn ? 'in' : 'out'}`
  if (kind === 'binder') return isOn ? 'ammonia binder added' : 'binder worn out'
  return note ?? ''
}
