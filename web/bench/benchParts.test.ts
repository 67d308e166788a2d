import { expect, test } from '@jest/globals'
import type { MethodCurves } from '../../core/acclimation/methodCurves'
import { limitsFor } from '../../core/acclimation/figures'
import type { BenchSubject } from '../../core/bench/benchView'
import { followRun } from '../../core/bench/followRun'
import { vesselFor } from '../../core/bench/runPlan'
import type { RunView } from '../../core/bench/benchView'
import { standardLimits } from '../../core/limits/houseLimits'
import { baseUnits, type DisplayUnits } from '../../core/units/units'
import { atMin, runOf, withEvent } from '../../core/testing/benchRun'
import { allFish, withChosen } from './ChooseFish'
import { curveSummary, toCurveChart } from './curveChart'
import { laneOf, runTitle, timerOf } from './laneWords'
import { startBody } from './startBody'

const limits = limitsFor(standardLimits, 'normal', 7)
const inks = { ink: '#000', soft: '#111', line: '#222', water: '#333', harm: '#444' }
const flat = (likely: number[]) => ({ likely, low: likely.map((value) => value * 0.5), high: likely.map((value) => value * 2) })
const curvesOf = (top: number, lastMin = 60): MethodCurves => ({ atMin: [0, lastMin / 2, lastMin], curves: { unionisedMgL: flat([top / 6, top, top / 3]), tempC: flat([20, 22, 25]), salinityPpt: flat([28, 31, 34]), ph: flat([7, 7.5, 8]) } })

test('a curve is drawn with its band and its limit line, the limit only where it is near; long ones in hours', () => {
  const near = toCurveChart(curvesOf(0.06), 'unionisedMgL', limits, inks, baseUnits)
  expect(near.data.datasets.map(({ label }) => label)).toEqual(['likely', 'eight of ten bags, low', 'eight of ten bags', 'limit'])
  expect(near.options.scales?.x).toMatchObject({ title: { text: 'minutes' } })
  expect(near.options.scales?.y).toMatchObject({ title: { text: 'NH3-N, mg/L' }, min: 0 })
  expect(JSON.stringify(near.options.plugins)).toContain('limit 0.100')
  // Its word stands above the line, inside the picture.
  expect(near.options.scales?.y).toMatchObject({ suggestedMax: expect.closeTo(0.13, 9) })
  expect(toCurveChart(curvesOf(0.002), 'unionisedMgL', limits, inks, baseUnits).data.datasets).toHaveLength(3)
  const long = toCurveChart(curvesOf(0.06, 840), 'salinityPpt', limits, inks, baseUnits)
  expect(long.options.scales?.x).toMatchObject({ title: { text: 'hours' } })
  expect(long.data.datasets[0]?.data.at(-1)).toEqual({ x: 14, y: 34 })
  expect(curveSummary(curvesOf(0.06), 'unionisedMgL', baseUnits)).toBe('NH3-N: begins at 0.010 mg/L, highest 0.060 mg/L after 30 min (0.030 mg/L to 0.120 mg/L), ends at 0.020 mg/L.')
})

test('curves stand in the units of the room', () => {
  const units: DisplayUnits = { ...baseUnits, temperatureUnit: '°F', salinityUnit: 'SG' }
  const warm = toCurveChart(curvesOf(0.06), 'tempC', limits, inks, units)
  expect(warm.data.datasets[0]?.data).toEqual([{ x: 0, y: 68 }, { x: 30, y: 71.6 }, { x: 60, y: 77 }])
  expect(warm.options.scales?.y).toMatchObject({ title: { text: 'temperature, °F' } })
  expect(curveSummary(curvesOf(0.06), 'salinityPpt', units)).toMatch(/^salinity: begins at 1\.0211 SG 25\/25, highest 1\.02\d\d/)
  // What has no other unit stays as it is.
  expect(toCurveChart(curvesOf(0.06), 'ph', limits, inks, units).data).toEqual(toCurveChart(curvesOf(0.06), 'ph', limits, inks, baseUnits).data)
})

test('a lane says how long is left, how full and how near; past its end with a plus, days and stalled flows in words', () => {
  const run = { ...withEvent(runOf('netOver'), 6, { kind: 'reading', salinityPpt: 28 }), sources: [{ species: 'Royal gramma', quantity: 2 }, { species: 'Royal gramma', quantity: 1 }] } as unknown as RunView
  const now = (minutes: number) => followRun(run, standardLimits, atMin(minutes))
  expect(runTitle(run)).toBe('3 Royal gramma')
  expect([timerOf(now(5), atMin(5)), timerOf(now(16), atMin(16))]).toEqual([
    { figure: '10:00', words: 'left', isOver: false },
    { figure: '+1:00', words: 'over its time', isOver: true },
  ])
  expect(timerOf(now(12 * 1440), atMin(12 * 1440))).toEqual({ figure: '+11 days', words: 'over its time', isOver: true })
  const stalled = withEvent(withEvent(withEvent(runOf('drip'), 15, { kind: 'step' }), 16, { kind: 'step' }), 17, { kind: 'flow', mlPerMin: 0 })
  expect(timerOf(followRun(stalled, standardLimits, atMin(18)), atMin(18))).toEqual({ figure: '–', words: 'nothing flows', isOver: true })
  const lane = laneOf(run, now(8), atMin(8))
  expect(lane.words).toMatch(/^1\.5 L in the vessel, \d+ % of the way to the tank’s water$/)
  expect(laneOf(run, followRun(run, standardLimits, atMin(8), { ...baseUnits, volumeUnit: 'gal' }), atMin(8)).words).toContain('0.4 US gal in the vessel')
  expect(lane.filled).toBe(1)
  expect(lane.readings[0]).toBeGreaterThan(0.2)
  expect(lane.readings[0]).toBeLessThan(0.6)
})

test('bags are chosen singly, fish of a tank by number; the request carries just those', () => {
  const source = (placeId: string, quantity: number) => ({ placeId, lotId: 'lot', lotCode: '1-01', species: 'Royal gramma', from: placeId, quantity })
  const subject = { lineIds: ['line'], sources: [source('a', 2), source('b', 4), source('c', 4)], figures: { bags: { value: 3, from: 'list' }, fish: { value: 3, from: 'list' } }, words: {}, tank: { id: 't', code: 'M1-01', netVolumeL: 60 } } as unknown as BenchSubject
  const two = withChosen(subject, { left: ['a'], quantity: null })
  expect([two.sources.map(({ placeId }) => placeId), two.figures.bags?.value, two.figures.fish?.value]).toEqual([['b', 'c'], 2, 4])
  expect(withChosen(subject, allFish)).toBe(subject)
  const visit = withChosen({ ...subject, lineIds: [], sources: [source('tank', 9)] }, { left: [], quantity: 3 })
  expect([visit.sources[0]?.quantity, visit.figures.fish?.value]).toEqual([3, 3])
  const body = startBody(two, { bags: 2, tankC: 25 }, { waterClass: 'marine' })
  expect(body).toMatchObject({ tankId: 't', sources: [{ placeId: 'b', lotId: 'lot', quantity: 4 }, { placeId: 'c', quantity: 4 }], figures: { bags: 2, tankC: 25, measuredPh: null }, words: { waterClass: 'marine', gas: 'oxygen' } })
  expect([vesselFor(3), vesselFor(25), vesselFor(200)]).toEqual([5, 40, 300])
})
