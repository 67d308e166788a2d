import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { emptyValues } from '../../core/setup/registerCsv'
import { registers } from '../../core/setup/registers'
import { speciesBook } from '../../core/species/speciesBook'
import { baseUnits } from '../../core/units/units'
import { createUnits } from '../ui/useUnits'
import { fromInputs, toInputs } from './registerForm'
import { tries } from '../../core/testing/tries'

const metric = createUnits(baseUnits)
const american = createUnits({ temperatureUnit: '°F', volumeUnit: 'gal', salinityUnit: 'SG', sgReference: '25/25' })
const supplier = { ...emptyValues(registers.suppliers.fields), name: 'Pale Harbour', shippingTempC: 24.3, shippingSalinityPpt: 33.19, transitHours: 20 }

describe('a form of a register', () => {
  test.each([['metric', metric], ['american', american]] as const)('looked at and saved in %s units, every species of the book stays what it is', (_name, units) => {
    for (const entry of speciesBook) {
      const before = { ...emptyValues(registers.species.fields), ...entry }
      expect(fromInputs('species', toInputs('species', before, units), before, units)).toEqual({ ok: true, values: before })
    }
  })

  test('figures are typed in the room’s units, with comma or point', () => {
    const read = fromInputs('suppliers', { ...toInputs('suppliers', supplier, american), shippingTempC: '77', shippingSalinityPpt: '1,025' }, supplier, american)
    expect(read).toMatchObject({ ok: true, values: { shippingTempC: 25, transitHours: 20 } })
    expect(read.ok && read.values.shippingSalinityPpt).toBeCloseTo(33.188, 2)
  })

  test('nonsense gets a sentence in the unit it was typed in', () => {
    const said = (change: object): Record<string, string> => {
      const read = fromInputs('suppliers', { ...toInputs('suppliers', supplier, american), ...change }, supplier, american)
      return read.ok ? {} : read.errors
    }
    expect(said({ shippingTempC: '400' })).toEqual({ shippingTempC: 'This must be a number between 32.0 and 113.0 °F' })
    // 35 in a field of specific gravity is ppt by habit.
    expect(said({ shippingSalinityPpt: '35' }).shippingSalinityPpt).toMatch(/must be a number/)
    expect(said({ shippingTempC: 'warm' }).shippingTempC).toMatch(/must be a number/)
    expect(said({ name: '  ' })).toEqual({ name: 'Name is missing' })
    expect(said({ transitHours: '-3' })).toEqual({ transitHours: 'Usual time in the bag must be at least 0 h' })
  })

  test('whatever is typed, it is read or refused, never NaN', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 12 }), fc.constantFrom(metric, american), (typed, units) => {
        const read = fromInputs('suppliers', { ...toInputs('suppliers', supplier, units), shippingPh: typed, shippingSalinityPpt: typed, transitHours: typed }, supplier, units)
        if (read.ok) for (const value of Object.values(read.values)) expect(value === null || typeof value === 'string' || Number.isFinite(value)).toBe(true)
      }),
      { numRuns: tries(2000) },
    )
  })
})
