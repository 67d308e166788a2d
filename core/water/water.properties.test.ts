import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { acceptance } from '../acceptance'
import { unionisedMgL, unionisedPercent } from './ammonia'
import { dicFromPh, equilibriumMeterPh, meterPh, molarMass, totalPh, unionisedShare } from './carbonate'
import { conductivityFromSalinity, salinityFromConductivity } from './conductivity'
import { waterConstants } from './constants'
import { salinityFromSg, sgReferenceNames, sgReferences, specificGravity } from './density'
import { freeCo2, hydrogenAtAir, hydrogenOf, lookUp, makeConstants, slot } from './fastChemistry'
import { freeCo2MmolL, totalPhAtAir } from './carbonate'
import { greatestBiomassG, hoursToOxygen, oxygenAfter, oxygenSaturationMgL } from './oxygen'
import { litresToDilute, litresToSwap, saltToAddG } from './salt'
import { tries } from '../testing/tries'

const many = { numRuns: tries(5000) }
const between = (min: number, max: number): fc.Arbitrary<number> => fc.double({ min, max, noNaN: true })
const salinity = between(0, 40)
const temp = between(5, 35)
const alkalinity = between(0.1, 6)
const dic = between(0.1, 12)
const tan = between(0, 20)
const near = (a: number, b: number, by: number): boolean => Math.abs(a - b) <= by

describe('conversions invert each other', () => {
  test('salinity and specific gravity, every reference pair', () => {
    fc.assert(
      fc.property(between(0.5, 40), fc.constantFrom(...sgReferenceNames), (s, pair) => {
        const { sampleC, waterC } = sgReferences[pair]
        return near(salinityFromSg(specificGravity(s, sampleC, waterC), sampleC, waterC), s, 1e-6)
      }),
      many,
    )
  })
  test('salinity and conductivity', () => {
    fc.assert(fc.property(between(0.05, 40), temp, (s, t) => near(salinityFromConductivity(conductivityFromSalinity(s, t), t), s, 1e-6)), many)
  })
  test('pH and inorganic carbon', () => {
    fc.assert(
      fc.property(between(5.5, 9), alkalinity, salinity, temp, tan, (ph, alk, s, t, n) => {
        const carbon = dicFromPh(ph, alk, s, t, n)
        // Where alkalinity leaves nothing to carbonate there is no carbon that would give this pH.
        return carbon === 0 || near(meterPh({ alkalinityMeqL: alk, dicMmolL: carbon, tanMgL: n, salinityPpt: s, tempC: t }), ph, 1e-6)
      }),
      many,
    )
  })
})

describe('what physics says', () => {
  test('pH rises with alkalinity, falls with carbon; it is always a number', () => {
    fc.assert(
      fc.property(alkalinity, dic, tan, salinity, temp, (alk, carbon, n, s, t) => {
        const c = waterConstants(s, t)
        const ph = totalPh({ alkalinityMeqL: alk, dicMmolL: carbon, tanMgL: n }, c)
        const [more, less] = [totalPh({ alkalinityMeqL: alk * 1.1, dicMmolL: carbon, tanMgL: n }, c), totalPh({ alkalinityMeqL: alk, dicMmolL: carbon * 1.1, tanMgL: n }, c)]
        return Number.isFinite(ph) && ph > 2 && ph < 12 && more >= ph && less <= ph
      }),
      many,
    )
  })
  test('un-ionised ammonia is part of all ammonia, more of it at higher pH and warmth', () => {
    fc.assert(
      fc.property(tan, between(5, 9.5), between(5, 34), salinity, (n, ph, t, s) => {
        const part = unionisedMgL(n, ph, t, s)
        return part >= 0 && part <= n && unionisedPercent(ph + 0.1, t, s) > unionisedPercent(ph, t, s) && unionisedPercent(ph, t + 1, s) > unionisedPercent(ph, t, s)
      }),
      many,
    )
  })
  test('oxygen: less in warm and salt water; time and level agree', () => {
    fc.assert(
      fc.property(salinity, between(5, 34), between(0, 3), between(0, 8), between(0.1, 4), (s, t, k, start, demand) => {
        const saturation = oxygenSaturationMgL(s, t)
        const vessel = { saturationMgL: saturation, exchangePerH: k, demandMgLH: demand }
        const hours = hoursToOxygen(3, start, vessel)
        const isRight = !Number.isFinite(hours) || start <= 3 || near(oxygenAfter(hours, start, vessel), 3, 1e-6)
        return saturation > oxygenSaturationMgL(s, t + 1) && saturation > oxygenSaturationMgL(s + 1, t) && hours >= 0 && isRight && greatestBiomassG(vessel, 3, 10, 0.2) >= 0
      }),
      many,
    )
  })
  test('salt and dilution reach what they aim at', () => {
    fc.assert(
      fc.property(between(1, 500), between(0, 38), between(0, 38), temp, (v, from, to, t) => {
        if (to >= from) {
          const grams = saltToAddG(v, from, to, t, 1)
          const before = ((v * acceptance.density({ S: from, T: t })) / 1000) * from
          const after = (before + grams) / ((v * acceptance.density({ S: from, T: t })) / 1000 + grams / 1000)
          return grams >= 0 && near(after, to, 1e-6)
        }
        const [swap, add] = [litresToSwap(v, from, to), litresToDilute(v, from, to)]
        return near((from * (v - swap)) / v, to, 1e-9) && (to === 0 ? add === Infinity || add > 0 : near((from * v) / (v + add), to, 1e-6))
      }),
      many,
    )
  })
})

