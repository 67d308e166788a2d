import { describe, expect, test } from '@jest/globals'
import { acuteCriterion2013, chronicCriterion2013, unionisedPercent } from './ammonia'
import { co2MgL, equilibriumMeterPh, pco2Uatm } from './carbonate'
import { conductivityFromSalinity, salinityFromRatio } from './conductivity'
import { ammoniumPka, lnBisulfate } from './constants'
import { floatExpansionPerK, salinityFromHydrometer, salinityFromSg, seawaterDensity, sgReferences } from './density'
import { oxygenSaturationMgL, pressureAtAltitudeAtm } from './oxygen'

// Values that others published, beside those of the fixture.
describe('specific gravity in three scales, as tabulated', () => {
  const table: [number, number, number, number][] = [[1.015, 19.94, 19.76, 19.56], [1.018, 23.92, 23.71, 23.48], [1.02, 26.57, 26.34, 26.08], [1.022, 29.22, 28.97, 28.69], [1.023, 30.54, 30.28, 29.99], [1.025, 33.19, 32.9, 32.59], [1.026, 34.51, 34.21, 33.88], [1.0264, 35.04, 34.73, 34.4]]
  test.each(table)('%d', (sg, at25, at20, at60) => {
    const read = (pair: keyof typeof sgReferences): string => salinityFromSg(sg, sgReferences[pair].sampleC, sgReferences[pair].waterC).toFixed(2)
    expect([read('25/25'), read('20/20'), read('60F/60F')]).toEqual([at25.toFixed(2), at20.toFixed(2), at60.toFixed(2)])
  })
})

describe('check values', () => {
  test('UNESCO 1981: density and salinity', () => {
    expect([seawaterDensity(0, 5), seawaterDensity(35, 5), seawaterDensity(35, 25), seawaterDensity(0, 25)]).toEqual([expect.closeTo(999.96675, 4), expect.closeTo(1027.67547, 4), expect.closeTo(1023.34306, 4), expect.closeTo(997.04796, 4)])
    expect([salinityFromRatio(1, 15), salinityFromRatio(1.2, 20, 2000), salinityFromRatio(0.65, 5, 1500)]).toEqual([expect.closeTo(35, 5), expect.closeTo(37.245628, 4), expect.closeTo(27.995347, 4)])
    expect(conductivityFromSalinity(35, 15)).toBeCloseTo(42.914, 4)
  })
  test('Emerson et al. 1975: per cent un-ionised in fresh water; the printed table took 273.2', () => {
    for (const [ph, t, printed] of [[7, 20, 0.396], [8, 20, 3.82], [8, 25, 5.38], [8.5, 30, 20.3]] as const) expect(Math.abs(unionisedPercent(ph, t, 0) / printed - 1)).toBeLessThan(0.006)
  })
  test('un-ionised ammonia in sea water lies where Bell et al. 2007 have it', () => {
    // Their linear fit is on the free scale; the difference of the scales is the first term of the offset.
    for (const [s, t] of [[35, 25], [20, 20], [35, 10], [10, 30]] as const) {
      const free = 10.0423 - 0.0315536 * t + 0.003071 * s
      const sulfate = ((0.14 / 96.062) * s) / 1.80655
      expect(Math.abs(ammoniumPka(s, t) + Math.log10(1 + sulfate / Math.exp(lnBisulfate(s, t))) - free)).toBeLessThan(0.015)
    }
  })
  test('EPA 2013 at pH 7 and 20 °C: 17 acute, 1.9 chronic', () => {
    expect([acuteCriterion2013(7, 20), chronicCriterion2013(7, 20)]).toEqual([expect.closeTo(16.8, 1), expect.closeTo(1.9, 1)])
  })
  test('oxygen as tabulated in APHA 4500-O, at sea level and at a thousand metres', () => {
    for (const [t, tabulated] of [[0, 14.621], [10, 11.288], [20, 9.092], [25, 8.263], [30, 7.559]] as const) expect(oxygenSaturationMgL(0, t)).toBeCloseTo(tabulated, 2)
    expect(oxygenSaturationMgL(0, 25, pressureAtAltitudeAtm(1000))).toBeCloseTo(7.299, 2)
  })
})

describe('water in balance with air', () => {
  test('has the carbon dioxide of that air', () => {
    for (const [alk, pco2, s, t] of [[2.5, 420, 35, 25], [2, 600, 0.3, 25], [0.6, 1000, 0.1, 22]] as const) {
      const ph = equilibriumMeterPh(alk, pco2, s, t)
      expect(ph).toBeGreaterThan(6.5)
      expect(ph).toBeLessThan(8.6)
    }
    const stale = { alkalinityMeqL: 2.5, dicMmolL: 2.3, tanMgL: 0, salinityPpt: 34, tempC: 25 }
    expect([pco2Uatm(stale), co2MgL(stale)]).toEqual([expect.closeTo(728.42, 1), expect.closeTo(0.93, 1)])
  })
})

test('a plastic float bends the reading more than a glass one', () => {
  const read = (expansionPerK: number): number => salinityFromHydrometer({ reading: 1.023, tempC: 30, scaleC: 25, expansionPerK })
  expect([read(floatExpansionPerK.glass), read(floatExpansionPerK.plastic)].map((s) => s.toFixed(1))).toEqual(['32.5', '31.3'])
})
