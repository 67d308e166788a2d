import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { createFastRun, makeSeries } from '../acclimation/runFast'
import { readState, runVessel, withReading, type Phase, type VesselState } from '../acclimation/vessel'
import { standardLimits } from '../limits/houseLimits'
import { tries } from '../testing/tries'
import { atMin, marineBag, runOf, withEvent } from '../testing/benchRun'
import { alarmsOf } from './alarms'
import { estimateWater } from './estimateWater'
import { followRun } from './followRun'
import { hasAir, type RunEvent, type RunRecord } from './runRecord'
import { createSimulatedMeter } from './simulatedMeter'

const limits = standardLimits
/** A drip that has run since minute 21. */
const dripping = (key = 'drip', question = marineBag): RunRecord => withEvent(withEvent(runOf(key, question), 20, { kind: 'step' }), 21, { kind: 'step' })
const waterAt = (run: RunRecord, minutes: number) => estimateWater(run, limits, atMin(minutes)).now
const fouled = { ...marineBag, waterClass: 'hard', told: {}, measured: { tempC: 23, ph: 7.2, tanMgL: 9 }, bag: { ...marineBag.bag, fish: 10, massG: 4 }, tank: { tempC: 25, salinityPpt: 0.3, alkalinityMeqL: 3, ph: 7.8 } } as const

