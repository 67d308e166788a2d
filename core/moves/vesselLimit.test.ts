import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { standardLimits } from '../limits/houseLimits'
import { vesselLimit, type StoodVessel } from './vesselLimit'

describe('how long a vessel bears its fish', () => {
  // Worked cases of the rule.
  test.each<[string, StoodVessel, object]>([
    ['without air the house limit of time binds before oxygen in a bucket this size', { litres: 12, tempC: 25, salinityPpt: 0.3, ph: 7.6, air: false, fish: [{ n: 3, massG: 60 }], tolerance: 'normal', roomC: 22 }, { minutes: 60, likely: 60, binds: 'time' }],
    ['a room at 18 °C: the way back would be too large a rise', { litres: 12, tempC: 26, salinityPpt: 34, ph: 8.2, air: true, fish: [{ n: 2, massG: 60 }, { n: 1, massG: 120 }], tolerance: 'delicate', roomC: 18 }, { minutes: 91, likely: 91, binds: 'temperature' }],
    ['overloaded and not aerated: oxygen', { litres: 6, tempC: 27, salinityPpt: 0.3, ph: 8, air: false, fish: [{ n: 4, massG: 40 }], tolerance: 'hardy', roomC: 24 }, { minutes: 34, likely: 60, binds: 'oxygen' }],
    ['a box hangs in its tank: days', { kind: 'box', litres: 2, tempC: 25, air: false, fish: [{ n: 1, massG: 5 }] }, { minutes: 4320, likely: 4320, binds: 'time' }],
  ])('%s', (_, vessel, expected) => expect(vesselLimit(vessel, standardLimits)).toEqual(expected))

  test('more fish, less water or no air never make it longer; careful is never longer than likely', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 60, noNaN: true }), fc.integer({ min: 1, max: 40 }), fc.double({ min: 0.2, max: 80, noNaN: true }), fc.double({ min: 15, max: 30, noNaN: true }), fc.boolean(), (litres, n, massG, tempC, air) => {
        const asked: StoodVessel = { litres, tempC, ph: 7.8, air, fish: [{ n, massG }] }
        const { minutes, likely } = vesselLimit(asked, standardLimits)
        expect(minutes).toBeLessThanOrEqual(likely)
        expect(vesselLimit({ ...asked, fish: [{ n: n + 1, massG }] }, standardLimits).minutes).toBeLessThanOrEqual(minutes)
        expect(vesselLimit({ ...asked, litres: litres / 2 }, standardLimits).minutes).toBeLessThanOrEqual(minutes)
        expect(vesselLimit({ ...asked, air: false }, standardLimits).minutes).toBeLessThanOrEqual(minutes)
      }),
      { numRuns: 400 },
    )
  })

  test('an empty vessel is no question', () => expect(() => vesselLimit({ litres: 0, tempC: 25, air: true, fish: [] }, standardLimits)).toThrow(RangeError))
})