describe('the quick chemistry against the plain one', () => {
  const k = makeConstants()
  test('pH within 0.0005, whatever the water and wherever the search begins', () => {
    fc.assert(
      fc.property(alkalinity, dic, tan, salinity, temp, between(4, 10), (alk, carbon, n, s, t, guess) => {
        const c = waterConstants(s, t)
        lookUp(s, t, k)
        const plain = totalPh({ alkalinityMeqL: alk, dicMmolL: carbon, tanMgL: n }, c)
        // Beyond pH 11.5 the plain search comes to its end.
        fc.pre(plain < 11.5)
        const h = hydrogenOf(alk, carbon, n, s, k, 10 ** -guess)
        const co2 = freeCo2MmolL(carbon, plain, c)
        return near(-Math.log10(h), plain, 5e-4) && near(freeCo2(carbon, h, k), co2, 0.0015 * co2 + 1e-6) && near((k[slot.kn] ?? 0) / ((k[slot.kn] ?? 0) + h), unionisedShare(plain, c), 0.002)
      }),
      many,
    )
  })
  test('pH in balance with air within 0.0005', () => {
    fc.assert(
      fc.property(alkalinity, between(300, 2000), salinity, temp, (alk, pco2, s, t) => {
        lookUp(s, t, k)
        return near(-Math.log10(hydrogenAtAir(alk, pco2, s, k, 1e-8)), totalPhAtAir(alk, 0, pco2, waterConstants(s, t)), 5e-4)
      }),
      many,
    )
  })
})

// Each trap has a wrong way that looks right; the figure beside it is what the wrong way would give.
describe('traps', () => {
  test('1: pH and ammonia are not averaged; alkalinity and carbon are', () => {
    const bag = { alkalinityMeqL: 2.6, dicMmolL: 4, tanMgL: 0, salinityPpt: 32, tempC: 25 }
    const tank = { ...bag, dicMmolL: dicFromPh(8.05, 2.6, 32, 25) }
    const mixed = meterPh({ ...bag, dicMmolL: (bag.dicMmolL + tank.dicMmolL) / 2 })
    expect([meterPh(bag), mixed, (meterPh(bag) + 8.05) / 2]).toEqual([expect.closeTo(6.26, 1), expect.closeTo(6.63, 1), expect.closeTo(7.15, 1)])
  })
  test('2: meter pH taken for total pH gives a third too much ammonia', () => {
    const wrong = 100 * unionisedShare(8.1, waterConstants(35, 25))
    expect([unionisedPercent(8.1, 25, 35).toFixed(2), wrong.toFixed(2)]).toEqual(['4.93', '6.65'])
  })
  test('3: ammonia as N, as NH3 and as NH4 are three numbers', () => {
    expect([(molarMass.ammonia / molarMass.nitrogen).toFixed(3), (18.039 / molarMass.nitrogen).toFixed(3)]).toEqual(['1.216', '1.288'])
  })
  test('4: grams in a kilogram and in a litre; the reference pair; the temperature of the reading', () => {
    expect((acceptance.gPerL({ S: 35, T: 25 }) / 35).toFixed(3)).toBe('1.023')
    expect([salinityFromSg(1.025, 25, 25), salinityFromSg(1.025, 15.5556, 15.5556), salinityFromSg(1.025, 25, 15.5556)].map((s) => s.toFixed(1))).toEqual(['33.2', '32.6', '35.9'])
    expect([20, 25, 28].map((T) => acceptance.sFromHydrometer({ reading: 1.025, T, Tcal: 25 }).toFixed(1))).toEqual(['31.5', '33.2', '34.3'])
  })
  test('6: Emerson in sea water and the offset left out look alike at sea salinity; at 20 they do not, and both are wrong', () => {
    const emerson = 100 / (1 + 10 ** (acceptance.pKaEmerson({ T: 25 }) - 8.1))
    const noOffset = (s: number): number => 100 * unionisedShare(8.1, waterConstants(s, 25))
    expect([unionisedPercent(8.1, 25, 20), emerson, noOffset(20), noOffset(35)].map((share) => share.toFixed(2))).toEqual(['5.65', '6.66', '6.97', '6.65'])
  })
  test('7: warming alone raises ammonia', () => expect(unionisedPercent(7, 25, 0) / unionisedPercent(7, 20, 0)).toBeCloseTo(1.43, 2))
  test('8: a gravity below pure water is no salt, one beyond the scale is no number', () => {
    expect([salinityFromSg(0.99, 25, 25), salinityFromSg(1.06, 25, 25)]).toEqual([0, NaN])
    expect(waterConstants(-1, 20)).toEqual(waterConstants(0, 20))
  })
  test('9: a tight aim by filling takes eighty times the water', () => expect(acceptance.fillVolume({ V0: 2, c0: 27, ct: 35, tol: 0.1 })).toBeCloseTo(160, 9))
  test('11: oxygen in a filled bag lasts weeks, the pH does not', () => {
    const bag = acceptance.bag({ n: 1, mass: 20, Vw: 2, Vh: 4, hours: 24, Tpack: 25, Ttransit: 24, Topen: 22, pH0: 8.1, alk0: 2.5, S: 33 })
    expect([bag.tHypoxia > 1000, bag.pH < 7.1]).toEqual([true, true])
  })
  test('13: the uncertainty of a level is the filter’s, and a reading below detection is not zero', () => {
    const after = acceptance.treat({ par: { V: 200, lambda: 0, c0: 0.2, sd0: 0.05, doseRel: 0, q: 0 }, events: [{ t: 0, reading: 0.1, sd: 0.05 }] })
    expect([after.c, after.sd]).toEqual([expect.closeTo(0.15, 9), expect.closeTo(0.05 / Math.sqrt(2), 9)])
  })
  test('the pH of water in balance with air does not depend on ammonia that is not there', () => expect(equilibriumMeterPh(2.5, 420, 35, 25, 0)).toBeCloseTo(8.1808, 3))
})
