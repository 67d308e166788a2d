import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { tries } from '../testing/tries'
import { alarmThreshold, tailOf } from './alarmThreshold'
import { causeHints, notADiagnosis, type Answer } from './causeHints'
import { causes, evidenceNames, evidenceTable, type Cause } from './causeTable'
import { designSchedule, schoolOfTheDay } from './designSchedule'
import { expectedLosses } from './expectedLosses'
import { lossAlarmState, type AlarmStep } from './lossAlarmState'
import { lossPattern } from './lossPattern'
import { moneyFigures } from './moneyFigures'
import { samplesNeeded, trialLook } from './trialLook'

const many = { numRuns: tries(2000, 200) }
const dayOf = (day: number): string => new Date(Date.UTC(2031, 0, 1 + day)).toISOString().slice(0, 10)
const steps: fc.Arbitrary<AlarmStep[]> = fc.array(fc.record({ dead: fc.integer({ min: 0, max: 9 }), expected: fc.double({ min: 0, max: 2, noNaN: true }) }), { maxLength: 40 }).map((drawn) => drawn.map((each, day) => ({ on: dayOf(day), ...each })))
const setting = { name: 'Soft-water rack', dispersion: 1.5, threshold: 5.5, suddenTail: 0.0006, ratio: 3 }

describe('alarms', () => {
  test('what rang stays, with its date and words, until a lead acknowledges it; then it counts anew', () => {
    fc.assert(
      fc.property(steps, (drawn) => {
        const rang = drawn.findIndex((_, index) => lossAlarmState({ ...setting, steps: drawn.slice(0, index + 1) }).raisedOn !== null)
        const now = lossAlarmState({ ...setting, steps: drawn })
        if (rang < 0) return now.raisedOn === null && (now.state === 'quiet' || now.state === 'watch')
        const then = lossAlarmState({ ...setting, steps: drawn.slice(0, rang + 1) })
        const after = lossAlarmState({ ...setting, steps: drawn, acknowledged: [dayOf(drawn.length)] })
        return now.sentence === then.sentence && now.raisedOn === dayOf(rang) && after.state === 'quiet' && after.dead === 0 && after.score === setting.threshold / 2
      }),
      many,
    )
  })
  test('more deaths never speak against an alarm; more fish expected never speak for one', () => {
    fc.assert(
      fc.property(fc.nat({ max: 30 }), fc.double({ min: 0.01, max: 6, noNaN: true }), (dead, expected) => {
        const score = (each: AlarmStep): number => lossAlarmState({ ...setting, steps: [each] }).score
        const step = { on: dayOf(0), dead, expected }
        return score({ ...step, dead: dead + 1 }) >= score(step) && tailOf(dead + 1, expected, 1.5) <= tailOf(dead, expected, 1.5)
      }),
      many,
    )
  })
  test('a stricter house rings less often and later', () => {
    const asked = { stepsPerYear: 365, streams: 9, expected: 0.6, dispersion: 1.5, ratio: 3 }
    const [often, seldom] = [alarmThreshold({ ...asked, falseAlarmsPerYear: 12 }), alarmThreshold({ ...asked, falseAlarmsPerYear: 1 })]
    expect([often.threshold < seldom.threshold, often.suddenTail > seldom.suddenTail, (often.stepsToAlarm[0]?.steps ?? 0) < (seldom.stepsToAlarm[0]?.steps ?? 0)]).toEqual([true, true, true])
  })
  test('a delivery is expected to lose some: twice the fish, twice the losses', () => {
    fc.assert(fc.property(fc.nat({ max: 60 }), fc.nat({ max: 500 }), (day, fish) => Math.abs(expectedLosses({ stock: [{ day, fish: 2 * fish }] }).expected - 2 * expectedLosses({ stock: [{ day, fish }] }).expected) < 1e-9), many)
  })
})

