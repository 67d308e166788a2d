import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { tries } from '../testing/tries'
import { missingWords } from './levelWords'
import { missingProbability, type UnseenAsked } from './missing'

const daily = (days: number, seen: number) => Array.from({ length: days }, (_, day) => ({ hoursAgo: 24 * day + 1, seen }))
const chance = (shareSeen: number, days: number) => missingProbability({ fish: 8, shareSeen, daysSinceFull: days, looks: daily(Math.min(7, days), 7) })

// docs/rounds.md: seven of eight seen at daily looks.
test.each([
  [0.95, [0.29, 0.62, 0.82, 0.94, 0.98, 1]],
  [0.85, [0.08, 0.26, 0.48, 0.72, 0.88, 0.96]],
])('with a share of %f it grows by the day as published', (share, wanted) => {
  expect([3, 5, 7, 10, 14, 21].map((days) => Math.round(chance(share, days).atLeastOne * 100) / 100)).toEqual(wanted)
})

test('on paper: one fish that hides half of the time, ten days, one look without it', () => {
  const { prior, atLeastOne } = missingProbability({ fish: 1, shareSeen: 0.5, daysSinceFull: 10, looks: [{ hoursAgo: 0, seen: 0 }] })
  expect([prior, atLeastOne]).toEqual([expect.closeTo(0.010935, 6), expect.closeTo(0.0235, 4)])
})

test('chances are chances, whatever was seen; looks at which all were seen end what is used', () => {
  const asked: fc.Arbitrary<UnseenAsked> = fc.record({ fish: fc.integer({ min: 1, max: 60 }), shareSeen: fc.double({ min: 0, max: 1, noNaN: true }), daysSinceFull: fc.integer({ min: 0, max: 400 }), looks: fc.array(fc.record({ hoursAgo: fc.integer({ min: 0, max: 300 }), seen: fc.integer({ min: 0, max: 60 }) }), { maxLength: 8 }) })
  fc.assert(
    fc.property(asked, (each) => {
      const { prior, atLeastOne, expected, writeOff } = missingProbability(each)
      return prior >= -1e-9 && prior <= 1 && atLeastOne >= -1e-9 && atLeastOne <= 1 + 1e-9 && expected <= each.fish + 1e-6 && writeOff <= each.fish
    }),
    { numRuns: tries(2000, 300) },
  )
  const seenAll = missingProbability({ fish: 5, shareSeen: 0.9, daysSinceFull: 90, looks: [{ hoursAgo: 2, seen: 5 }, { hoursAgo: 30, seen: 2 }] })
  expect([seenAll.verdict, seenAll.unseen]).toEqual(['none', null])
})

test('in words: unseen is not missing', () => {
  const kind = { species: 'Kuhli loach', fish: 5, shareSeen: 0.25, ...missingProbability({ fish: 5, shareSeen: 0.25, daysSinceFull: 6, looks: daily(2, 2) }) }
  expect(missingWords(kind)).toMatch(/^2 of 5 Kuhli loach seen; these are hardly ever all seen: \d+ % that one is gone\.$/)
  expect(missingWords({ ...kind, unseen: 0 })).toBeNull()
  expect(missingWords({ ...kind, shareSeen: 0.95, verdict: 'write off?', writeOff: 1, atLeastOne: 0.999 })).toBe('2 of 5 Kuhli loach seen: over 99 % that one is gone. One is all but surely gone: search, then correct the count.')
})
