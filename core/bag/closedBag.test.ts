import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { molarMass } from '../water/carbonate'
import { bagBand } from './bagBand'
import { openBag, waterShareOfCo2, type PackedBag } from './closedBag'
import { metabolismAt, oxygenDemandMgGH } from './metabolism'
import { tries } from '../testing/tries'

const between = (min: number, max: number): fc.Arbitrary<number> => fc.double({ min, max, noNaN: true })
const bag: fc.Arbitrary<PackedBag> = fc.record({
  fish: fc.integer({ min: 1, max: 60 }),
  massG: between(0.1, 30),
  waterL: between(0.3, 10),
  gasL: between(0.3, 20),
  hours: between(0.2, 60),
  packedC: between(18, 28),
  transitC: between(15, 28),
  openedC: between(12, 28),
  ph: between(6.2, 8.4),
  alkalinityMeqL: between(0.4, 5),
  salinityPpt: between(0, 36),
})
/** No more than 60 g of fish in a litre. */
const sensible = (each: PackedBag): PackedBag => ({ ...each, fish: Math.max(1, Math.min(each.fish, Math.floor((60 * each.waterL) / each.massG))) })

describe('any shut bag', () => {
  test('every figure is finite and none below zero; un-ionised ammonia is part of all ammonia', () => {
    fc.assert(
      fc.property(bag.map(sensible), (packed) => {
        const opened = openBag(packed)
        return Object.values(opened).every((value) => Number.isFinite(value) && value >= 0) && opened.unionisedMgL <= opened.tanMgL && opened.ph > 3 && opened.ph < 10
      }),
      { numRuns: tries(5000) },
    )
  })
  test('more hours, more ammonia, less oxygen; and more carbon dioxide, so a lower pH', () => {
    fc.assert(
      fc.property(bag.map(sensible), (packed) => {
        const [now, later] = [openBag(packed), openBag({ ...packed, hours: packed.hours + 2 })]
        const isSpent = now.hoursToNoOxygen <= packed.hours
        return isSpent || (later.tanMgL > now.tanMgL && later.oxygenMgL <= now.oxygenMgL && later.co2MgL > now.co2MgL)
      }),
      { numRuns: tries(2000) },
    )
  })
  test('nitrogen found is nitrogen excreted', () => {
    fc.assert(
      fc.property(bag.map(sensible), (packed) => {
        const { tanMgL, oxygenUsedMg } = openBag(packed)
        const excreted = (oxygenUsedMg * metabolismAt.likely.ammoniaQuotient * molarMass.nitrogen) / molarMass.oxygen
        return Math.abs(tanMgL * packed.waterL - excreted) < 1e-9 * (1 + excreted)
      }),
      { numRuns: tries(2000) },
    )
  })
  test('the share of carbon dioxide that stays in the water lies between none and all, and grows with the water', () => {
    fc.assert(fc.property(between(0.1, 10), between(0.1, 20), between(0, 36), between(12, 28), (water, gas, s, t) => waterShareOfCo2(water, gas, s, t) > 0 && waterShareOfCo2(water, gas, s, t) < 1 && waterShareOfCo2(water * 2, gas, s, t) > waterShareOfCo2(water, gas, s, t)))
  })
})

// Twenty-gram marine fish, a day in the bag, twice as much gas as water.
test.each([[5, 1.7, 7.37], [10, 3.3, 7.01], [20, 6.6, 6.69], [40, 13, 6.4]])('loaded with %d g in a litre: ammonia about %d mg/L, pH about %d', (load, tan, ph) => {
  const waterL = 20 / load
  const band = bagBand({ fish: 1, massG: 20, waterL, gasL: 2 * waterL, hours: 24, packedC: 25, transitC: 24, openedC: 22, ph: 8.1, alkalinityMeqL: 2.5, salinityPpt: 33 })
  expect(Math.abs(band.tanMgL.median / tan - 1)).toBeLessThan(0.1)
  expect(Math.abs(band.ph.median - ph)).toBeLessThan(0.08)
})

test('small fish breathe more for their weight, warm ones more than cool', () => {
  expect([oxygenDemandMgGH(1, 25), oxygenDemandMgGH(20, 24)]).toEqual([expect.closeTo(0.3341, 4), expect.closeTo(0.17123, 5)])
  expect(oxygenDemandMgGH(0.4, 23) > oxygenDemandMgGH(20, 23) && oxygenDemandMgGH(1, 28) > oxygenDemandMgGH(1, 20)).toBe(true)
})
