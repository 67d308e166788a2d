import { snoozeMs } from './alarms'
import type { RunView } from './benchView'
import type { DoStep, RecordRunReading, SetFlow, SetRunSwitch, SnoozeAlarm } from './bench.schema'
import { stepIndexOf, type RunEvent } from './runRecord'

/** A write of a run that still waits on this device. */
export type PendingRunCommand =
  | { command: 'doStep'; key: string; input: DoStep }
  | { command: 'recordRunReading'; key: string; input: RecordRunReading }
  | { command: 'setFlow'; key: string; input: SetFlow }
  | { command: 'snoozeAlarm'; key: string; input: SnoozeAlarm }
  | { command: 'setRunSwitch'; key: string; input: SetRunSwitch }

const blank = { staffName: '', tempC: null, salinityPpt: null, ph: null, tanMgL: null, isSimulated: false, mlPerMin: null, alarm: null, untilMs: null, isOn: null, note: null } as const

/** Shows a run as it will be once what waits has been sent, so that its clock follows the touch at once. */
export function withPendingRun(run: RunView, pending: readonly PendingRunCommand[]): RunView {
  return pending.reduce((view, entry) => {
    const event = toEvent(view, entry)
    return event ? { ...view, events: [...view.events, event] } : view
  }, run)
}

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
