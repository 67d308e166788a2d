import { useMemo } from 'react'
import useSWR from 'swr'
import type { BenchSubject, RunView } from '../../core/bench/benchView'
import type { CountOut, DecideLook, KeepAirline, RecordRunReading, StartRun } from '../../core/bench/bench.schema'
import type { LookAfter } from '../../core/bench/expectedCourse'
import { followRun, type RunNow } from '../../core/bench/followRun'
import { withPendingRun, type PendingRunCommand } from '../../core/bench/pendingRun'
import type { MeterReading } from '../../core/bench/simulatedMeter'
import { eachApart } from '../../core/collections/eachApart'
import type { Limits } from '../../core/limits/houseLimits'
import { nowMs } from '../api/clock'
import { fetchJson } from '../api/fetchJson'
import { useBenchView } from '../api/sharedReads'
import { usePending, useWrite } from '../api/useOutbox'
import type { AgainstRule } from '../ui/RuleRefusal'
import { useTick } from '../ui/useTick'
import { useUnits } from '../ui/useUnits'
import { runKey, subjectKey } from './bench.keys'

const touches = ['doStep', 'recordRunReading', 'setFlow', 'snoozeAlarm', 'setRunSwitch']
const pendingOf = (entries: ReturnType<typeof usePending>): PendingRunCommand[] => entries.map(({ command, key, body }) => ({ command, key, input: body }) as PendingRunCommand)

/** The bench as it stands on this device. */
export function useBench() {
  const { bench, problem } = useBenchView({ refreshInterval: 5000 })
  const pending = usePending(touches, '/api/bench/runs/')
  const runs = bench && eachApart(bench.runs, (run) => withPendingRun(run, pendingOf(pending.filter(({ path }) => path.includes(`/${run.id}/`)))), (run) => run)
  return { bench: bench && runs ? { ...bench, runs } : undefined, problem }
}

/** One run as it stands on this device. */
export function useRun(runId: string) {
  const { data, error } = useSWR<RunView, unknown>(runKey(runId), () => fetchJson<RunView>(`/api/bench/runs/${runId}`), { refreshInterval: 4000 })
  const pending = usePending(touches, `/api/bench/runs/${runId}/`)
  return { run: data && withPendingRun(data, pendingOf(pending)), problem: error }
}

/** What the books know of some fish; `query` is the address's. */
export function useSubject(query: string) {
  const { data, error } = useSWR<BenchSubject, unknown>(query ? subjectKey(query) : null, () => fetchJson<BenchSubject>(`/api/bench/subject?${query}`), { keepPreviousData: true, revalidateOnFocus: false })
  return { subject: data, problem: error }
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
export const readMeter = (runId: string): Promise<MeterReading & { isSimulated: boolean }> => fetchJson(`/api/bench/runs/${runId}/meter`)

/** Writes of a run. Touches answer at once; counting out waits for its answer. */
export function useRunWrites(runId: string) {
  const write = useWrite()
  const path = `/api/bench/runs/${runId}`
  const touch = (command: string, part: string, label: string, body: object): void => void write({ command, path: `${path}/${part}`, label, body: { ...body, happenedAtMs: nowMs() } }, { refusals: 'tray' })
  const form = (command: string, part: string, label: string, body: object) => write({ command, path: `${path}/${part}`, label, body: { ...body, happenedAtMs: nowMs() } }, { refusals: 'form' })
  return {
    doStep: (stepIndex: number, title: string) => touch('doStep', 'steps', title, { stepIndex }),
    recordReading: (reading: Omit<RecordRunReading, 'happenedAtMs'>) => touch('recordRunReading', 'readings', 'a reading', reading),
    setFlow: (mlPerMin: number) => touch('setFlow', 'flows', `flow of ${Math.round(mlPerMin)} mL/min`, { mlPerMin }),
    snooze: (alarm: string) => touch('snoozeAlarm', 'snoozes', 'an alarm put off', { alarm }),
    setSwitch: (what: 'air' | 'binder', isOn: boolean) => touch('setRunSwitch', 'switches', `${what} ${isOn ? 'on' : 'off'}`, { what, isOn }),
    undo: (eventId: string, label: string) => touch('undoRunEvent', 'undone-entries', `undo ${label}`, { eventId }),
    noteRun: (note: string) => form('noteRun', 'notes', 'a note', { note }),
    countOut: (input: Omit<CountOut, 'happenedAtMs'>) => form('countOut', 'count', 'fish counted out', input),
    stopRun: (because: string, tankId: string | null, against: AgainstRule | null = null) => form('stopRun', 'stop', 'the run ended', { because, ...(tankId === null ? {} : { tankId }), ...(against ?? {}) }),
    decideLook: (input: Omit<DecideLook, 'happenedAtMs'>) => form('decideLook', 'decision', input.outcome, input),
  }
}

export function useBenchWrites() {
  const write = useWrite()
  return {
    startRun: (input: Omit<StartRun, 'happenedAtMs'>) => write({ command: 'startRun', path: '/api/bench/runs', label: 'a run', body: { ...input, happenedAtMs: nowMs() } }, { refusals: 'form' }) as Promise<{ id: string; number: number }>,
    doRecheck: (recheckId: string, look: LookAfter, note: string | null) => void write({ command: 'doRecheck', path: `/api/bench/rechecks/${recheckId}/answer`, label: 'a recheck', body: { look, note, happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    keepAirline: (input: KeepAirline) => void write({ command: 'keepAirline', path: '/api/bench/airlines', label: `airline ${input.name}`, body: input }, { refusals: 'tray' }),
  }
}