describe('a reading corrects the estimate', () => {
  test('what was measured is what the water is, and what was not measured stays as it was reckoned', () => {
    const before = waterAt(dripping(), 40)
    const after = waterAt(withEvent(dripping(), 40, { kind: 'reading', tempC: 21.2, ph: 7.4 }), 40)
    expect(after?.tempC).toBeCloseTo(21.2, 6)
    expect(after?.ph).toBeCloseTo(7.4, 2)
    expect(after?.salinityPpt).toBeCloseTo(before?.salinityPpt ?? NaN, 6)
    expect(after?.oxygenMgL).toBeCloseTo(before?.oxygenMgL ?? NaN, 6)
    const ammonia = waterAt(withEvent(dripping(), 40, { kind: 'reading', tanMgL: 3, ph: 7.9 }), 40)
    const lower = waterAt(withEvent(dripping(), 40, { kind: 'reading', tanMgL: 1, ph: 7.9 }), 40)
    expect((ammonia?.unionisedMgL ?? 0) / (lower?.unionisedMgL ?? 1)).toBeCloseTo(3, 1)
  })

  test('from there the water goes on: towards the tank, and the curve has the jump where it was read', () => {
    const run = withEvent(dripping(), 40, { kind: 'reading', tempC: 20 })
    expect(waterAt(run, 60)?.tempC).toBeGreaterThan(20.3)
    expect(waterAt(run, 60)?.tempC).toBeLessThan(waterAt(dripping(), 60)?.tempC ?? 0)
    // What had been reckoned before it was read is not told otherwise.
    expect(waterAt(run, 39)?.tempC).toBeCloseTo(waterAt(dripping(), 39)?.tempC ?? NaN, 9)
    const { curve } = estimateWater(run, limits, atMin(60))
    const jump = curve.atMin.findIndex((minute, index) => minute > 30 && Math.abs((curve.tempC[index] ?? 0) - (curve.tempC[index - 1] ?? 0)) > 0.5)
    expect(curve.atMin[jump]).toBeCloseTo(40, 0)
  })

  test('a reading in the last step stays when the next one begins; one taken back is gone', () => {
    const read = withEvent(runOf('drip'), 10, { kind: 'reading', tempC: 18 })
    const later = withEvent(withEvent(read, 20, { kind: 'step' }), 21, { kind: 'step' })
    expect(waterAt(later, 22)?.tempC).toBeLessThan((waterAt(dripping(), 22)?.tempC ?? 0) - 1)
    const { events, ...rest } = withEvent(dripping(), 40, { kind: 'reading', tempC: 20 })
    expect(waterAt({ ...rest, events: events.filter(({ kind }) => kind !== 'reading') }, 50)).toEqual(waterAt(dripping(), 50))
  })

  test('the ammonia alarm goes by what was read: called off by a low pH, raised by a high one', () => {
    const run = dripping('dripAir', fouled)
    const keys = (each: RunRecord, minutes: number) => alarmsOf(each, followRun(each, limits, atMin(minutes)), limits, atMin(minutes)).map(({ key }) => key)
    expect(keys(run, 35)).toContain('ammonia')
    const fine = withEvent(run, 34, { kind: 'reading', ph: 6.8, tanMgL: 1 })
    expect(followRun(fine, limits, atMin(35)).ammoniaAt?.likelyMs ?? Infinity).toBeGreaterThan(atMin(35))
    expect(keys(fine, 35)).not.toContain('ammonia')
    const plain = dripping('drip', { ...fouled, measured: { tempC: 23 } })
    expect(keys(plain, 35)).not.toContain('ammonia')
    expect(keys(withEvent(plain, 34, { kind: 'reading', ph: 8.3, tanMgL: 6 }), 36)).toContain('ammonia')
  })

  test('fast and slow reckoning take a reading alike; impossible pH leaves the water finite', () => {
    const tank: VesselState = { volumeL: 100, tempC: 25, salinityPpt: 34, alkalinityMeqL: 2.6, dicMmolL: 2.2, tanMgL: 0, oxygenMgL: 6.5 }
    const start: VesselState = { ...tank, volumeL: 1.5, tempC: 22, salinityPpt: 29, dicMmolL: 3, tanMgL: 2 }
    const options = { biomassG: 5, demandMgGH: 0.3, nitrogenPerOxygen: 0.1, co2PerOxygen: 0.03, alkalinityPerNitrogen: 1 }
    const [engine, series] = [createFastRun(), makeSeries()]
    const reading = fc.record({ tempC: fc.option(fc.double({ min: 10, max: 32, noNaN: true })), salinityPpt: fc.option(fc.double({ min: 0, max: 40, noNaN: true })), ph: fc.option(fc.double({ min: 5, max: 10, noNaN: true })), tanMgL: fc.option(fc.double({ min: 0, max: 20, noNaN: true })) })
    fc.assert(
      fc.property(reading, (read) => {
        const phases: Phase[] = [{ minutes: 10, mode: 'fill', flowLPerMin: 0.03, exchangePerH: 0.5 }, { read }, { minutes: 5, mode: 'none', exchangePerH: 0.5 }]
        engine(start, tank, phases, options, 1, series)
        const last = series.length - 1
        const slow = runVessel(start, tank, phases, options).at(-1)
        expect(series.tempC[last]).toBeCloseTo(slow?.tempC ?? NaN, 5)
        expect(series.salinityPpt[last]).toBeCloseTo(slow?.salinityPpt ?? NaN, 5)
        expect(Math.abs((series.unionisedMgL[last] ?? NaN) - (slow?.unionisedMgL ?? NaN))).toBeLessThan(0.005 * (slow?.unionisedMgL ?? 0) + 1e-5)
        expect([...series.unionisedMgL.slice(0, series.length), ...series.oxygenMgL.slice(0, series.length)].every((value) => Number.isFinite(value) && value >= 0)).toBe(true)
      }),
      { numRuns: 300 },
    )
    for (const ph of [6.5, 7.2, 8]) expect(readState(withReading(start, { tempC: null, salinityPpt: null, ph, tanMgL: null })).ph).toBeCloseTo(ph, 2)
  })

  test('the simulated vessel does not believe its own readings', () => {
    const meter = createSimulatedMeter(limits)
    const wrong = withEvent(dripping(), 40, { kind: 'reading', tempC: 31, salinityPpt: 3, ph: 6 })
    expect(meter.read(wrong, atMin(45))).toEqual(meter.read(dripping(), atMin(45)))
  })
})

