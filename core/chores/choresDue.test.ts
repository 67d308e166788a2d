import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { tries } from '../testing/tries'
import { addDays, daysBetween } from '../time/daysBetween'
import { choreRuleKinds, choresDue, nextOn, weekdayOf, type ChoreRule } from './choresDue'

const startOn = '2031-04-01'
const day = fc.nat({ max: 90 }).map((days) => addDays(startOn, days)!)
const rule: fc.Arbitrary<ChoreRule> = fc.record({
  kind: fc.constantFrom(...choreRuleKinds),
  days: fc.integer({ min: 1, max: 15 }),
  weekdays: fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1, maxLength: 7 }),
  fish: fc.integer({ min: 1, max: 200 }),
  earlyDays: fc.nat({ max: 3 }),
})
const arrivals = fc.array(fc.record({ on: day, fish: fc.integer({ min: 0, max: 90 }) }), { maxLength: 8 })

/** The same asked the long way: day by day from the first, whether work is due on it. */
function dayByDay({ kind, days = 1, weekdays = [], fish = 1, earlyDays = 0 }: ChoreRule, lastOn: string | null, came: readonly { on: string; fish: number }[]): string | null {
  for (let offset = 0; offset <= 400; offset += 1) {
    const on = addDays(startOn, offset)!
    const sinceLast = lastOn === null ? null : daysBetween(lastOn, on)
    if (kind === 'once') return lastOn === null ? on : null
    if (kind === 'arrivals') {
      const sum = came.filter((each) => each.on <= on && (lastOn === null ? each.on >= startOn : each.on > lastOn)).reduce((total, each) => total + each.fish, 0)
      if (sum >= fish && came.some((each) => each.on === on)) return on
    } else if (kind === 'every') {
      if (sinceLast === null ? offset === 0 : sinceLast === days) return on
    } else {
      const isDay = kind === 'fixed' ? offset % days === 0 : weekdays.includes(weekdayOf(on))
      if (isDay && (sinceLast === null || sinceLast > earlyDays)) return on
    }
  }
  return null
}

test('the day on which work is due is what a search day by day finds', () => {
  fc.assert(
    fc.property(rule, fc.option(day), arrivals, (each, lastOn, came) => {
      expect(nextOn(each, startOn, lastOn, came)).toBe(dayByDay(each, lastOn, came))
    }),
    { numRuns: tries(5000, 1000) },
  )
})

test('what is carried is what all due places use, and what is dated after today counts for nothing', () => {
  const place = fc.record({ place: fc.constantFrom('R1', 'R2', 'M1', 'Q1'), uses: fc.array(fc.record({ item: fc.constantFrom('felt bag', 'mesh bag'), count: fc.integer({ min: 1, max: 4 }) }), { maxLength: 2 }) })
  const chore = fc.record({ rule, places: fc.uniqueArray(place, { selector: (each) => each.place, minLength: 1, maxLength: 4 }) })
  const done = fc.array(fc.record({ chore: fc.constantFrom('chore 0', 'chore 1'), place: fc.constantFrom('R1', 'R2', 'M1', 'Q1'), on: day }), { maxLength: 12 })
  fc.assert(
    fc.property(fc.array(chore, { maxLength: 2 }), done, arrivals, day, fc.nat({ max: 8 }), (each, was, came, on, felt) => {
      const chores = each.map((one, index) => ({ ...one, chore: `chore ${index}`, startOn }))
      const asked = { on, chores, done: was, arrivals: came, stock: [{ item: 'felt bag', count: felt }] }
      const { due, carry, short } = choresDue(asked)
      const used = (item: string): number => due.flatMap((row) => chores.find((one) => one.chore === row.chore)!.places.filter((at) => at.place === row.place)).flatMap(({ uses }) => uses).filter((use) => use.item === item).reduce((sum, { count }) => sum + count, 0)
      expect(carry).toEqual(['felt bag', 'mesh bag'].map((item) => ({ item, count: used(item) })).filter(({ count }) => count > 0))
      expect(short).toEqual(carry.map(({ item, count }) => ({ item, missing: count - (item === 'felt bag' ? felt : 0) })).filter(({ missing }) => missing > 0))
      expect(due.every(({ dueOn, lateDays }) => dueOn <= on && lateDays === daysBetween(dueOn, on))).toBe(true)
      expect(choresDue({ ...asked, done: was.filter((one) => one.on <= on), arrivals: came.filter((one) => one.on <= on) })).toEqual({ due, carry, short })
    }),
    { numRuns: tries(2000, 500) },
  )
})

test('a year of weekdays goes through leap day and new year', () => {
  expect(nextOn({ kind: 'weekdays', weekdays: [2] }, '2032-02-25', '2032-02-26', [])).toBe('2032-03-02')
  expect(nextOn({ kind: 'fixed', days: 7 }, '2031-12-20', '2031-12-27', [])).toBe('2032-01-03')
  expect(nextOn({ kind: 'every', days: 3 }, '2031-05-01', '9999-12-30', [])).toBeNull()
})
