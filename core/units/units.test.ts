import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { sgReferenceNames } from '../water/density'
import { baseUnits, fromDisplay, salinityUnits, temperatureUnits, toDisplay, unitLabel, volumeUnits, type DisplayUnits } from './units'

const anyUnits: fc.Arbitrary<DisplayUnits> = fc.record({
  temperatureUnit: fc.constantFrom(...temperatureUnits),
  volumeUnit: fc.constantFrom(...volumeUnits),
  salinityUnit: fc.constantFrom(...salinityUnits),
  sgReference: fc.constantFrom(...sgReferenceNames),
})

test('what is shown and typed back is what was stored', () => {
  fc.assert(
    fc.property(anyUnits, fc.double({ min: -2, max: 40, noNaN: true }), fc.double({ min: 0, max: 50_000, noNaN: true }), fc.double({ min: 0, max: 42, noNaN: true }), (units, tempC, volumeL, salinityPpt) => {
      expect(fromDisplay('temperature', toDisplay('temperature', tempC, units), units)).toBeCloseTo(tempC, 9)
      expect(fromDisplay('volume', toDisplay('volume', volumeL, units), units)).toBeCloseTo(volumeL, 6)
      // On the mixed scales fresh water reads below 1 and is brought back to 0.
      expect(Math.abs(fromDisplay('salinity', toDisplay('salinity', salinityPpt, units), units) - salinityPpt)).toBeLessThan(1e-6)
    }),
    { numRuns: 5000 },
  )
})

test('published anchors', () => {
  expect(toDisplay('temperature', 25, { ...baseUnits, temperatureUnit: '°F' })).toBe(77)
  expect(fromDisplay('volume', 55, { ...baseUnits, volumeUnit: 'gal' })).toBeCloseTo(208.198, 3)
  expect(toDisplay('salinity', 35, { ...baseUnits, salinityUnit: 'SG' })).toBeCloseTo(1.0264, 4)
  expect(unitLabel('salinity', { ...baseUnits, salinityUnit: 'SG', sgReference: '60F/60F' })).toBe('SG 60F/60F')
  expect(fromDisplay('salinity', 35, { ...baseUnits, salinityUnit: 'SG' })).toBeNaN()
})
