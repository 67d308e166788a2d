import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { holdBeganMs, shopHold } from './formerHold'

const dayMs = 86_400_000
const nowMs = Date.UTC(2031, 4, 20, 12)

describe('the days of a hold', () => {
  test('go by one with every midnight of the room, in every zone', () => {
    fc.assert(
      fc.property(fc.constantFrom('UTC', 'Europe/Berlin', 'America/New_York', 'Pacific/Auckland'), fc.integer({ min: 0, max: 400 }), fc.integer({ min: 1, max: 60 }), (zone, days, of) => {
        const opened = Date.UTC(2031, 0, 10, 12)
        const hold = shopHold(opened, opened + days * dayMs, of, zone)
        return hold !== null && hold.day === days + 1 && hold.isServed === days + 1 > of
      }),
    )
  })
  test('without a hold, or before the crate was opened, there is none', () => {
    expect([shopHold(nowMs, nowMs + dayMs, 0, 'UTC'), shopHold(nowMs, nowMs - dayMs, 14, 'UTC')]).toEqual([null, null])
  })
})

test('a hold begins again with every sign that was confirmed while it ran, never sooner, whatever the order they are named in', () => {
  const began = (...days: number[]): number => (holdBeganMs(nowMs, days.map((day) => nowMs + day * dayMs), 14, 'UTC') - nowMs) / dayMs
  expect([began(), began(3), began(3, 9), began(9, 3), began(20), began(13, 26, 60), began(14)]).toEqual([0, 3, 9, 9, 0, 26, 0])
  fc.assert(fc.property(fc.array(fc.integer({ min: 0, max: 60 }), { maxLength: 6 }), fc.integer({ min: 0, max: 60 }), (days, more) => began(...days, more) >= began(...days)))
})

test('hold days are calendar days of the room, clock changes or not', () => {
  const opened = Date.UTC(2031, 2, 29, 22, 30)
  expect(shopHold(opened, Date.UTC(2031, 2, 29, 23, 30), 14, 'Europe/Berlin')).toEqual({ day: 2, of: 14, isServed: false })
  expect(shopHold(opened, Date.UTC(2031, 3, 12, 21, 0), 14, 'Europe/Berlin')).toEqual({ day: 15, of: 14, isServed: true })
})
