import { expect, test } from '@jest/globals'
import { policiesById } from '../holds/shippedHolds'
import { courseNow } from './courseNow'
import { ladderStand, type StandAsked } from './ladderStand'
import { salinityNow, type SalinityAsked } from './salinityNow'
import { transferNow } from './transferNow'

// Where regimens stand, from what was written down of them.
const [hourMs, dayMs, startMs] = [3_600_000, 86_400_000, Date.UTC(2031, 4, 1, 8)]
const at = (days: number): number => startMs + days * dayMs

const ladder = (more: Partial<StandAsked>): ReturnType<typeof ladderStand> => ladderStand({ held: null, levelDays: 21, doses: [], targetMgL: 0.18, inRangeMs: null, timeZone: 'UTC', nowMs: at(4), ...more })
const [half, whole] = [{ atMs: at(0), towardsMgL: 0.09 }, { atMs: at(2), towardsMgL: 0.18 }]
test('a ladder without held fish stands by its doses: entered, half in, at level from the reading on, out after its days', () => {
  expect(ladder({}).stage).toBe('enter')
  expect(ladder({ doses: [half] })).toMatchObject({ stage: 'part', hoursInStage: 96, isEating: false })
  expect(ladder({ doses: [half, whole] })).toMatchObject({ stage: 'level', servedDays: 0 })
  expect(ladder({ doses: [half, whole], inRangeMs: at(2) })).toMatchObject({ stage: 'level', servedDays: 2 })
  expect(ladder({ doses: [half, whole], inRangeMs: at(2), nowMs: at(23) }).stage).toBe('down')
})
test('what was read at its level is raised, whatever its doses went for: a whole dose that somebody gave at once is not given again', () => {
  expect(ladder({ doses: [{ atMs: at(0), towardsMgL: null }], inRangeMs: at(1) }).stage).toBe('level')
})
test('with held fish their clock says it: nothing counts as at level that was not raised, and its days are those of the policy', () => {
  const policy = policiesById().get('copperLadder')!
  const held = (phase: string, day: number): StandAsked['held'] => ({ policy, clock: { phase, day, waitsFor: [] } })
  expect(ladder({ held: held('level', 6), doses: [half] }).stage).toBe('part')
  expect(ladder({ held: held('level', 6), doses: [half, whole], levelDays: 5 })).toMatchObject({ stage: 'level', servedDays: 5, levelDays: 21, isEating: true })
  expect(ladder({ held: held('watch', 1), doses: [half, whole] }).stage).toBe('down')
  // A sign that sent them back before its level does not raise it twice.
  expect(ladder({ held: held('part', 1), doses: [half, whole] }).stage).toBe('level')
})

const plan = { kind: 'low salinity' as const, startOn: '2031-05-01', lowPpt: 12, housePpt: 34, holdDays: 3, fallPerDay: 12, upPerDay: 8, downPpt: 0, upPpt: 40, evapLPerDay: 1 }
const salinity = (readings: [day: number, ppt: number][], steps: number[], more: Partial<SalinityAsked> = {}) =>
  salinityNow({ plan, volumeL: 50, tempC: 25, readings: readings.map(([day, ppt]) => ({ atMs: at(day), ppt })), changes: steps.map((day) => ({ atMs: at(day) })), isHeldLow: null, timeZone: 'UTC', nowMs: at(0.1), ...more })
test('a low salinity goes on from what was read: nothing on a figure older than a day, one step a day, low for its days, then up', () => {
  expect(salinity([], [])).toMatchObject({ stage: 'down', isReadFirst: true })
  expect(salinity([[-2, 34]], []).isReadFirst).toBe(true)
  expect(salinity([[0, 34]], [])).toMatchObject({ isReadFirst: false, isStepped: false, down: [{ on: '2031-05-01', from: 34, to: 23 }, { to: 12 }] })
  expect(salinity([[0, 34]], [0.05])).toMatchObject({ isStepped: true, down: [{ on: '2031-05-02' }, { on: '2031-05-03' }] })
  const low: [number, number][] = [[0, 34], [1, 23], [1.1, 12.3]]
  expect(salinity(low, [0.05, 1.05], { nowMs: at(2) })).toMatchObject({ stage: 'low', lowFrom: '2031-05-02', upFrom: '2031-05-05', driftPpt: 0.24 })
  expect(salinity(low, [0.05, 1.05], { nowMs: at(5) })).toMatchObject({ stage: 'up', isReadFirst: true })
  // Fish whose days at low are not served stay there, whatever the plan says.
  expect(salinity(low, [0.05, 1.05], { nowMs: at(5), isHeldLow: true }).stage).toBe('low')
  expect(salinity([...low, [6, 33.8]], [0.05, 1.05, 5], { nowMs: at(6.1) })).toMatchObject({ stage: 'house', up: [] })
})

const tanks = { tankIds: ['a', 'b'], transfers: 4, everyH: 72, lateH: 6, cleanDryH: 24 }
test('a transfer goes on in turn from where they stand, and says which tank is to be cleaned until when', () => {
  const now = (done: [string, number][], more: object = {}) => transferNow({ plan: tanks, startedAtMs: startMs, done: done.map(([tankId, hours]) => ({ tankId, atMs: startMs + hours * hourMs })), cleaned: [], match: null, timeZone: 'UTC', nowMs: startMs + 80 * hourMs, ...more })
  expect(now([['b', 71]])).toMatchObject({ served: 1, status: 'on time', atTankId: 'b', nextTankId: 'a', toClean: [{ tankId: 'a', neededAtMs: startMs + 143 * hourMs }] })
  expect(now([['b', 71]], { cleaned: [{ tankId: 'a', atMs: startMs + 75 * hourMs }] }).toClean).toEqual([])
  // Somewhere else than in turn: turns go on from there.
  expect(now([['a', 71]])).toMatchObject({ atTankId: 'a', nextTankId: 'b' })
})

test('a course knows its day, what was given, what went by, and one more span for a sign', () => {
  const course = { fromOn: '2031-05-01', days: 1, pauseDays: 6, times: 2, onSignDays: 0, mostDays: 0 }
  expect(courseNow({ plan: course, signs: [], given: [], today: '2031-05-01' })).toMatchObject({ isToday: true, isGiven: false, nextOn: '2031-05-01', missed: [] })
  expect(courseNow({ plan: course, signs: [], given: ['2031-05-01'], today: '2031-05-03' })).toMatchObject({ isToday: false, nextOn: '2031-05-08', missed: [], isOver: false })
  expect(courseNow({ plan: course, signs: [], given: ['2031-05-01'], today: '2031-05-09' })).toMatchObject({ nextOn: null, missed: ['2031-05-08'], isOver: true })
  expect(courseNow({ plan: { ...course, onSignDays: 2 }, signs: ['2031-05-12'], given: [], today: '2031-05-12' })).toMatchObject({ isToday: true, endsOn: '2031-05-13' })
})
