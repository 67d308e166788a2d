import type { Alarm } from '../../core/bench/alarms'
import type { RunView } from '../../core/bench/benchView'
import type { RunNow } from '../../core/bench/followRun'

export interface Spoken {
  /** What is spoken of: it is said once, however its figures change. */
  about: string
  words: string
}

/** What a run says aloud: the alarm that presses, else the step in hand; nothing once it has ended. */
export function spokenOf(run: RunView, now: RunNow, alarms: readonly Alarm[]): Spoken | null {
  if (run.endedAtMs !== null) return null
  const pressing = alarms.find(({ level }) => level === 'act')
  if (pressing) return { about: pressing.key, words: `Run ${run.number}. ${pressing.words}` }
  return now.step ? { about: `step ${now.index}`, words: `Run ${run.number}. ${now.step.title}.` } : null
}
