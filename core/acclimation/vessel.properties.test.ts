import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { molarMass } from '../water/carbonate'
import { oxygenSaturationMgL } from '../water/oxygen'
import { figuresOf } from './figures'
import { fillAfter, fillTime, overflowAfter, overflowTime } from './mixing'
import { refitRun, remainingMin } from './refit'
import { createFastRun, makeSeries } from './runFast'
import { summariseRun } from './summariseRun'
import { runVessel, type Phase, type VesselOptions, type VesselState } from './vessel'
import { tries } from '../testing/tries'

const many = { numRuns: tries(5000) }
const between = (min: number, max: number): fc.Arbitrary<number> => fc.double({ min, max, noNaN: true })
/** A bag's water holds more carbon than alkalinity, however it was packed; a tank's may hold a little less. */
const water = (volume: fc.Arbitrary<number>, leastCarbon = 1.05): fc.Arbitrary<VesselState> =>
  fc
    .record({ volumeL: volume, tempC: between(12, 30), salinityPpt: between(0, 36), alkalinityMeqL: between(0.5, 5), carbonOverAlkalinity: between(leastCarbon, 4), tanMgL: between(0, 15), oxygenMgL: between(2, 14) })
    .map(({ carbonOverAlkalinity, ...rest }) => ({ ...rest, dicMmolL: rest.alkalinityMeqL * carbonOverAlkalinity }))
const options: fc.Arbitrary<VesselOptions> = fc.record({ biomassG: between(0.2, 80), demandMgGH: between(0.1, 0.6), nitrogenPerOxygen: between(0.03, 0.13), co2PerOxygen: between(0.02, 0.032), alkalinityPerNitrogen: between(0, 1) })
const stretch: fc.Arbitrary<Phase> = fc
  .record({ minutes: between(1, 70), mode: fc.constantFrom('none' as const, 'fill' as const, 'overflow' as const), flowLPerMin: between(0.005, 0.3), exchangePerH: fc.constantFrom(0, 0.2, 0.5, 2, 4, 10), tauMin: between(8, 300), bathC: between(15, 28) })
const deed: fc.Arbitrary<Phase> = fc.oneof(fc.record({ pour: between(0.05, 0.5) }), fc.record({ dump: between(0.1, 0.8) }), fc.record({ addL: between(0.1, 5) }))
const phases = fc.array(fc.oneof({ weight: 2, arbitrary: stretch }, deed), { minLength: 1, maxLength: 5 }).map((list): Phase[] => [...list, { transfer: true }])
const still: VesselOptions = { biomassG: 0, demandMgGH: 0, nitrogenPerOxygen: 0, co2PerOxygen: 0, alkalinityPerNitrogen: 0 }

const [run, series] = [createFastRun(), makeSeries()]
/** The figures of a quick run. */
const quick = (start: VesselState, tank: VesselState, list: readonly Phase[], given: VesselOptions) => figuresOf(run(start, tank, list, loaded(start, given), 1, series), 0)
/** No more than 40 g of fish in a litre: more is no bag that arrives. */
const loaded = (start: VesselState, given: VesselOptions): VesselOptions => ({ ...given, biomassG: Math.min(given.biomassG, 40 * start.volumeL) })

describe('the quick vessel, random ones', () => {
  test('every figure is finite, none below zero, ammonia within what is there, oxygen within what air and bag give', () => {
    fc.assert(
      fc.property(water(between(0.2, 10)), water(fc.constant(100), 0.93), phases, options, (start, tank, list, given) => {
        const figures = quick(start, tank, list, given)
        for (const value of Object.values(figures)) if (!Number.isFinite(value) || value < 0) return false
        for (let index = 0; index < series.length; index += 1) if (!Number.isFinite(series.co2Ph[index]) || !Number.isFinite(series.ownPh[index])) return false
        return true
      }),
      many,
    )
  })
  test('half the step changes peak and dose by less than half a per cent', () => {
    const halved = (list: readonly Phase[]): Phase[] => list.flatMap((phase): Phase[] => ('minutes' in phase ? [{ ...phase, minutes: phase.minutes / 2 }, { ...phase, minutes: phase.minutes / 2 }] : [phase]))
    // Stretches cut in two at odd places take other, shorter steps.
    fc.assert(
      fc.property(water(between(0.5, 10)), water(fc.constant(100), 0.93), phases, options, (start, tank, list, given) => {
        const [whole, half] = [quick(start, tank, list, given), quick(start, tank, halved(halved(list)), given)]
        const isNear = (a: number, b: number, least: number): boolean => Math.abs(a - b) <= 0.005 * Math.max(a, b) + least
        // Three ten-thousandths are a hundredth of the least level that is shown.
        return isNear(whole.peakMgL, half.peakMgL, 3e-4) && isNear(whole.doseAboveFloor, half.doseAboveFloor, 0.01)
      }),
      many,
    )
  })
  test('mixing keeps salt, alkalinity, carbon and ammonia, and stays between its waters', () => {
    fc.assert(
      fc.property(water(between(0.2, 10)), water(fc.constant(100), 0.93), between(0.005, 0.5), between(1, 90), (start, tank, flow, minutes) => {
        const end = runVessel(start, tank, [{ minutes, mode: 'fill', flowLPerMin: flow }], { ...still, stepMin: 5 }).at(-1) as VesselState
        const added = flow * minutes
        return (['salinityPpt', 'alkalinityMeqL', 'dicMmolL', 'tanMgL'] as const).every((key) => {
          const kept = (start[key] * start.volumeL + tank[key] * added) / (start.volumeL + added)
          return Math.abs(end[key] - kept) <= 1e-4 * (1 + kept) && end[key] >= Math.min(start[key], tank[key]) - 1e-9 && end[key] <= Math.max(start[key], tank[key]) + 1e-9
        })
      }),
      many,
    )
  })
  test('closed forms: the time to come near enough brings it near enough', () => {
    fc.assert(
      fc.property(between(0.5, 20), between(0.01, 1), between(0, 36), between(0, 36), between(0.1, 3), (volumeL, flow, from, to, within) => {
        const mixing = { volumeL, flow, from, to }
        const gap = Math.abs(from - to)
        const [fill, over] = [fillTime(mixing, within), overflowTime(mixing, within)]
        if (gap <= within) return fill === 0 && over === 0
        return Math.abs(Math.abs(fillAfter(fill, mixing) - to) - within) < 1e-6 && Math.abs(Math.abs(overflowAfter(over, mixing) - to) - within) < 1e-6 && fill >= over - 1e-9
      }),
      many,
    )
  })
})

