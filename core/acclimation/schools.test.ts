import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { houseOrders, offeredSchools, situationOf, situations, targetOf, type AcclimationQuestion } from './question'
import { rankIn } from './judge'
import { figuresOf, limitsFor, ratiosOf, worstRatio } from './figures'
import { standardLimits } from '../limits/houseLimits'
import { toleranceLevels } from '../setup/words'
import { makeSeries } from './runFast'
import { floatMinutes, litresAdded, phasesOf, schools, type SchoolScene } from './schools'

const question: AcclimationQuestion = {
  ...{ waterClass: 'marine', told: { salinityPpt: 33 }, measured: {}, guessedC: 24, bags: 1, isFed: false, hasSpareTank: false, prepared: null, tolerance: 'normal', roomC: 22, roomPco2Uatm: 600 },
  bag: { fish: 1, massG: 20, waterL: 1.5, gasL: 3, hours: 5, packedC: 25, transitC: 24 },
  tank: { tempC: 25.5, salinityPpt: 34, alkalinityMeqL: 2.7, ph: 8.2 },
}
const hours = (each: number): AcclimationQuestion => ({ ...question, bag: { ...question.bag, hours: each } })

test.each<[string, AcclimationQuestion, string]>([
  ['a few hours', question, 'medium'],
  ['half an hour', hours(0.5), 'short'],
  ['a night', hours(20), 'long'],
  ['a delicate fish, a few hours', { ...question, tolerance: 'delicate' }, 'delicate'],
  ['a delicate fish, a night', { ...hours(20), tolerance: 'very delicate' }, 'long'],
  ['many bags', { ...hours(20), bags: 8 }, 'singles'],
  ['a prepared tank', { ...hours(20), prepared: { salinityPpt: 33, tempC: 24 } }, 'prepared'],
  ['brackish to sea', { ...question, told: { salinityPpt: 9 } }, 'crossing'],
  ['brackish to sea, the tank prepared to it', { ...question, told: { salinityPpt: 9 }, prepared: { salinityPpt: 10, tempC: 25 } }, 'prepared'],
  ['nothing told: the class stands in', { ...question, told: {}, waterClass: 'brackish' }, 'crossing'],
])('%s is %s', (_what, asked, situation) => expect(situationOf(asked)).toBe(situation))

test('schools are on offer where they can be carried out, and every order names known ones', () => {
  const keys = (asked: AcclimationQuestion): string[] => offeredSchools(asked).map(({ key }) => key)
  expect(keys(question)).toEqual(['straight', 'netOver', 'siphon', 'drip', 'dripAir', 'rapid', 'step'])
  expect(keys({ ...question, bags: 5 })).toContain('pooled')
  expect(keys({ ...question, told: { salinityPpt: 9 } })).toEqual(expect.arrayContaining(['overflow']))
  expect(keys({ ...question, told: { salinityPpt: 9 } })).not.toContain('ramp')
  expect(keys({ ...question, told: { salinityPpt: 9 }, hasSpareTank: true })).toContain('ramp')
  for (const situation of situations) for (const key of houseOrders[situation].order) expect(schools.some((school) => school.key === key)).toBe(true)
  expect(['dripAir', 'ours', 'netOver'].map((key) => rankIn(houseOrders.long.order, key))).toEqual([7, 6, 0])
  expect(targetOf({ ...question, prepared: { salinityPpt: 28, tempC: 24 } })).toEqual({ tempC: 24, salinityPpt: 28, alkalinityMeqL: 2.7, ph: 8.2 })
})

describe('steps as phases', () => {
  const scene: SchoolScene = { waterL: 2, bags: 6, floatMin: 15, floatTauMin: 12, sealedShare: 0.3, tankC: 25, roomC: 22, exchangePerH: { bag: 0.2, bucket: 0.5, siphon: 2, air: 4 }, pourShare: 0.2 }
  const minutes = (key: string): number => phasesOf(schools.find((school) => school.key === key)?.steps ?? [], scene).reduce((sum, phase) => sum + ('minutes' in phase ? phase.minutes : 0), 0)
  const litres = (key: string): number => litresAdded(phasesOf(schools.find((school) => school.key === key)?.steps ?? [], scene))
  test.each([['straight', 1, 0], ['netOver', 17, 0], ['matched', 20, 8], ['siphon', 20, 8], ['drip', 75, 6], ['dripAir', 75, 6], ['rapid', 90, 6], ['step', 40, 5], ['pooled', 94.5, 4]])('%s takes %d minutes and %d litres', (key, time, water) => expect([minutes(key), litres(key)]).toEqual([expect.closeTo(time, 9), expect.closeTo(water, 9)]))
  test('a bag floats until it is within a degree, in fives, 15 to 45 minutes', () => {
    expect([floatMinutes(1.5, 0.5), floatMinutes(1.5, 5), floatMinutes(10, 12), floatMinutes(1.5, 5, true), floatMinutes(60, 20, true)]).toEqual([15, 20, 45, 50, 120])
    fc.assert(fc.property(fc.double({ min: 0.1, max: 50, noNaN: true }), fc.double({ min: -25, max: 25, noNaN: true }), (water, gap) => floatMinutes(water, gap) % 5 === 0 && floatMinutes(water, gap) >= 15 && floatMinutes(water, gap) <= 45))
  })
})

describe('limits', () => {
  test('what bears less has tighter limits, and no tank is asked for more oxygen than it can hold', () => {
    const all = toleranceLevels.map((tolerance) => limitsFor(standardLimits, tolerance, 6.7))
    for (const [index, limits] of all.slice(1).entries()) {
      const before = all[index]!
      for (const key of ['nh3', 'dose', 'tempRise', 'tempFall', 'salinityRise', 'salinityFall', 'own', 'co2', 'perHour'] as const) expect([key, limits[key] < before[key]]).toEqual([key, true])
      expect(limits.oxygen).toBeGreaterThan(before.oxygen)
    }
    expect(limitsFor(standardLimits, 'very delicate', 5).oxygen).toBe(4)
  })
  test('a run in which nothing happens stays at nothing; a step shows where it is', () => {
    const series = makeSeries()
    const note = (atMin: number, salinityPpt: number, unionised: number): void => {
      const n = series.length
      for (const [column, value] of [['atMin', atMin], ['tempC', 25], ['salinityPpt', salinityPpt], ['oxygenMgL', 6.7], ['unionisedMgL', unionised], ['ownPh', 8.1], ['co2Ph', 0]] as const) series[column][n] = value
      series.length = n + 1
    }
    for (const minute of [0, 1, 2, 3]) note(minute, 30, 0)
    const limits = limitsFor(standardLimits, 'normal', 6.7)
    expect(worstRatio(ratiosOf(figuresOf(series, 0), limits, 2))).toBe(0)
    note(4, 33, 0.12)
    note(14, 32, 0.02)
    const figures = figuresOf(series, 1.5)
    expect(figures).toMatchObject({ peakMgL: 0.12, salinityRisePpt: 3, salinityFallPpt: 0, salinityPerHour: 3, minutes: 14, litres: 1.5 })
    expect(figures.doseAboveFloor).toBeCloseTo(0.1 / 2 + (0.1 / 2) * 10, 9)
    expect(ratiosOf(figures, limits, Infinity)).toMatchObject({ S: 1.2, nh3: 1.2, Shr: 0 })
  })
})
