import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { tries } from '../testing/tries'
import { staysOf, type Flow } from './staysOf'

test('fish that came, left in two parts, and came again', () => {
  const flows: Flow[] = [
    { at: 10, place: 'A', lot: '1', fish: 5 },
    { at: 20, place: 'A', lot: '1', fish: -2 },
    { at: 20, place: 'B', lot: '1', fish: 2 },
    { at: 30, place: 'A', lot: '1', fish: -3 },
    { at: 50, place: 'A', lot: '1', fish: 1 },
  ]
  const standing = [{ place: 'A', lot: '1', fish: 1 }, { place: 'B', lot: '1', fish: 2 }, { place: 'C', lot: '2', fish: 9 }]
  expect(staysOf(standing, flows, 0).sort((a, b) => a.water.localeCompare(b.water) || a.from - b.from)).toEqual([
    { lot: '1', water: 'A', from: 10, until: 30 },
    { lot: '1', water: 'A', from: 50, until: null },
    { lot: '1', water: 'B', from: 20, until: null },
    { lot: '2', water: 'C', from: 0, until: null },
  ])
})

test('is what walking forwards finds, whatever came and went', () => {
  const flow = fc.record({ at: fc.nat({ max: 30 }), place: fc.constantFrom('A', 'B'), lot: fc.constantFrom('1', '2'), fish: fc.integer({ min: -3, max: 3 }).filter((fish) => fish !== 0) })
  fc.assert(
    fc.property(fc.array(flow, { maxLength: 20 }), fc.nat({ max: 4 }), (random, before) => {
      const balance = new Map<string, number>()
      const stands = (key: string): number => balance.get(key) ?? before
      // No more leave than there are.
      const flows = random.toSorted((a, b) => a.at - b.at).filter(({ place, lot, fish }) => {
        const now = stands(`${place}${lot}`) + fish
        if (now >= 0) balance.set(`${place}${lot}`, now)
        return now >= 0
      })
      const keys = ['A1', 'A2', 'B1', 'B2']
      const stays = staysOf(keys.map((key) => ({ place: key.charAt(0), lot: key.charAt(1), fish: stands(key) })), flows, 0)
      const wrong: string[] = []
      for (const key of keys)
        for (let minute = 0; minute <= 31; minute += 1) {
          const there = flows.filter(({ at, place, lot }) => `${place}${lot}` === key && at <= minute).reduce((sum, { fish }) => sum + fish, before) > 0
          const told = stays.some(({ water, lot, from, until }) => `${water}${lot}` === key && from <= minute && (until === null || until > minute))
          if (told !== there) wrong.push(`${key} at ${minute}`)
        }
      expect(wrong).toEqual([])
    }),
    { numRuns: tries(1000) },
  )
})
