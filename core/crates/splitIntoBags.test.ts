import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { splitIntoBags } from './splitIntoBags'

describe('splitIntoBags', () => {
  test.each<[number, number, number | null, number[] | RegExp]>([
    [22, 3, 8, [8, 8, 6]],
    [24, 3, 8, [8, 8, 8]],
    [22, 3, null, [8, 7, 7]],
    [1, 1, 1, [1]],
    [25, 3, 8, /3 bags of 8 do not make 25/],
    [16, 3, 8, /3 bags of 8 do not make 16/],
    [2, 3, null, /3 bags cannot share 2/],
  ])('%d fish, %d bags of %p', (count, bags, perBag, expected) => {
    const split = splitIntoBags(count, bags, perBag)
    if (Array.isArray(expected)) expect(split).toEqual({ ok: true, fish: expected })
    else expect(split).toEqual({ ok: false, reason: expect.stringMatching(expected) })
  })

  test.each([[0, 1, null], [1, 0, null], [1.5, 1, null], [1, 1, 0], [Number.NaN, 1, null]])('%p fish in %p bags of %p is misuse', (count, bags, perBag) => expect(() => splitIntoBags(count, bags, perBag)).toThrow(RangeError))

  test('no fish appears or is lost, and no bag is empty', () => {
    const count = fc.integer({ min: 1, max: 3000 })
    fc.assert(
      fc.property(count, fc.integer({ min: 1, max: 90 }), fc.option(fc.integer({ min: 1, max: 60 })), (fish, bags, perBag) => {
        const split = splitIntoBags(fish, bags, perBag)
        if (!split.ok) return
        expect(split.fish).toHaveLength(bags)
        expect(split.fish.reduce((sum, each) => sum + each, 0)).toBe(fish)
        expect(Math.min(...split.fish)).toBeGreaterThanOrEqual(1)
        expect(Math.max(...split.fish) - (perBag ?? Math.min(...split.fish) + 1)).toBeLessThanOrEqual(0)
      }),
      { numRuns: 1000 },
    )
  })
})
