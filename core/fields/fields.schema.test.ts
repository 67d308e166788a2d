import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { ValidationError } from 'yup'
import { choice, choices, identifier, optionalChoice, optionalIdentifier, optionalMeasure, optionalText, strictObject, text, whole } from './fields.schema'
import { tries } from '../testing/tries'

const schema = strictObject({
  name: text('Name', 10, 2),
  note: optionalText('Note', 5),
  fish: whole('Fish', 1, 9, 'fish'),
  tempC: optionalMeasure('Temperature', '°C', -5, 50),
  kind: choice('Kind', ['a', 'b']),
  mood: optionalChoice('Mood', ['up', 'down']),
  looks: choices('Looks', ['x', 'y']),
  id: identifier('Id'),
  other: optionalIdentifier('Other'),
})
const good = { name: 'Imre', note: null, fish: 3, tempC: 21.5, kind: 'a', mood: null, looks: ['x'], id: 'abc_-1', other: null }
const complaints = (value: unknown): Record<string, string> => {
  try {
    schema.validateSync(value, { strict: true, abortEarly: false })
    return {}
  } catch (error) {
    return Object.fromEntries((error as ValidationError).inner.map((each) => [each.path ?? '', each.message]))
  }
}

describe('fields', () => {
  test('good values pass as they are', () => expect(complaints(good)).toEqual({}))

  test.each<[keyof typeof good, unknown, RegExp]>([
    ['name', 'I', /at least 2 characters/],
    ['name', '     ', /missing/],
    ['name', 'x'.repeat(11), /at most 10/],
    ['name', 'a\u0007b', /cannot be kept/],
    ['name', 5, /must be text/],
    ['note', 'too long', /at most 5/],
    ['note', undefined, /send null/],
    ['fish', 0, /at least 1 fish/],
    ['fish', 10, /at most 9 fish/],
    ['fish', 2.5, /whole number/],
    ['fish', '3', /must be a number of fish/],
    ['fish', Number.NaN, /must be a number/],
    ['fish', null, /missing/],
    ['tempC', 51, /at most 50 °C/],
    ['tempC', true, /must be a number of °C/],
    ['kind', 'c', /one of: a, b/],
    ['kind', undefined, /missing/],
    ['mood', 'sideways', /one of: up, down/],
    ['looks', ['x', 'x'], /twice/],
    ['looks', 'x', /must be a list/],
    ['id', 'a b', /not an identifier/],
    ['id', '', /not an identifier|missing/],
    ['other', '../x', /not an identifier/],
  ])('%s = %j', (field, value, message) => {
    const found = complaints({ ...good, [field]: value })
    expect(Object.keys(found)).toEqual([field])
    expect(found[field]).toMatch(message)
  })

  test('a field nobody asked for is named', () => expect(complaints({ ...good, colour: 'red' })['']).toBe('Nothing here is called colour'))

  test('forms may type numbers and leave fields empty', () => {
    expect(schema.cast({ ...good, fish: '4', tempC: '', note: '', mood: '', other: '' })).toMatchObject({ fish: 4, tempC: null, note: null, mood: null, other: null })
  })

  test('no JSON value makes a schema throw anything but a complaint', () => {
    fc.assert(
      fc.property(fc.constantFrom(...Object.keys(good)), fc.jsonValue(), (field, value) => {
        for (const message of Object.values(complaints({ ...good, [field]: value }))) expect(message).toMatch(/\w+ \w+/)
      }),
      { numRuns: tries(2000) },
    )
  })
})
