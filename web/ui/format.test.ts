import { expect, test } from '@jest/globals'
import { createFormat, formatSpan, plural, signed, formatTimer } from './format'

test('moments go by the room, not by the device', () => {
  const format = createFormat('Europe/Lisbon')
  expect(format.moment(Date.UTC(2031, 4, 4, 7, 5))).toBe('Sun 4 May 08:05')
})

test.each([
  [-5, '0 min'],
  [48 * 60_000, '48 min'],
  [(19 * 60 + 5) * 60_000, '19 h 05'],
  [3.4 * 24 * 3_600_000, '3 days'],
])('a span of %d ms is %s', (ms, text) => expect(formatSpan(ms)).toBe(text))

test('numbers come with their word and sign', () => {
  expect([plural(1, 'bag'), plural(0, 'bag'), plural(2, 'fish', 'fish')]).toEqual(['1 bag', '0 bags', '2 fish'])
  expect([signed(2), signed(-1), signed(0)]).toEqual(['+2', '−1', '±0'])
})

test('a running timer to the second, past its end with a plus', () => {
  expect([680_000, 59_999, 3_731_000, -48_500, 0].map(formatTimer)).toEqual(['11:20', '0:59', '1:02:11', '+0:48', '0:00'])
})
