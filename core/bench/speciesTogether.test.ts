import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { toleranceLevels } from '../setup/words'
import { temperaments } from '../species/speciesWords'
import { standardLimits } from '../limits/houseLimits'
import { speciesTogether, type FishInIt } from './speciesTogether'

const plain: FishInIt = { fish: 10, massG: 2, phMax: 7.5, tolerance: 'normal', temperament: 'peaceful' }

test('the mean fish weighs what they weigh together; who bears least and who fights most sets the rest', () => {
  expect(speciesTogether([plain, { ...plain, fish: 2, massG: 20, phMax: 6.8, tolerance: 'delicate', temperament: 'territorial' }], standardLimits)).toEqual({ massG: 5, phMax: 6.8, tolerance: 'delicate', temperament: 'territorial' })
  expect(speciesTogether([plain], standardLimits)).toEqual({ massG: 2, phMax: 7.5, tolerance: 'normal', temperament: 'peaceful' })
})

test('what the book does not say of any stays unsaid; of one of them it is taken as usual', () => {
  const silent: FishInIt = { fish: 5, massG: null, phMax: null, tolerance: null, temperament: null }
  expect(speciesTogether([silent, silent], standardLimits)).toEqual({ massG: null, phMax: null, tolerance: null, temperament: null })
  expect(speciesTogether([plain, silent], standardLimits)).toMatchObject({ massG: expect.closeTo((10 * 2 + 5 * 3) / 15, 9), tolerance: 'normal' })
})

test('nobody in the vessel is judged more hardy than by themselves, and their weight adds up', () => {
  const anyFish = fc.record({ fish: fc.integer({ min: 1, max: 60 }), massG: fc.double({ min: 0.1, max: 50, noNaN: true }), phMax: fc.double({ min: 6, max: 9, noNaN: true }), tolerance: fc.constantFrom(...toleranceLevels), temperament: fc.constantFrom(...temperaments) })
  fc.assert(
    fc.property(fc.array(anyFish, { minLength: 1, maxLength: 6 }), (all) => {
      const one = speciesTogether(all, standardLimits)
      const count = all.reduce((sum, { fish }) => sum + fish, 0)
      expect((one.massG ?? 0) * count).toBeCloseTo(all.reduce((sum, { fish, massG }) => sum + fish * massG, 0), 6)
      for (const each of all) {
        expect(toleranceLevels.indexOf(one.tolerance ?? 'hardy')).toBeGreaterThanOrEqual(toleranceLevels.indexOf(each.tolerance))
        expect(one.phMax).toBeLessThanOrEqual(each.phMax)
      }
    }),
  )
})
