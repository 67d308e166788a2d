import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { fishUntilAlarm, deathWeight, nextScore, scoreOf } from './lossAlarm'
import { quantile, weightedQuantile } from './quantile'
import { betaPrior, betaQuantile, betaShare, shrunkShare } from './suppliers'
import { chiSquareTail, logRank, survivalAt, type Seen } from './survival'
import { triangular } from './triangular'
import { wilsonInterval } from './wilson'
import { tries } from '../testing/tries'

const many = { numRuns: tries(5000) }
const seen: fc.Arbitrary<Seen[]> = fc.array(fc.record({ time: fc.integer({ min: 1, max: 40 }), isDeath: fc.boolean() }), { minLength: 2, maxLength: 30 })
const share = fc.double({ min: 0.001, max: 0.999, noNaN: true })

describe('shares', () => {
  test('an interval holds the share it is of, and narrows with numbers', () => {
    fc.assert(
      fc.property(fc.nat({ max: 200 }), fc.integer({ min: 1, max: 200 }), (a, b) => {
        const [hits, of] = [Math.min(a, b), b]
        const [few, more] = [wilsonInterval(hits, of), wilsonInterval(hits * 4, of * 4)]
        return few.low >= 0 && few.high <= 1 && few.low <= hits / of && hits / of <= few.high && more.high - more.low < few.high - few.low
      }),
      many,
    )
    expect(wilsonInterval(0, 0)).toEqual({ low: 0, high: 1 })
  })
  test('few fish of a new supplier say little: the share is drawn towards all, within what both say', () => {
    fc.assert(
      fc.property(fc.array(fc.record({ deaths: fc.nat({ max: 10 }), extra: fc.integer({ min: 1, max: 80 }) }), { minLength: 3, maxLength: 8 }), fc.nat({ max: 12 }), (drawn, deaths) => {
        const rows = drawn.map((row) => ({ deaths: row.deaths, of: row.deaths + row.extra }))
        const own = { deaths, of: 12 }
        const [{ p }, shrunk] = [betaPrior(rows), shrunkShare(own, rows)]
        const [low, high] = [Math.min(p, deaths / 12), Math.max(p, deaths / 12)]
        return shrunk.mean >= low - 1e-9 && shrunk.mean <= high + 1e-9 && shrunk.low <= shrunk.mean && shrunk.mean <= shrunk.high
      }),
      { numRuns: 300 },
    )
    expect(betaPrior([{ deaths: 0, of: 40 }, { deaths: 0, of: 20 }, { deaths: 0, of: 9 }])).toMatchObject({ rho: 0.05, p: expect.closeTo(0.5 / 70, 6) })
  })
  test('beta quantile and share invert each other', () => {
    fc.assert(fc.property(share, fc.double({ min: 0.5, max: 30, noNaN: true }), fc.double({ min: 0.5, max: 30, noNaN: true }), (p, a, b) => Math.abs(betaShare(betaQuantile(p, a, b), a, b) - p) < 1e-6), { numRuns: tries(1500) })
  })
})

describe('survival', () => {
  test('never rises with time, stays between 0 and 1, and its interval holds it', () => {
    fc.assert(
      fc.property(seen, fc.integer({ min: 1, max: 40 }), (rows, time) => {
        const [now, later] = [survivalAt(rows, time), survivalAt(rows, time + 5)]
        const isHeld = now.low === null || now.high === null || (now.low <= now.survival + 1e-12 && now.survival <= now.high + 1e-12)
        return now.survival >= later.survival && now.survival >= 0 && now.survival <= 1 && Number.isFinite(now.standardError) && isHeld
      }),
      many,
    )
  })
  test('without anybody going out of sight it is the plain share', () => {
    const rows = [1, 2, 3, 4, 5, 6, 7, 8].map((time) => ({ time, isDeath: true }))
    expect(survivalAt(rows, 3).survival).toBeCloseTo(5 / 8, 12)
  })
  test('a group row of weight n is n fish', () => {
    const group: Seen[] = [{ time: 2, isDeath: true, weight: 3 }, { time: 9, isDeath: false, weight: 7 }]
    const single: Seen[] = [...Array.from({ length: 3 }, () => ({ time: 2, isDeath: true })), ...Array.from({ length: 7 }, () => ({ time: 9, isDeath: false }))]
    expect(survivalAt(group, 5)).toEqual(survivalAt(single, 5))
  })
  test('comparing groups does not depend on their order; expected and observed deaths are as many', () => {
    fc.assert(
      fc.property(seen, seen, (a, b) => {
        const [one, two] = [logRank([a, b]), logRank([b, a])]
        const sum = (values: number[]): number => values.reduce((all, value) => all + value, 0)
        return Math.abs(one.chi2 - two.chi2) < 1e-6 && one.p >= 0 && one.p <= 1 && Math.abs(sum(one.observed) - sum(one.expected)) < 1e-9
      }),
      { numRuns: tries(2000) },
    )
    expect([chiSquareTail(3.841459, 1), chiSquareTail(5.991465, 2), chiSquareTail(0, 1)]).toEqual([expect.closeTo(0.05, 6), expect.closeTo(0.05, 6), 1])
  })
})

describe('the alarm on losses', () => {
  test('rings sooner where more die, later where it is set higher', () => {
    const weight = deathWeight(0.02, 0.04)
    expect([fishUntilAlarm(0.04, weight, 105) < fishUntilAlarm(0.02, weight, 105), fishUntilAlarm(0.02, weight, 70) < fishUntilAlarm(0.02, weight, 140)]).toEqual([true, true])
  })
  test('its score never falls below nothing and adds up fish by fish', () => {
    fc.assert(
      fc.property(fc.array(fc.boolean(), { maxLength: 200 }), fc.integer({ min: 2, max: 60 }), (outcomes, weight) => {
        const score = scoreOf(outcomes, weight)
        return score >= 0 && score <= outcomes.filter(Boolean).length * (weight - 1) && scoreOf([...outcomes, true], weight) === nextScore(score, true, weight)
      }),
      many,
    )
  })
})

describe('quantiles', () => {
  test('lie within the values and rise with the share', () => {
    fc.assert(fc.property(fc.array(fc.double({ min: -1e6, max: 1e6, noNaN: true }), { minLength: 1 }), share, (values, p) => quantile(values, p) >= Math.min(...values) && quantile(values, p) <= Math.max(...values) && quantile(values, p) <= quantile(values, Math.min(1, p + 0.001)) + 1e-9), many)
    expect([quantile([4, 1, 3, 2], 0.5), quantile([], 0.5)]).toEqual([2.5, NaN])
  })
  test('a weight of nothing counts for nothing', () => {
    const values = Float64Array.from([5, 1, 3])
    const order = [1, 2, 0]
    expect([weightedQuantile(order, values, Float64Array.from([1, 1, 1]), 0.9), weightedQuantile(order, values, Float64Array.from([0, 1, 1]), 0.9), weightedQuantile(order, values, Float64Array.from([0, 1, 0]), 0.9)]).toEqual([5, 3, 1])
  })
  test('a triangle begins at its low, ends at its high, and its likely value is not its middle', () => {
    fc.assert(fc.property(share, (u) => triangular(u, [1, 2, 5]) >= 1 && triangular(u, [1, 2, 5]) <= 5), many)
    expect([triangular(0, [1, 2, 5]), triangular(1, [1, 2, 5]), triangular(0.25, [1, 2, 5])]).toEqual([1, 5, 2])
  })
})
