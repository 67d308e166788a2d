import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { tries } from '../testing/tries'
import { addBack, countTo, takeOut, type Attributed, type NotAttributed, type PooledLot } from './attribute'
import { foundAgain } from './foundAgain'
import { hazardCurve, weightOfCause, weightOfReason } from './hazard'
import { millionthsPerFish, shareOut } from './shareOut'

const sum = (values: readonly number[]): number => values.reduce((all, value) => all + value, 0)
const booked = (lots: readonly PooledLot[]): number => sum(lots.map((lot) => lot.booked))
const names = ['A', 'B', 'C', 'D', 'E']

const pool = fc.array(fc.record({ fish: fc.integer({ min: 1, max: 20 }), days: fc.integer({ min: 0, max: 40 }) }), { minLength: 2, maxLength: 5 }).map((lots) => lots.map(({ fish, days }, index): PooledLot => ({ lot: names[index] ?? '', booked: fish, expected: fish * millionthsPerFish, days })))
const deed = fc.record({
  do: fc.constantFrom('died', 'jumped', 'sold', 'counted', 'died unseen'),
  quantity: fc.integer({ min: 1, max: 4 }),
  among: fc.oneof({ weight: 3, arbitrary: fc.constant<string[]>([]) }, fc.subarray(names)),
  isMore: fc.boolean(),
})
type Deed = typeof deed extends fc.Arbitrary<infer D> ? D : never

function act(lots: readonly PooledLot[], { do: what, quantity, among, isMore }: Deed): Attributed | NotAttributed {
  if (what === 'counted' || what === 'died unseen') return countTo(lots, Math.max(0, booked(lots) + (isMore ? quantity : -quantity)), { among, weightOf: weightOfReason(what) })
  return takeOut(lots, quantity, { among, ...(what === 'sold' ? {} : { weightOf: weightOfCause(what === 'jumped' ? 'jumped' : 'found dead') }) })
}

describe('days of a pool', () => {
  test('neither book goes below zero, and both hold as many', () => {
    fc.assert(
      fc.property(pool, fc.array(deed, { maxLength: 30 }), (start, deeds) => {
        let lots = start
        for (const each of deeds) {
          const done = act(lots, each)
          if (!done.ok) continue
          const [before, after] = [booked(lots), booked(done.after)]
          const moved = sum(done.movements.map(({ quantity }) => quantity))
          expect(Math.abs(before - after)).toBe(moved)
          expect(sum(done.shares.map(({ millionths }) => millionths))).toBe(moved * millionthsPerFish)
          expect(sum(done.after.map(({ expected }) => expected))).toBe(after * millionthsPerFish)
          expect(Math.min(...done.after.flatMap((lot) => [lot.booked, lot.expected]))).toBeGreaterThanOrEqual(0)
          expect(done.after.every((lot) => Number.isInteger(lot.expected) && Number.isInteger(lot.booked))).toBe(true)
          // Only what was named gives fish, whatever the books had thought; the swaps say so.
          if (each.among.length > 0 && after < before) expect(done.movements.every(({ lot }) => each.among.includes(lot))).toBe(true)
          expect(done.how === 'seen').toBe(lots.filter(({ lot }) => each.among.length === 0 || each.among.includes(lot)).length === 1)
          lots = done.after
        }
      }),
      { numRuns: tries(5000) },
    )
  })

  test('while nobody names a lot, fish taken one at a time, the books stay within their bound', () => {
    fc.assert(
      fc.property(pool, fc.array(fc.record({ isSale: fc.boolean(), cause: fc.constantFrom('found dead' as const, 'jumped' as const) }), { maxLength: 40 }), (start, deeds) => {
        const most = sum(start.slice(1).map((_, index) => 1 / (index + 2))) * millionthsPerFish
        let lots = start
        for (const { isSale, cause } of deeds) {
          const done = takeOut(lots, 1, isSale ? {} : { weightOf: weightOfCause(cause) })
          if (!done.ok) return
          lots = done.after
          for (const lot of lots) expect(Math.abs(lot.booked * millionthsPerFish - lot.expected)).toBeLessThanOrEqual(most + 2)
        }
      }),
      { numRuns: tries(3000) },
    )
  })

  test('no lot gives more than is expected of it, unless somebody saw it give', () => {
    fc.assert(
      fc.property(pool, fc.integer({ min: 1, max: 30 }), (lots, quantity) => {
        const done = takeOut(lots, quantity, { weightOf: weightOfCause('found dead') })
        if (done.ok) for (const { lot, millionths } of done.shares) expect(millionths).toBeLessThanOrEqual(lots.find((each) => each.lot === lot)?.expected ?? 0)
        else expect(done).toEqual({ ok: false, problem: 'too few', available: booked(lots) })
      }),
      { numRuns: tries(2000) },
    )
  })
})

const lots: PooledLot[] = [
  { lot: 'A', booked: 0, expected: 0, days: 60 },
  { lot: 'B', booked: 4, expected: 4_000_000, days: 20 },
]

test('a lot of which nothing was expected is believed when it is seen', () => {
  expect(takeOut(lots, 1, { among: ['A'] })).toMatchObject({ how: 'seen', movements: [{ lot: 'A', quantity: 1 }], swaps: [{ from: 'B', to: 'A' }], shares: [{ lot: 'A', millionths: 1_000_000 }] })
  expect(takeOut(lots, 1, { among: ['Z'] })).toEqual({ ok: false, problem: 'no such lot', available: 4 })
})

test('an empty pool has nothing to go by', () => {
  expect(addBack([{ lot: 'A', booked: 0, expected: 0, days: 3 }], 2)).toMatchObject({ problem: 'name a lot' })
  expect(addBack([], 2)).toMatchObject({ problem: 'name a lot' })
})

test('shares come to the whole, by falling remainder and never above a cap', () => {
  expect(shareOut(3, [{ weight: 1 }, { weight: 1 }])).toEqual([2, 1])
  expect(shareOut(5, [{ weight: 9, cap: 2 }, { weight: 1 }])).toEqual([2, 3])
  expect(() => shareOut(5, [{ weight: 1, cap: 2 }])).toThrow(RangeError)
})

test('a curve is of as many bands as are shipped', () => {
  expect(() => hazardCurve([{ deaths: 1, fishDays: 10 }])).toThrow(RangeError)
})

test('the dead do not come back, and fish of another lot neither', () => {
  const loss = { id: 'l', lot: 'a', n: 2, place: 'T1', cause: 'found dead' as const, at: 5, found: 0 }
  expect(foundAgain([loss, { ...loss, id: 'm', lot: 'b', cause: 'not found' }], 'a', 1, 'T1')).toEqual({ isPossible: false, most: 0, takes: [], contacts: [] })
  expect(foundAgain([{ ...loss, cause: 'jumped', found: 1 }], 'a', 2, 'T1')).toMatchObject({ isPossible: false, most: 1 })
})