describe('the air stone', () => {
  const air = (run: RunRecord, minutes: number, isOn: boolean): RunRecord => withEvent(run, minutes, { kind: 'air', isOn } as Partial<RunEvent> & Pick<RunEvent, 'kind'>)

  test('is in where the plan says so, until somebody says otherwise', () => {
    expect([hasAir(dripping()), hasAir(dripping('dripAir'))]).toEqual([false, true])
    expect([hasAir(air(dripping(), 30, true)), hasAir(air(dripping('dripAir'), 30, false))]).toEqual([true, false])
    expect(hasAir(runOf('dripAir'))).toBe(false)
  })

  test('drives carbon dioxide out from the moment it goes in: pH and toxic ammonia rise, oxygen packed into the bag goes', () => {
    const [still, aired] = [dripping('drip', fouled), air(dripping('drip', fouled), 25, true)]
    expect(waterAt(aired, 25)?.ph).toBeCloseTo(waterAt(still, 25)?.ph ?? NaN, 6)
    expect(waterAt(aired, 45)?.ph).toBeGreaterThan((waterAt(still, 45)?.ph ?? 0) + 0.05)
    expect(waterAt(aired, 45)?.unionisedMgL).toBeGreaterThan(waterAt(still, 45)?.unionisedMgL ?? Infinity)
    expect(waterAt(aired, 45)?.oxygenMgL).toBeLessThan(waterAt(still, 45)?.oxygenMgL ?? 0)
    expect(waterAt(aired, 90)?.oxygenMgL).toBeGreaterThan(7)
    // Taken out again, the water is left between the two.
    const out = air(aired, 30, false)
    expect(waterAt(out, 45)?.ph).toBeLessThan(waterAt(aired, 45)?.ph ?? 0)
    expect(waterAt(out, 45)?.ph).toBeGreaterThan(waterAt(still, 45)?.ph ?? Infinity)
  })

  test('what is done in a step of no length counts as well: air in, a reading, and on at once', () => {
    const floated = withEvent(runOf('drip', fouled), 20, { kind: 'step' })
    const quick = withEvent(withEvent(air(floated, 20, true), 20, { kind: 'reading', tempC: 18 }), 20, { kind: 'step' })
    expect(waterAt(quick, 20)?.tempC).toBeCloseTo(18, 6)
    expect(waterAt(quick, 40)?.ph).toBeGreaterThan((waterAt(withEvent(withEvent(floated, 20, { kind: 'reading', tempC: 18 }), 20, { kind: 'step' }), 40)?.ph ?? 0) + 0.05)
  })

  test('what comes is reckoned with it: the limit is nearer once the air is in', () => {
    const [still, aired] = [dripping('drip', fouled), air(dripping('drip', fouled), 22, true)]
    const limitAt = (run: RunRecord) => followRun(run, limits, atMin(23)).ammoniaAt?.likelyMs ?? Infinity
    expect(limitAt(aired)).toBeLessThan(limitAt(still))
  })
})

describe('a run that stands for days', () => {
  test('its water is followed for its plan and a day after, and then said not to be known', () => {
    const run = dripping()
    expect(estimateWater(run, limits, atMin(24 * 60))).toMatchObject({ isTooLong: false, now: { tempC: expect.any(Number) } })
    for (const days of [2, 10, 14, 100, 3650]) {
      const { isTooLong, now, curve } = estimateWater(run, limits, atMin(days * 1440))
      expect([isTooLong, now]).toEqual([true, null])
      expect(curve.atMin.at(-1)).toBeLessThan(3 * 1440)
      const alarms = alarmsOf(run, followRun(run, limits, atMin(days * 1440)), limits, atMin(days * 1440))
      expect(alarms.map(({ key }) => key)).toContain('standing')
      expect(alarms.find(({ key }) => key === 'standing')?.words).toContain(`${days} days`)
    }
  })

  test('of whatever course: any steps, readings and flows at any minute, and it can be followed', () => {
    const event = fc.record({ minute: fc.integer({ min: 0, max: 60_000 }), kind: fc.constantFrom('step', 'reading', 'flow', 'air', 'snooze', 'note'), tempC: fc.double({ min: -2, max: 45, noNaN: true }), salinityPpt: fc.double({ min: 0, max: 45, noNaN: true }), mlPerMin: fc.double({ min: 0, max: 50_000, noNaN: true }), isOn: fc.boolean() })
    fc.assert(
      fc.property(fc.constantFrom('drip', 'dripAir', 'netOver', 'siphon'), fc.array(event, { maxLength: 6 }), fc.integer({ min: 0, max: 600_000 }), (key, events, minute) => {
        const run = events.sort((a, b) => a.minute - b.minute).reduce((all, { minute: at, ...each }) => withEvent(all, at, { ...each, kind: each.kind as RunEvent['kind'] }), runOf(key))
        const now = followRun(run, limits, atMin(minute))
        expect(alarmsOf(run, now, limits, atMin(minute))).toBeInstanceOf(Array)
        if (now.water.now) expect(Number.isFinite(now.water.now.ph)).toBe(true)
      }),
      { numRuns: tries(400, 60) },
    )
  })
})
