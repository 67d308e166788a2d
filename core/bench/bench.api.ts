import { object } from 'yup'
import { answers, command, named, read } from '../commands/declare'
import { word, words } from '../commands/queryFields'
import { countOutSchema, decideLookSchema, doRecheckSchema, doStepSchema, keepAirlineSchema, noteRunSchema, recordRunReadingSchema, setFlowSchema, setRunSwitchSchema, snoozeAlarmSchema, startRunSchema, stopRunSchema, undoRunEventSchema } from './bench.schema'
import type { AirlineView, BenchSubject, BenchView, RunView } from './benchView'
import { withPendingOnBench, withPendingRun } from './pendingRun'
import type { MeterReading } from './simulatedMeter'

interface OfRun {
  runId: string
}
type Noted = { id: string }

const ofRun = ({ runId }: OfRun) => [`run:${runId}`] as const
/** Steps that move fish: out of their bags, into their tank, and back when they are taken back. */
const ofFish = ({ runId }: OfRun) => [`run:${runId}`, 'bag', 'tank', 'recheck', 'rescue'] as const
const known = ['register', 'tank', 'house', 'limit', 'staff'] as const

/** Runs, looks afterwards, airlines. */
export const benchApi = named({
  /** open runs and those of the last day, rechecks, bags that wait, airlines */
  readBench: read({ path: '/api/bench', access: 'device', about: () => [...known, 'run', 'recheck', 'airline', 'crate', 'bag'], staysMs: 60_000, withPending: withPendingOnBench, answer: answers<BenchView>() }),
  /** airlines with their drops */
  readAirlines: read({ path: '/api/bench/airlines', access: 'device', about: () => ['airline', 'staff'], staysMs: Infinity, answer: answers<{ airlines: AirlineView[] }>() }),
  /** what is known of these fish and their tank, each figure with its source: `line` (again for each that shares the vessel; `bag` for one of its bags alone), or `lot` and `from`; `tank` */
  readSubject: read({ path: '/api/bench/subject', access: 'device', query: object({ line: words(64), bag: word(64), lot: word(64), from: word(64), kind: word(1), tank: word(64) }), about: () => [...known, 'run', 'crate', 'bag', 'look', 'school', 'contact', 'plan'], staysMs: 60_000, answer: answers<BenchSubject>() }),
  /** one run: plan, what happened, fish */
  readRun: read({ path: '/api/bench/runs/:runId', access: 'device', about: ({ runId }) => [`run:${runId}`, ...known, 'recheck', 'crate', 'bag'], staysMs: 60_000, withPending: withPendingRun, answer: answers<RunView>() }),
  /** the simulated bench meter */
  readMeter: read({ path: '/api/bench/runs/:runId/meter', access: 'device', about: ofRun, staysMs: 0, answer: answers<MeterReading & { isSimulated: boolean }>() }),
  /** *kind*: acclimation, bath, dip, look; *variant*: a slowed float; *tankId* or *toOutside*. *Against a rule*: override, isRescue */
  startRun: command({ method: 'post', path: '/api/bench/runs', access: 'keeper', schema: startRunSchema, touches: () => ['run', 'crate', 'bag', 'tank', 'rescue'], answer: answers<{ id: string; number: number }>() }),
  /** *stepIndex*: the one seen; 409 at a gate whose tank was not read */
  doStep: command({ method: 'post', path: '/api/bench/runs/:runId/steps', access: 'keeper', schema: doStepSchema, touches: ofFish, answer: answers<{ stepIndex: number }>() }),
  recordRunReading: command({ method: 'post', path: '/api/bench/runs/:runId/readings', access: 'keeper', schema: recordRunReadingSchema, touches: ofRun, answer: answers<Noted>() }),
  setFlow: command({ method: 'post', path: '/api/bench/runs/:runId/flows', access: 'keeper', schema: setFlowSchema, touches: ofRun, answer: answers<Noted>() }),
  snoozeAlarm: command({ method: 'post', path: '/api/bench/runs/:runId/snoozes', access: 'keeper', schema: snoozeAlarmSchema, touches: ofRun, answer: answers<Noted>() }),
  /** *what*: air, binder */
  setRunSwitch: command({ method: 'post', path: '/api/bench/runs/:runId/switches', access: 'keeper', schema: setRunSwitchSchema, touches: ofRun, answer: answers<Noted>() }),
  noteRun: command({ method: 'post', path: '/api/bench/runs/:runId/notes', access: 'keeper', schema: noteRunSchema, touches: ofRun, answer: answers<Noted>() }),
  /** *eventId*: the newest */
  undoRunEvent: command({ method: 'post', path: '/api/bench/runs/:runId/undone-entries', access: 'keeper', schema: undoRunEventSchema, touches: ofFish }),
  /** *counts*: lotId, alive, dead; also missing and difference: what became of them. *tankId* null: as planned. Whoever is not counted stays; the answer says how many. *Against a rule*: override, isRescue */
  countOut: command({ method: 'post', path: '/api/bench/runs/:runId/count', access: 'keeper', schema: countOutSchema, touches: ofFish, answer: answers<{ alive: number; dead: number; rest: number }>() }),
  /** *tankId* where fish stand in its vessel: they are there then. *Against a rule*: override, isRescue */
  stopRun: command({ method: 'post', path: '/api/bench/runs/:runId/stop', access: 'keeper', schema: stopRunSchema, touches: (run) => [...ofFish(run), 'crate'] }),
  /** *outcome* of a look: add, do not add */
  decideLook: command({ method: 'post', path: '/api/bench/runs/:runId/decision', access: 'keeper', schema: decideLookSchema, touches: (run) => [...ofFish(run), 'crate'] }),
  doRecheck: command({ method: 'post', path: '/api/bench/rechecks/:recheckId/answer', access: 'keeper', schema: doRecheckSchema, touches: () => ['recheck'] }),
  keepAirline: command({ method: 'post', path: '/api/bench/airlines', access: 'keeper', schema: keepAirlineSchema, touches: () => ['airline'], answer: answers<Noted>() }),
})
