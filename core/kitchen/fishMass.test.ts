import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { shippedMoveRules as rules } from '../moves/moveRules'
import { tries } from '../testing/tries'
import { addDays } from '../time/daysBetween'
import { fishMass, type KindSize } from './fishMass'

const guppy: KindSize = { massG: 0.8, tradedCm: 3, adultCm: 4, mouth: 'small' }
const on = '2031-05-04'
const mass = (kind: KindSize, sizes: { on: string; cm: number }[] = [], bornDays: number | null = null) => fishMass(kind, sizes, bornDays === null ? null : addDays(on, -bornDays), on, 3, rules)

test('fish that came weigh what the book says, until somebody holds a ruler to them', () => {
  expect(mass(guppy)).toEqual({ massG: 0.8, mouth: 'small', isGuessed: false })
  expect(mass(guppy, [{ on, cm: 1.5 }])).toEqual({ massG: 0.1, mouth: 'tiny', isGuessed: false })
  // A large one eats more of what its kind eats.
  expect(mass({ ...guppy, adultCm: 12 }, [{ on, cm: 6 }])).toMatchObject({ massG: 6.4, mouth: 'small' })
  expect(mass({ massG: null, tradedCm: null, adultCm: null, mouth: null })).toEqual({ massG: 3, mouth: 'small', isGuessed: true })
})

test('fry that were born here are no traded fish: on their first day they weigh a hundredth and less, and that is said to be a guess', () => {
  const { massG, mouth, isGuessed } = mass(guppy, [], 0)
  expect([massG < 0.01, mouth, isGuessed]).toEqual([true, 'tiny', true])
  expect(mass(guppy, [{ on, cm: 1.5 }], 40)).toMatchObject({ massG: 0.1, isGuessed: false })
})

test('fry grow by the day and never beyond what their kind weighs full grown', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 900 }), fc.integer({ min: 1, max: 200 }), fc.double({ min: 0.5, max: 30, noNaN: true }), (days, more, traded) => {
      const kind = { ...guppy, tradedCm: traded, adultCm: traded * 1.5 }
      const [young, old] = [mass(kind, [], days).massG, mass(kind, [], days + more).massG]
      expect(old).toBeGreaterThanOrEqual(young)
      expect(old).toBeLessThanOrEqual(0.8 * 1.5 ** 3 + 1e-9)
    }),
    { numRuns: tries(1000, 300) },
  )
})
