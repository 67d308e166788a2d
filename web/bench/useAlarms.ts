import { useEffect } from 'react'
import { alarmsOf, type Alarm } from '../../core/bench/alarms'
import type { RunView } from '../../core/bench/benchView'
import type { RunNow } from '../../core/bench/followRun'
import type { Limits } from '../../core/limits/houseLimits'
import { soundAlarm } from './alarmSound'

const soundEveryMs = 12_000

/** What a run has to say; while something wants a person, the device sounds every few seconds. */
export function useAlarms(run: RunView, now: RunNow, limits: Limits, atMs: number): Alarm[] {
  const alarms = run.endedAtMs === null ? alarmsOf(run, now, limits, atMs) : []
  const isSounding = alarms.some(({ level }) => level === 'act')
  useEffect(() => {
    if (!isSounding) return
    soundAlarm()
    const timer = setInterval(soundAlarm, soundEveryMs)
    return () => clearInterval(timer)
  }, [isSounding])
  return alarms
}
