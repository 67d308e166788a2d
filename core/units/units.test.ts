import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { sgReferenceNames } from '../water/density'
import { baseUnits, fromDisplay, markedUnits, salinityUnits, showChange, showFigure, showSet, temperatureUnits, toDisplay, unitLabel, volumeUnits, wordFigures, type DisplayUnits } from './units'
import { tries } from '../testing/tries'

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
    { numRuns: tries(5000) },
  )
})

test('how far two figures lie apart has no zero point: 2 °C are 3.6 °F; salinity stays in ppt', () => {
  const all: DisplayUnits = { ...baseUnits, temperatureUnit: '°F', volumeUnit: 'gal', salinityUnit: 'SG' }
  expect([showChange('temperature', 2, all), showChange('temperature', 0, all), showChange('temperature', -1, baseUnits)]).toEqual(['3.6 °F', '0.0 °F', '−1.0 °C'])
  expect([showChange('volume', 3.785, all), showChange('volume', 0.75, baseUnits)]).toEqual(['1.0 US gal', '0.8 L'])
  expect([showChange('salinity', 2.5, all), showChange('salinity', 2.5, baseUnits)]).toEqual(['2.5 ppt', '2.5 ppt'])
  // It is what lies between two levels as they are shown.
  fc.assert(
    fc.property(fc.double({ min: -2, max: 40, noNaN: true }), fc.double({ min: 0, max: 10, noNaN: true }), (tempC, riseC) => {
      expect(Math.abs(parseFloat(showChange('temperature', riseC, all)) - (toDisplay('temperature', tempC + riseC, all) - toDisplay('temperature', tempC, all)))).toBeLessThan(0.0501)
    }),
  )
})

test('small volumes keep the digit that matters', () => {
  expect([showFigure('volume', 0.25, baseUnits), showFigure('volume', 12, baseUnits), showFigure('temperature', -1.5, baseUnits)]).toEqual(['0.25 L', '12.0 L', '−1.5 °C'])
})

test('published anchors', () => {
  expect(toDisplay('temperature', 25, { ...baseUnits, temperatureUnit: '°F' })).toBe(77)
  expect(fromDisplay('volume', 55, { ...baseUnits, volumeUnit: 'gal' })).toBeCloseTo(208.198, 3)
  expect(toDisplay('salinity', 35, { ...baseUnits, salinityUnit: 'SG' })).toBeCloseTo(1.0264, 4)
  expect(unitLabel('salinity', { ...baseUnits, salinityUnit: 'SG', sgReference: '60F/60F' })).toBe('SG 60F/60F')
  expect(fromDisplay('salinity', 35, { ...baseUnits, salinityUnit: 'SG' })).toBeNaN()
})

test('a sentence that was kept says in any units what it would have said in them, inside JSON too', () => {
  const figures = fc.record({ quantity: fc.constantFrom('temperature', 'volume', 'salinity'), base: fc.integer({ min: 0, max: 4000 }).map((tenths) => tenths / 100) })
  fc.assert(
    fc.property(anyUnits, fc.array(figures, { maxLength: 5 }), (units, all) => {
      const say = (as: DisplayUnits): string => all.map(({ quantity, base }) => [showFigure, showChange, showSet].map((show) => `“${show(quantity, base, as)}”\n`).join(' to ')).join()
      const kept = say(markedUnits)
      expect(kept).not.toMatch(/°|ppt| L\b/)
      expect(wordFigures(kept, () => units)).toBe(say(units))
      expect(JSON.parse(wordFigures(JSON.stringify({ kept }), () => units))).toEqual({ kept: say(units) })
    }),
    { numRuns: tries(2000, 200) },
  )
  // What somebody typed stays as it is.
  for (const text of ['⟨figure salinity many⟩', '⟨', 'at 34 ppt', '']) expect(wordFigures(text, () => baseUnits)).toBe(text)
})
