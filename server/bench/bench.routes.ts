import { countOutSchema, decideLookSchema, doRecheckSchema, doStepSchema, keepAirlineSchema, noteRunSchema, recordRunReadingSchema, setFlowSchema, setRunSwitchSchema, snoozeAlarmSchema, startRunSchema, stopRunSchema, undoRunEventSchema } from '../../core/bench/bench.schema'
import { command, read, type Endpoint } from '../http/endpoint'
import type { BenchService } from './bench.service'
import type { SubjectService } from './subject.service'

/** Addresses of the bench. */
export const benchEndpoints = (bench: BenchService, subjects: SubjectService): Endpoint[] => [
  read({ path: '/api/bench', access: 'device', read: ({ nowMs }) => bench.view(nowMs) }),
  read({ path: '/api/bench/subject', access: 'device', read: ({ query, nowMs }) => subjects.view(query, nowMs) }),
  read({ path: '/api/bench/runs/:runId', access: 'device', read: ({ params }) => bench.run(params.runId) }),
  read({ path: '/api/bench/runs/:runId/meter', access: 'device', read: ({ params, nowMs }) => bench.meter(params.runId, nowMs) }),
  command({ method: 'post', path: '/api/bench/runs', access: 'keeper', name: 'startRun', schema: startRunSchema, run: bench.startRun }),
  command({ method: 'post', path: '/api/bench/runs/:runId/steps', access: 'keeper', name: 'doStep', schema: doStepSchema, run: bench.doStep }),
  command({ method: 'post', path: '/api/bench/runs/:runId/readings', access: 'keeper', name: 'recordRunReading', schema: recordRunReadingSchema, run: bench.recordReading }),
  command({ method: 'post', path: '/api/bench/runs/:runId/flows', access: 'keeper', name: 'setFlow', schema: setFlowSchema, run: bench.setFlow }),
  command({ method: 'post', path: '/api/bench/runs/:runId/snoozes', access: 'keeper', name: 'snoozeAlarm', schema: snoozeAlarmSchema, run: bench.snoozeAlarm }),
  command({ method: 'post', path: '/api/bench/runs/:runId/switches', access: 'keeper', name: 'setRunSwitch', schema: setRunSwitchSchema, run: bench.setSwitch }),
  command({ method: 'post', path: '/api/bench/runs/:runId/notes', access: 'keeper', name: 'noteRun', schema: noteRunSchema, run: bench.noteRun }),
  command({ method: 'post', path: '/api/bench/runs/:runId/undone-entries', access: 'keeper', name: 'undoRunEvent', schema: undoRunEventSchema, run: bench.undoEvent }),
  command({ method: 'post', path: '/api/bench/runs/:runId/count', access: 'keeper', name: 'countOut', schema: countOutSchema, run: bench.countOut }),
  command({ method: 'post', path: '/api/bench/runs/:runId/stop', access: 'keeper', name: 'stopRun', schema: stopRunSchema, run: bench.stopRun }),
  command({ method: 'post', path: '/api/bench/runs/:runId/decision', access: 'keeper', name: 'decideLook', schema: decideLookSchema, run: bench.decideLook }),
  command({ method: 'post', path: '/api/bench/rechecks/:recheckId/answer', access: 'keeper', name: 'doRecheck', schema: doRecheckSchema, run: bench.doRecheck }),
  command({ method: 'post', path: '/api/bench/airlines', access: 'keeper', name: 'keepAirline', schema: keepAirlineSchema, run: bench.keepAirline }),
]
