import { describe, expect, test } from '@jest/globals'
import { number, object, string } from 'yup'
import { baseUnits, type DisplayUnits } from '../../core/units/units'
import { readDesk, shownBound } from './FigureField'
import { schemaErrors } from './schemaErrors'
import { createUnits, readNumber } from './useUnits'

const american: DisplayUnits = { temperatureUnit: '°F', volumeUnit: 'gal', salinityUnit: 'SG', sgReference: '25/25' }

test.each<[string, number]>([
  ['1,5', 1.5],
  [' 2.25 ', 2.25],
  ['−3', -3],
  ['-3', -3],
  ['', NaN],
  ['   ', NaN],
  ['12 mg', NaN],
  ['1.2.3', NaN],
  ['1e3', 1000],
])('%p is read as %p', (typed, value) => expect(readNumber(typed)).toBe(value))

describe('figures in the units of the room', () => {
  test('levels carry their unit and a real minus; whole litres need no digits', () => {
    const [metric, us] = [createUnits(baseUnits), createUnits(american)]
    expect([metric.show('temperature', -1.25), metric.show('volume', 20), metric.show('volume', 1.5), metric.show('salinity', 34)]).toEqual(['−1.3 °C', '20 L', '1.5 L', '34.0 ppt'])
    expect([us.show('temperature', 25), us.show('volume', 3.785411784), us.show('salinity', 35), us.label('salinity')]).toEqual(['77.0 °F', '1 US gal', '1.0264 SG 25/25', 'SG 25/25'])
    expect([us.change('temperature', 1), us.change('salinity', 1), us.display]).toEqual(['1.8 °F', '1.0 ppt', american])
  })

  test('what is typed comes back in base units; nonsense is no figure', () => {
    const us = createUnits(american)
    expect(us.read('temperature', '77')).toBe(25)
    expect(us.read('volume', '1')).toBeCloseTo(3.785, 3)
    expect(us.read('salinity', '1.0264')).toBeCloseTo(35, 1)
    expect([us.read('temperature', 'warm'), us.read('salinity', '35'), us.read('volume', '')]).toEqual([NaN, NaN, NaN])
  })

  test('a field tells nothing typed from nonsense, and shows its bounds as they would be typed', () => {
    const [metric, us] = [createUnits(baseUnits), createUnits(american)]
    expect([readDesk({}, ' ', us), readDesk({}, 'x', us), readDesk({}, '3,5', us), readDesk({ quantity: 'temperature' }, '50', us)]).toEqual([undefined, NaN, 3.5, 10])
    expect([shownBound(us)({ quantity: 'temperature' }, 35), shownBound(metric)({ quantity: 'volume' }, 100_000), shownBound(us)({ unit: 'mg/L' }, 10_000), shownBound(us)({}, 5)]).toEqual(['95.0 °F', '100000 L', '10,000 mg/L', '5'])
  })
})

test('a schema says one sentence for each field, the first that matters; other errors are not swallowed', () => {
  const schema = object({ name: string().defined('Name is missing').nonNullable('Name is missing').trim().min(1, 'Name is missing').max(5, 'Name is too long'), hours: number().typeError('Hours must be a number').min(0, 'Hours must be at least 0').max(9, 'Hours must be at most 9') })
  expect(schemaErrors(schema, { name: 'Imre', hours: 3 })).toEqual({})
  expect(schemaErrors(schema, { name: '', hours: -2 })).toEqual({ name: 'Name is missing', hours: 'Hours must be at least 0' })
  expect(schemaErrors(schema, { name: 'Imre the lead', hours: 'two' })).toEqual({ name: 'Name is too long', hours: 'Hours must be a number' })
  const broken = { validateSync: () => { throw new TypeError('of the code') } } as never
  expect(() => schemaErrors(broken, {})).toThrow('of the code')
})
