import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { tries } from '../testing/tries'
import { exactOrder } from './exactOrder'
import { shortened } from './shortened'
import { roundOrder, walkBound } from './roundOrder'
import { roundStates } from './roundState'
import { splitRound } from './splitRound'
import { startingOrders } from './startingOrders'
import { blockOf, layOut, lengthOf, walkLength, type WalkAsked, type WalkTank } from './walk'
import { changeWords, orderWords } from './walkWords'

const spot = fc.record({ rack: fc.constantFrom('R1', 'R2', 'M1'), shelf: fc.integer({ min: 1, max: 3 }), position: fc.integer({ min: 1, max: 6 }), zone: fc.constantFrom('Fresh', 'Salt', null), state: fc.constantFrom(...roundStates), source: fc.constantFrom('Hollow Reed', 'Pale Harbour', null) })
const room = (most: number): fc.Arbitrary<WalkAsked> =>
  fc.record({
    tanks: fc.uniqueArray(spot, { minLength: 1, maxLength: most, selector: ({ rack, shelf, position }) => JSON.stringify([rack, shelf, position]) }).map((spots) => spots.map((each, index): WalkTank => ({ ...each, code: `T${index}`, system: each.rack }))),
    racks: fc.constantFrom([], [{ rack: 'R1', xM: 4, yM: 1, heading: 90 }, { rack: 'M1', xM: 9, yM: 5, heading: 180, bayM: 1 }]),
    sinks: fc.constantFrom([], [{ xM: 0, yM: 0 }], [{ xM: 0, yM: 0 }, { xM: 9, yM: 9 }]),
  })

/** Every order there is. */
const orders = (left: readonly number[]): number[][] => (left.length < 2 ? [[...left]] : left.flatMap((first) => orders(left.filter((each) => each !== first)).map((rest) => [first, ...rest])))

test('up to seven tanks no valid order of all there are is shorter', () => {
  fc.assert(
    fc.property(room(tries(7, 6)), (asked) => {
      const walk = layOut(asked)
      const found = lengthOf(walk, exactOrder(walk))
      const lengths = orders([...asked.tanks.keys()]).map((order) => lengthOf(walk, order)).filter(({ isValid }) => isValid)
      return found.isValid && Math.abs(found.seconds - Math.min(...lengths.map(({ seconds }) => seconds))) < 1e-9
    }),
    { numRuns: tries(60, 25) },
  )
})

test('every order is valid, names every tank once, and is never below what none can be below; only shortening steps are taken', () => {
  fc.assert(
    fc.property(room(40), (asked) => {
      const [walk, order] = [layOut(asked), roundOrder(asked)]
      const codes = order.tanks.map(({ code }) => code)
      expect(walkLength(asked, codes)).toMatchObject({ isValid: true, changes: order.changes })
      expect(order.seconds).toBeGreaterThanOrEqual(walkBound(asked) - 1e-6)
      for (const first of startingOrders(walk, asked.tanks)) {
        const [before, after] = [lengthOf(walk, first), lengthOf(walk, shortened(walk, first))]
        expect([before.isValid, after.isValid, after.seconds <= before.seconds + 1e-9]).toEqual([true, true, true])
      }
    }),
    { numRuns: tries(200, 60) },
  )
})

test('what was looked for is near what is found for sure', () => {
  const ratios = fc.sample(fc.record({ asked: room(11) }), { numRuns: tries(120, 40), seed: 22 }).map(({ asked }) => {
    const walk = layOut(asked)
    const starts = startingOrders(walk, asked.tanks).map((order) => lengthOf(walk, shortened(walk, order)).seconds)
    return Math.min(...starts) / Math.max(1e-9, lengthOf(walk, exactOrder(walk)).seconds)
  }).filter(Number.isFinite)
  expect(Math.max(1, ...ratios)).toBeLessThan(1.06)
})

test('an order that is not all tanks once has no length', () => {
  const tanks = fc.sample(room(5), { numRuns: 1, seed: 3 })[0]?.tanks ?? []
  const codes = tanks.map(({ code }) => code)
  expect([walkLength({ tanks }, codes.slice(1)), walkLength({ tanks }, [...codes.slice(1), 'nobody']), walkLength({ tanks }, [...codes.slice(1), codes[1] ?? ''])]).toEqual([null, null, null])
})

test('split, no part is longer than the whole, more people never make it longer, and sick tanks stay together', () => {
  fc.assert(
    fc.property(room(20), fc.integer({ min: 1, max: 4 }), (asked, people) => {
      const walked = { ...asked, tanks: roundOrder(asked).tanks }
      const [one, split, more] = [splitRound(walked, 1), splitRound(walked, people), splitRound(walked, people + 1)]
      expect(split.counts.reduce((sum, count) => sum + count, 0)).toBe(walked.tanks.length)
      expect([one.longestS - one.totalS, split.longestS <= one.longestS + 1e-9, more.longestS <= split.longestS + 1e-9]).toEqual([expect.closeTo(0, 6), true, true])
      const walkers = split.counts.flatMap((count, person) => Array.from({ length: count }, () => person))
      expect(new Set(walked.tanks.flatMap(({ state }, index) => (state === 'sick' ? [walkers[index]] : []))).size).toBeLessThanOrEqual(1)
    }),
    { numRuns: tries(300, 80) },
  )
})

test('why, and what is done on the way, in words', () => {
  const tank = (code: string, change: Partial<WalkTank> = {}): WalkTank => ({ code, rack: 'R1', shelf: 1, position: 1, system: 'Fresh rack', zone: 'Fresh', state: 'settled', source: null, ...change })
  const [a, b, c] = [tank('a'), tank('b', { state: 'new', source: 'Hollow Reed' }), tank('c', { state: 'sick', zone: 'Salt' })]
  expect([blockOf(a), changeWords(a, tank('d')), changeWords(undefined, a)]).toEqual(['settled', null, null])
  expect([changeWords(a, b), changeWords(b, c)]).toEqual(['wash hands, take other tools: new fish from Hollow Reed', 'wash hands, take the tools of Salt: sick fish (Fresh rack)'])
  expect(orderWords([a, b, c], { isValid: true, seconds: 200, changes: 2 })).toBe('1 settled tank, then 1 new, 1 sick: hands go from clean to doubtful and never back. 2 washes with other tools, about 3 min on the way.')
  expect(orderWords([a], { isValid: true, seconds: 0, changes: 0 })).toBe('1 settled tank. About 0 min on the way.')
})