test('the quick vessel agrees with the reference: peak and dose within half a per cent', () => {
  fc.assert(
    fc.property(water(between(0.5, 8)), water(fc.constant(100), 0.93), phases, options, (start, tank, list, given) => {
      const plain = summariseRun(runVessel(start, tank, list, { ...loaded(start, given), stepMin: 0.25 }))
      const figures = quick(start, tank, list, given)
      expect(Math.abs(figures.peakMgL - plain.peakMgL)).toBeLessThanOrEqual(0.005 * plain.peakMgL + 1e-4)
      expect(Math.abs(figures.doseAboveFloor - plain.doseAboveFloor)).toBeLessThanOrEqual(0.005 * plain.doseAboveFloor + 0.02)
      expect(Math.abs(figures.lowestOxygenMgL - plain.lowestOxygenMgL)).toBeLessThanOrEqual(0.05)
    }),
    { numRuns: 60 },
  )
})

test('fish alone in a shut vessel: nitrogen excreted is nitrogen found', () => {
  const start: VesselState = { volumeL: 2, tempC: 24, salinityPpt: 33, alkalinityMeqL: 2.5, dicMmolL: 2.2, tanMgL: 0, oxygenMgL: 7 }
  const given: VesselOptions = { biomassG: 10, demandMgGH: 0.2, nitrogenPerOxygen: 0.06, co2PerOxygen: 0.028, alkalinityPerNitrogen: 0.7 }
  const end = runVessel(start, start, [{ minutes: 60, mode: 'none' }], given).at(-1) as VesselState
  const used = (10 * 0.2) / 2
  expect([end.tanMgL, end.dicMmolL - 2.2, end.alkalinityMeqL - 2.5]).toEqual([expect.closeTo(used * 0.06, 9), expect.closeTo(used * 0.028, 9), expect.closeTo(((used * 0.06) / molarMass.nitrogen) * 0.7, 9)])
  expect(oxygenSaturationMgL(33, 24) > 6).toBe(true)
})

describe('traps of the vessel', () => {
  const tank: VesselState = { volumeL: 100, tempC: 25, salinityPpt: 0.3, alkalinityMeqL: 3, dicMmolL: 3.073482, tanMgL: 0, oxygenMgL: 7.8 }
  const bag: VesselState = { volumeL: 3, tempC: 20, salinityPpt: 0.3, alkalinityMeqL: 2.4, dicMmolL: 3.8, tanMgL: 10, oxygenMgL: 12 }
  const fish: VesselOptions = { biomassG: 20, demandMgGH: 0.2, nitrogenPerOxygen: 0.0657, co2PerOxygen: 0.0281, alkalinityPerNitrogen: 0.7 }
  const after = (exchangePerH: number): number => summariseRun(runVessel(bag, tank, [{ minutes: 120, mode: 'none', exchangePerH }], fish)).peakMgL
  test('10: a ratio of doses says little: both are small against the limit, the ratio is large', () => {
    const dose = (minutes: number): number => summariseRun(runVessel({ ...bag, tanMgL: 0.5 }, tank, [{ minutes, mode: 'none', exchangePerH: 0.2 }], { ...fish, biomassG: 2 })).dose
    expect([dose(60) / dose(2) > 20, dose(60) < 5]).toEqual([true, true])
  })
  test('12: how the water is handled decides more than the fish do', () => expect(after(10) / after(0.05)).toBeGreaterThan(5))
})

test('a re-fit finds the true pace and the true end from noisy readings', () => {
  fc.assert(
    fc.property(between(0.01, 0.08), fc.constantFrom('overflow' as const, 'fill' as const), fc.array(between(-0.15, 0.15), { minLength: 4, maxLength: 4 }), (k, kind, noise) => {
      const [from, to] = [25, 35]
      const truth = (t: number): number => (kind === 'overflow' ? to + (from - to) * Math.exp(-k * t) : to + (from - to) / (1 + k * t))
      const readings = [8, 16, 24, 32].map((t, index) => [t, truth(t) + (noise[index] ?? 0)] as const)
      const fit = refitRun(kind, readings, from, to)
      if (!fit) return false
      const end = kind === 'overflow' ? Math.log(10) / k : 9 / k
      const { likely, soonest, latest } = remainingMin(kind, fit, readings, from, to, 1)
      return Math.abs(likely + 32 - Math.max(32, end)) <= 0.15 * end && soonest <= likely && likely <= latest
    }),
    many,
  )
  expect(refitRun('overflow', [[0, 25]], 25, 35)).toBeNull()
  expect(refitRun('overflow', [[10, 36]], 25, 35)).toBeNull()
})
