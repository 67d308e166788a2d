import { snoozeMs } from './alarms'
import { eachApart } from '../collections/eachApart'
import type { Pending } from '../commands/pending'
import type { BenchView, RunView } from './benchView'
import type { DoStep, RecordRunReading, SetFlow, SetRunSwitch, SnoozeAlarm } from './bench.schema'
import { stepIndexOf, type RunEvent } from './runRecord'

/** Commands that a run shows before they are answered. */
export type PendingRunCommand = { key: string } & (
  | { command: 'doStep'; input: DoStep }
  | { command: 'recordRunReading'; input: RecordRunReading }
  | { command: 'setFlow'; input: SetFlow }
  | { command: 'snoozeAlarm'; input: SnoozeAlarm }
  | { command: 'setRunSwitch'; input: SetRunSwitch }
)
const runCommands: readonly string[] = ['doStep', 'recordRunReading', 'setFlow', 'snoozeAlarm', 'setRunSwitch'] satisfies PendingRunCommand['command'][]

const blank = { staffName: '', tempC: null, salinityPpt: null, ph: null, tanMgL: null, isSimulated: false, mlPerMin: null, alarm: null, untilMs: null, isOn: null, note: null } as const

/** Shows a run with what waits on this device, so that its clock follows the touch at once. */
export function withPendingRun(run: RunView, pending: readonly Pending[]): RunView {
  const own = pending.filter(({ command, params }) => runCommands.includes(command) && params.runId === run.id)
  return own.reduce((view, entry) => {
    const event = toEvent(view, entry as PendingRunCommand)
    return event ? { ...view, events: [...view.events, event] } : view
  }, run)
}

/** Shows the bench likewise; a run that cannot be read so stands as the server has it. */
export const withPendingOnBench = (bench: BenchView, pending: readonly Pending[]): BenchView => ({ ...bench, runs: eachApart(bench.runs, (run) => withPendingRun(run, pending), (run) => run) })

function toEvent(run: RunView, entry: PendingRunCommand): RunEvent | null {
  const base = { ...blank, id: entry.key, atMs: entry.input.happenedAtMs, stepIndex: stepIndexOf(run) }
  switch (entry.command) {
    case 'doStep':
      // Another device may have done it meanwhile; the server then says so.
      return entry.input.stepIndex === base.stepIndex ? { ...base, kind: 'step' } : null
    case 'recordRunReading': {
      const { tempC, salinityPpt, ph, tanMgL, isSimulated } = entry.input
      return { ...base, kind: 'reading', tempC, salinityPpt, ph, tanMgL, isSimulated }
    }
    case 'setFlow':
      return { ...base, kind: 'flow', mlPerMin: entry.input.mlPerMin }
    case 'snoozeAlarm':
      return { ...base, kind: 'snooze', alarm: entry.input.alarm, untilMs: entry.input.happenedAtMs + snoozeMs }
    case 'setRunSwitch':
      return { ...base, kind: entry.input.what, isOn: entry.input.isOn }
  }
}
