import { describe, expect, test } from '@jest/globals'
import { dayInZone, isTimeZone } from './dayInZone'

describe('dayInZone', () => {
  test.each([
    [Date.UTC(2031, 4, 4, 23, 30), 'Europe/Berlin', '2031-05-05'],
    [Date.UTC(2031, 4, 4, 23, 30), 'UTC', '2031-05-04'],
    [Date.UTC(2031, 4, 5, 3, 59), 'America/New_York', '2031-05-04'],
    [Date.UTC(2031, 2, 30, 0, 59), 'Europe/Lisbon', '2031-03-30'], // the hour before clocks go forward
    [Date.UTC(2031, 11, 31, 23, 59), 'Pacific/Kiritimati', '2032-01-01'],
  ])('%d in %s is %s', (atMs, zone, day) => expect(dayInZone(atMs, zone)).toBe(day))

  test('misuse throws', () => {
    expect(() => dayInZone(0, 'Nowhere/Pond')).toThrow(RangeError)
    expect(() => dayInZone(Number.NaN, 'UTC')).toThrow(RangeError)
    expect([isTimeZone('Asia/Tokyo'), isTimeZone('Nowhere/Pond'), isTimeZone('')]).toEqual([true, false, false])
  })
})
