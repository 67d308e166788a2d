import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { fromLocalMoment, toLocalMoment } from './localMoment'

test('a moment is typed by the room’s clock, not the device’s', () => {
  expect(fromLocalMoment('2031-05-04T09:05', 'Europe/Berlin')).toBe(Date.UTC(2031, 4, 4, 7, 5))
  expect(fromLocalMoment('2031-05-04T09:05', 'America/New_York')).toBe(Date.UTC(2031, 4, 4, 13, 5))
  expect([fromLocalMoment('', 'UTC'), fromLocalMoment('tomorrow', 'UTC'), toLocalMoment(null, 'UTC')]).toEqual([null, null, ''])
})

test('what is written reads back as the same minute, but for the hour that a clock change repeats', () => {
  const minute = fc.integer({ min: Date.UTC(2020, 0, 1) / 60_000, max: Date.UTC(2040, 0, 1) / 60_000 })
  fc.assert(
    fc.property(minute, fc.constantFrom('UTC', 'Asia/Kolkata', 'Pacific/Auckland', 'America/St_Johns'), (minutes, zone) => {
      const back = fromLocalMoment(toLocalMoment(minutes * 60_000, zone), zone)
      expect([0, 60, -60]).toContain(minutes - Number(back) / 60_000)
    }),
  )
})
