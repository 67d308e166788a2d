import { expect, test } from '@jest/globals'
import type { Alarm } from '../../core/bench/alarms'
import type { RunView } from '../../core/bench/benchView'
import type { RunNow } from '../../core/bench/followRun'
import { spokenOf } from './spokenWords'

const run = { number: 3, endedAtMs: null } as RunView
const now = { index: 1, step: { title: 'Pour into the vessel' } } as RunNow
const alarm = (level: Alarm['level'], words: string): Alarm => ({ key: `late ${level}`, level, words, sinceMs: 0 })

test('the alarm that presses comes before the step; what only asks to be watched does not; an ended run is silent', () => {
  expect(spokenOf(run, now, [])).toEqual({ about: 'step 1', words: 'Run 3. Pour into the vessel.' })
  expect(spokenOf(run, now, [alarm('watch', 'Lid on.')])?.about).toBe('step 1')
  expect(spokenOf(run, now, [alarm('watch', 'Lid on.'), alarm('act', 'Time is up.')])).toEqual({ about: 'late act', words: 'Run 3. Time is up.' })
  expect(spokenOf({ ...run, endedAtMs: 1 }, now, [alarm('act', 'Time is up.')])).toBeNull()
  expect(spokenOf(run, { ...now, step: null }, [])).toBeNull()
})

test('one thing is said once, however its figures change', () => {
  expect(spokenOf(run, now, [alarm('act', 'Late by 1 min.')])?.about).toBe(spokenOf(run, now, [alarm('act', 'Late by 2 min.')])?.about)
})
