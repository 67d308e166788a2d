import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { notEatingForMs } from './notEating'
import { shopHold } from './shopHold'
import { firstSteps, nextStep } from './todayView'

const dayMs = 86_400_000
const nowMs = Date.UTC(2031, 4, 20, 12)

describe('the days of a hold', () => {
  test('go by one with every midnight of the room, in every zone', () => {
    fc.assert(
      fc.property(fc.constantFrom('UTC', 'Europe/Berlin', 'America/New_York', 'Pacific/Auckland'), fc.integer({ min: 0, max: 400 }), fc.integer({ min: 1, max: 60 }), (zone, days, of) => {
        const opened = Date.UTC(2031, 0, 10, 12)
        const hold = shopHold(opened, opened + days * dayMs, of, zone)
        return hold !== null && hold.day === days + 1 && hold.isServed === days + 1 > of
      }),
    )
  })
  test('without a hold, or before the crate was opened, there is none', () => {
    expect([shopHold(nowMs, nowMs + dayMs, 0, 'UTC'), shopHold(nowMs, nowMs - dayMs, 14, 'UTC')]).toEqual([null, null])
  })
})

describe('not eating', () => {
  const came = { sinceMs: nowMs - 5 * dayMs, lastMealMs: null, lastAnswer: 'none' as const, lastAnswerMs: nowMs - dayMs, firstMealDays: 3, bearsHunger: null }
  test.each([
    ['a new lot past its usual delay', {}, 5],
    ['a species that takes a week', { firstMealDays: 7 }, null],
    ['a species the book does not know', { firstMealDays: null }, 5],
    ['one that ate since', { lastAnswer: 'some' as const }, null],
    ['one that was never fed', { lastAnswer: null, lastAnswerMs: null }, null],
    ['one whose last refusal was by those before it', { lastAnswerMs: nowMs - 6 * dayMs }, null],
    ['one that ate here three days before it refused', { lastMealMs: nowMs - 4 * dayMs }, 4],
    ['one that ate here yesterday and refused today', { lastMealMs: nowMs - dayMs, lastAnswerMs: nowMs }, null],
    ['a species that bears no hunger, whatever its first meal says', { firstMealDays: 7, bearsHunger: 'a day or two' }, 5],
    ['one that bears a week', { firstMealDays: 30, bearsHunger: 'a week' }, null],
    ['a meal before it came here does not count', { lastMealMs: nowMs - 9 * dayMs }, 5],
  ])('%s', (_what, change, days) => expect(notEatingForMs({ ...came, ...change }, nowMs, 2)).toBe(days === null ? null : days * dayMs))
})

test('the first steps come in order, and end with the first crate', () => {
  const counts = { tanks: 0, suppliers: 0, species: 0, crates: 0 }
  for (const step of firstSteps) {
    expect(nextStep(counts)).toBe(step)
    counts[step] = 1
  }
  expect(nextStep(counts)).toBeNull()
  expect(nextStep({ tanks: 0, suppliers: 1, species: 3, crates: 1 })).toBeNull()
})