describe('patterns and hints', () => {
  test('a death is named by what was seen, and never late gasping where nobody looked, where it did not eat, where it had spots', () => {
    const gasping = { kind: 'loss', cause: 'found dead', day: 9, signs: [{ sign: 'gasping', hoursBefore: 20 }], ate: { answer: 'all', hoursBefore: 20 }, lookHoursBefore: 5 } as const
    const named = (rest: Partial<Parameters<typeof lossPattern>[0]>): string => lossPattern({ ...gasping, ...rest }).pattern
    expect([named({}), named({ lookHoursBefore: 80 }), named({ lookHoursBefore: null }), named({ ate: null }), named({ ate: { answer: 'none', hoursBefore: 20 } }), named({ day: 22 }), named({ day: 3 }), named({ signs: [...gasping.signs, { sign: 'film', hoursBefore: 160 }] }), named({ cause: 'jumped' }), named({ kind: 'dead-in-bag' })]).toEqual(['late gasping', 'not looked at', 'not looked at', 'other', 'other', 'other', 'first days', 'spots or film', 'jumped', 'in bag'])
  })
  test('at most three hints, one that points at most, each with something seen in its favour; what to look at is not yet known', () => {
    const answers = fc.dictionary(fc.constantFrom(...evidenceNames), fc.constantFrom<Answer>('yes', 'no', 'unknown'))
    fc.assert(
      fc.property(answers, (evidence) => {
        const { hints, lookNext } = causeHints({ evidence })
        const isHeld = hints.every((hint) => hint.for.some((each) => !each.startsWith('not ')) && Math.abs(hint.score) <= Math.log(20) + 1e-9)
        return hints.length <= 3 && hints.filter(({ word }) => word === 'points to').length <= 1 && isHeld && lookNext.length <= 3 && lookNext.every((each) => (evidence[each] ?? 'unknown') === 'unknown')
      }),
      many,
    )
  })
  test('no hint names an agent or a dose, and every row of the table has a reason to be asked', () => {
    const words = [...Object.values(causes), ...Object.values(evidenceTable).map(({ look }) => look), notADiagnosis].join(' ')
    expect(words).not.toMatch(/copper|formalin|methylene|praziquantel|dose|mg\/L|treat/i)
    expect(Object.values(evidenceTable).every(({ ratios }) => Object.values(ratios as Partial<Record<Cause, readonly [number, number]>>).some(([yes, no]) => yes !== no))).toBe(true)
  })
})

describe('trials', () => {
  test('every part of a schedule has as many of each school, and the same seed draws the same', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2 ** 31 }), fc.integer({ min: 1, max: 6 }), (seed, parts) => {
        const asked = { schools: ['drip', 'netOver'] as const, blocks: ['Brackwater', 'Hollow Reed'], perBlock: parts * 4, seed }
        const { order } = designSchedule(asked)
        const isEven = order.every(({ order: each }) => Array.from({ length: parts }, (_, part) => each.slice(part * 4, part * 4 + 4).filter((school) => school === 'drip').length).every((drips) => drips === 2))
        return isEven && JSON.stringify(designSchedule(asked)) === JSON.stringify({ order })
      }),
      many,
    )
  })
  test('a crate for which either school breaks a limit never takes part, and a used place is not given twice', () => {
    const schedule = [{ block: 'Hollow Reed', order: ['drip', 'netOver'] }]
    const asked = { schedule, block: 'Hollow Reed', used: 0, schools: ['netOver', 'drip'], worst: { netOver: 0.4, drip: 0.5 } }
    const why = (rest: Partial<Parameters<typeof schoolOfTheDay>[0]>): string => schoolOfTheDay({ ...asked, ...rest }).why
    expect([why({}), why({ used: 2 }), why({ block: 'Pale Harbour' }), why({ hasBinder: true }), why({ worst: { netOver: 1, drip: 2 } }), schoolOfTheDay({ ...asked, used: 1 }).school]).toEqual(['by the schedule', 'the schedule is used up', 'not in the trial', 'a binder is at work', 'over a house limit: netOver, drip', 'netOver'])
  })
  test('nothing is looked at before its time, a heavy loss pauses first, and the last look ends it', () => {
    fc.assert(
      fc.property(fc.nat({ max: 30 }), fc.nat({ max: 30 }), fc.nat({ max: 3 }), fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (a, b, looksTaken, p, lostShare) => {
        const told = trialLook({ schools: ['netOver', 'drip'], cratesPerSchool: 24, looks: 3, day: 7, done: [a, b], looksTaken, p, difference: 0.1, low: -0.1, high: 0.3, worst: { crate: '7', lostShare } })
        if (lostShare >= 0.3) return told.decision === 'pause' && told.finding === null
        if (Math.min(a, b) < (24 * (looksTaken + 1)) / 3) return told.decision === 'go on' && told.look === null
        return told.look === null || told.look > looksTaken
      }),
      many,
    )
    expect(samplesNeeded({ lossA: 0.1, lossB: 0.1, fishPerCrate: 20 }).cratesPerSchool).toBeNull()
  })
})

test('money of all suppliers together is the sum of theirs, to the cent of each', () => {
  const line = fc.record({ supplier: fc.constantFrom('A', 'B'), billed: fc.integer({ min: 1, max: 30 }), priceEach: fc.option(fc.integer({ min: 1, max: 900 }).map((cents) => cents / 100)), deadInBag: fc.nat({ max: 4 }), missing: fc.nat({ max: 2 }), wrong: fc.nat({ max: 2 }), lostFirst: fc.nat({ max: 4 }), lostLater: fc.nat({ max: 4 }), alive: fc.nat({ max: 20 }) })
  fc.assert(
    fc.property(fc.array(line, { maxLength: 12 }), (lines) => {
      const { suppliers, total } = moneyFigures({ lines, claims: [] })
      const sum = (of: (each: (typeof suppliers)[number]) => number): number => suppliers.reduce((all, each) => all + of(each), 0)
      return Math.abs(sum(({ borne }) => borne) - total.borne) < 0.011 * Math.max(1, suppliers.length) && Math.abs(sum(({ unpricedFish }) => unpricedFish) - total.unpricedFish) < 1e-9
    }),
    many,
  )
})
