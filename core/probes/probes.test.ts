import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { standardLimits } from '../limits/houseLimits'
import { shippedRoundRules } from '../rounds/roundRules'
import { tries } from '../testing/tries'
import { baseUnits, wordFigures } from '../units/units'
import { isPastLimit } from './isPastLimit'
import { probeFaults, probeMeasures, type Probe, type ProbeFault, type ProbeMeasure, type ProbeSample } from './probe'
import { probeState, type HandReading } from './probeState'
import { simulatedProbes } from './simulatedProbes'

const [minuteMs, hourMs, dayMs] = [60_000, 3_600_000, 86_400_000]
const startMs = Date.UTC(2031, 4, 1)
const marine = { kind: 'marine' as const, tempC: 25, ph: 8.2, salinityPpt: 34 }
const probe = (change: Partial<Probe> = {}): Probe => ({ id: 'p', name: 'P1', tankId: 't', measure: 'tempC', everyMin: 15, fault: 'none', addedAtMs: startMs, ...change })

/** What a probe answered until a moment, newest first, as far as it is judged by. */
function samplesOf(of: Probe, untilMs: number, hours = 48): ProbeSample[] {
  const times = Array.from({ length: Math.floor((hours * 60) / of.everyMin) }, (_, index) => untilMs - index * of.everyMin * minuteMs)
  return times.filter((atMs) => atMs >= of.addedAtMs).map((atMs) => ({ atMs, value: simulatedProbes.read(of, marine, atMs) }))
}
const judged = (of: Probe, untilMs: number, hand: readonly HandReading[] = []) => probeState(of, samplesOf(of, untilMs), hand, standardLimits, untilMs)

test('a probe that is well is hardly ever said to have failed, whatever it measures and however often it is asked', () => {
  const wrong = fc.sample(fc.record({ name: fc.uuid(), measure: fc.constantFrom(...probeMeasures), everyMin: fc.constantFrom(5, 15, 30, 60), hours: fc.integer({ min: 12, max: 700 }) }), tries(2000, 400)).filter(({ name, measure, everyMin, hours }) => judged(probe({ name, measure, everyMin }), startMs + hours * hourMs).state !== 'ok')
  // Gaps come one in fifty; three in a row make a silence of one in a hundred thousand.
  expect(wrong.length).toBeLessThanOrEqual(2)
})

test.each(probeFaults.filter((fault) => fault !== 'none'))('a probe that %s is said to have failed within two days, and never gives a figure to go by', (fault) => {
  const found = (measure: ProbeMeasure): boolean => {
    const of = probe({ fault: fault as ProbeFault, measure, name: `${fault} ${measure}` })
    return Array.from({ length: 12 }, (_, index) => startMs + 2 * dayMs + index * 15 * minuteMs).some((atMs) => {
      const { state, value } = judged(of, atMs, [{ atMs: startMs + 1.9 * dayMs, value: marine[measure] }])
      if (state !== 'ok') expect(value).toBeNull()
      return state !== 'ok'
    })
  }
  expect(found('tempC')).toBe(true)
  expect(found('ph')).toBe(true)
})

test('what is wrong is said in words, in the units of whoever reads', () => {
  const words = (samples: ProbeSample[], hand: HandReading[] = []) => wordFigures(probeState(probe(), samples, hand, standardLimits, nowMs).words ?? 'well', () => baseUnits)
  const nowMs = startMs + dayMs
  const every = (values: (number | null)[]): ProbeSample[] => values.map((value, index) => ({ atMs: nowMs - index * 15 * minuteMs, value }))
  expect(words([])).toBe('never answered: look at its cable and power')
  expect(words(every([null, null, null, null, 25.1]))).toBe('no answer for 60 min: look at its cable and power')
  expect(words(every([0.4, 25.1]))).toBe('says 0.4 °C, which no tank of ours has: out of the water, or broken')
  expect(words(every([29, 25.1]))).toBe('went from 25.1 °C to 29 °C at once: read it by hand')
  expect(words(every([25, 29, 25, 29]))).toBe('went from 29 °C to 25 °C at once: read it by hand')
  expect(words(every([25.1, 25, 29, 25.1]))).toBe('leaps to and fro: read it by hand')
  expect(words(every(Array.from({ length: 24 }, () => 25.35)))).toBe('says 25.4 °C and nothing else for 5 h 45 min: stuck')
  expect(words(every([25.1, 25.2, 25.1]), [{ atMs: nowMs - 20 * minuteMs, value: 24 }])).toBe('says 1.1 °C more than was read by hand: calibrate it')
  expect(words(every([25.1, 25.2, 25.1]), [{ atMs: nowMs - 20 * minuteMs, value: 25 }])).toBe('well')
})

test('one that has just been hung up is neither well nor broken, and the same moment reads the same', () => {
  expect(probeState(probe(), [], [], standardLimits, startMs + 10 * minuteMs)).toEqual({ state: 'fresh', words: null, sinceMs: null, value: null })
  expect(simulatedProbes.read(probe(), marine, startMs + hourMs)).toBe(simulatedProbes.read(probe(), marine, startMs + hourMs))
  expect(simulatedProbes.isSimulated).toBe(true)
})

test('past a limit is what the round takes as past it', () => {
  const past = (value: number) => isPastLimit('tempC', value, marine, shippedRoundRules.readings)
  expect([past(26.4), past(26.5), past(23.6), past(23.5)]).toEqual([false, true, false, true])
  expect(isPastLimit('tempC', 40, { ...marine, tempC: null }, shippedRoundRules.readings)).toBe(false)
})
