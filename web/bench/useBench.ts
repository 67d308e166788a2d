import { useMemo } from 'react'
import { benchApi } from '../../core/bench/bench.api'
import type { RunView } from '../../core/bench/benchView'
import type { CountOut, DecideLook, KeepAirline, RecordRunReading, StartRun } from '../../core/bench/bench.schema'
import type { LookAfter } from '../../core/bench/expectedCourse'
import { followRun, type RunNow } from '../../core/bench/followRun'
import type { QueryOf } from '../../core/commands/declare'
import type { Limits } from '../../core/limits/houseLimits'
import { outcomesApi } from '../../core/outcomes/outcomes.api'
import type { TakePart } from '../../core/outcomes/outcomes.schema'
import { nowMs } from '../api/clock'
import { useIntroductions, useVessels } from '../api/sharedReads'
import { useWrite } from '../api/useOutbox'
import { askOnce, useRead } from '../api/useRead'
import type { AgainstRule } from '../ui/RuleRefusal'
import { useTick } from '../ui/useTick'
import { useUnits } from '../ui/useUnits'

const touch = { refusals: 'tray' } as const
const form = { refusals: 'form' } as const

/** One run as it stands on this device. */
export function useRun(runId: string) {
  const { data, problem } = useRead(benchApi.readRun, { params: { runId } }, { everyMs: 4000 })
  return { run: data, problem }
}

/** What the books know of some fish; null while nobody said which. */
export function useSubject(query: QueryOf<typeof benchApi.readSubject> | null) {
  const { data, problem } = useRead(benchApi.readSubject, query && { query }, { keepsPrevious: true })
  return { subject: data, problem }
}

const waterEveryMs = 5000

/** Where a run stands, drawn anew each second; its water is reckoned anew every few, and with every entry. */
export function useFollow(run: RunView, limits: Limits): { now: RunNow; atMs: number } {
  const { display } = useUnits()
  useTick(1000)
  const atMs = nowMs()
  const bucket = Math.floor(atMs / waterEveryMs)
  const stamp = `${run.id} ${run.events.map(({ id }) => id).join()}`
  // eslint-disable-next-line react-hooks/exhaustive-deps -- the stamp stands for the run
  const now = useMemo(() => followRun(run, limits, atMs, display), [stamp, limits, bucket, display])
  return { now, atMs }
}

/** What the simulated bench meter shows for a run. */
export const readMeter = (runId: string) => askOnce(benchApi.readMeter, { params: { runId } })

/** Writes of a run. Touches answer at once; counting out waits for its answer. */
export function useRunWrites(runId: string) {
  const write = useWrite()
  const params = { runId }
  const now = () => ({ happenedAtMs: nowMs() })
  return {
    doStep: (stepIndex: number, label: string) => void write(benchApi.doStep, { params, label, body: { stepIndex, ...now() } }, touch),
    recordReading: (reading: Omit<RecordRunReading, 'happenedAtMs'>) => void write(benchApi.recordRunReading, { params, label: 'a reading', body: { ...reading, ...now() } }, touch),
    setFlow: (mlPerMin: number) => void write(benchApi.setFlow, { params, label: `flow of ${Math.round(mlPerMin)} mL/min`, body: { mlPerMin, ...now() } }, touch),
    snooze: (alarm: string) => void write(benchApi.snoozeAlarm, { params, label: 'an alarm put off', body: { alarm, ...now() } }, touch),
    setSwitch: (what: 'air' | 'binder', isOn: boolean) => void write(benchApi.setRunSwitch, { params, label: `${what} ${isOn ? 'on' : 'off'}`, body: { what, isOn, ...now() } }, touch),
    undo: (eventId: string, what: string) => void write(benchApi.undoRunEvent, { params, label: `undo ${what}`, body: { eventId, ...now() } }, touch),
    noteRun: (note: string) => write(benchApi.noteRun, { params, label: 'a note', body: { note, ...now() } }, form),
    countOut: (input: Omit<CountOut, 'happenedAtMs'>) => write(benchApi.countOut, { params, label: 'fish counted out', body: { ...input, ...now() } }, form),
    stopRun: (because: string, tankId: string | null, against: AgainstRule | null = null) => write(benchApi.stopRun, { params, label: 'the run ended', body: { because, ...(tankId === null ? {} : { tankId }), ...(against ?? {}), ...now() } }, form),
    decideLook: (input: Omit<DecideLook, 'happenedAtMs'>) => write(benchApi.decideLook, { params, label: input.outcome, body: { ...input, ...now() } }, form),
  }
}

export function useBenchWrites() {
  const write = useWrite()
  return {
    startRun: (input: Omit<StartRun, 'happenedAtMs'>) => write(benchApi.startRun, { label: 'a run', body: { ...input, happenedAtMs: nowMs() } }, form),
    doRecheck: (recheckId: string, look: LookAfter, note: string | null) => void write(benchApi.doRecheck, { params: { recheckId }, label: 'a recheck', body: { look, note, happenedAtMs: nowMs() } }, touch),
    keepAirline: (input: KeepAirline) => void write(benchApi.keepAirline, { label: `airline ${input.name}`, body: input }, touch),
  }
}

/** What stands on the bench beside runs: newcomers on their way in, fish in buckets and boxes. */
export function useStandingBeside() {
  const [introductions, { vessels = [] }] = [useIntroductions(), useVessels()]
  return { introductions, vessels: vessels.filter(({ fish }) => fish.length > 0) }
}

/** What a running trial says of a crate; null where none does, or it is no crate. */
export const useTrialOf = (crateId: string | null) => useRead(outcomesApi.readTrialOfCrate, crateId === null ? null : { params: { crateId } }).data?.trial ?? null

/** A crate takes its place in a trial. */
export function useTakePart() {
  const write = useWrite()
  return (trialId: string, input: TakePart) => write(outcomesApi.takePart, { params: { trialId }, label: 'a crate takes part', body: input }, form)
}
