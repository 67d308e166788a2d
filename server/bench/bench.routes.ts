import { benchApi } from '../../core/bench/bench.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { BenchService } from './bench.service'
import type { SubjectService } from './subject.service'

/** Answers for the bench. */
export function benchEndpoints(bench: BenchService, subjects: SubjectService): Endpoint[] {
  const { startRun, doStep, setFlow, snoozeAlarm, noteRun, countOut, stopRun, decideLook, doRecheck, keepAirline } = bench
  return serve(benchApi, {
    readBench: ({ nowMs }) => bench.view(nowMs),
    readAirlines: () => ({ airlines: bench.airlines() }),
    readSubject: ({ query, nowMs }) => subjects.view(query, nowMs),
    readRun: ({ params }) => bench.run(params.runId),
    readMeter: ({ params, nowMs }) => bench.meter(params.runId, nowMs),
    recordRunReading: bench.recordReading,
    setRunSwitch: bench.setSwitch,
    undoRunEvent: bench.undoEvent,
    ...{ startRun, doStep, setFlow, snoozeAlarm, noteRun, countOut, stopRun, decideLook, doRecheck, keepAirline },
  })
}
