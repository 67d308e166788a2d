import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { calculate, calculations, type Calculation } from './calculations'
import { tries } from '../testing/tries'

const desk = (key: string): Calculation => calculations.find((each) => each.key === key) as Calculation
const shown = (_field: unknown, base: number): string => String(base)
const lines = (key: string, input: Record<string, number>, words: Record<string, string> = {}) => {
  const answer = calculate(desk(key), input, words, shown)
  return answer.ok ? answer.lines.map(({ label, value }) => [label, typeof value === 'number' ? Number(value.toPrecision(4)) : value]) : answer.errors
}

describe('the desk', () => {
  test('a gravity of 1.017 is five salinities until the pair is known', () => {
    expect(lines('gravity', { sg: 1.017 }, { pair: 'not known' })).toEqual([['on a scale of 25/25', 22.59], ['on a scale of 20/20', 22.39], ['on a scale of 60F/60F', 22.17], ['on a scale of 25/60F', 25.26], ['on a scale of 20/4', 24.76]])
    expect(lines('gravity', { sg: 1.017 }, { pair: '20/20' })).toEqual([['on a scale of 20/20', 22.39]])
  })
  test('a meter that compensates already is not compensated twice', () => {
    const [[, referred]] = lines('conductivity', { msCm: 32.087, tempC: 25 }, { meter: 'referred to 25 °C' }) as [[string, number]]
    expect(referred).toBeCloseTo(20, 1)
    expect(lines('conductivity', { msCm: 32.087, tempC: 20 }, { meter: 'referred to 25 °C' })).not.toEqual(lines('conductivity', { msCm: 32.087, tempC: 20 }, { meter: 'at the sample’s temperature' }))
  })
  test('salt up, water down, and what is not possible is said', () => {
    expect(lines('salt', { volumeL: 200, fromPpt: 30, toPpt: 34, tempC: 25 })).toEqual([['salt mix', 888.8], ['if the mix is dry, or very moist', '844 to 960 g']])
    expect(lines('salt', { volumeL: 100, fromPpt: 36, toPpt: 34, tempC: 25 })).toEqual([['take out and replace', 5.556], ['or add, where there is room', 5.882]])
    expect(lines('salt', { volumeL: 100, fromPpt: 36, toPpt: 34, tempC: 25, freshPpt: 35 })).toEqual([['not possible', 'the water to dilute with is as salty as what is wanted']])
  })
  test('a float in colder water sits higher: the same reading is another salinity, and plastic moves more than glass', () => {
    const at = (tempC: number, float: string): number => (lines('hydrometer', { sg: 1.0264, tempC, scaleC: 25 }, { float }) as [string, number][])[0]?.[1] ?? NaN
    expect(at(25, 'glass')).toBeCloseTo(at(25, 'plastic'), 6)
    expect(at(15, 'glass')).toBeLessThan(at(25, 'glass'))
    expect(at(30, 'glass')).toBeGreaterThan(at(25, 'glass'))
    expect(Math.abs(at(15, 'plastic') - at(25, 'plastic'))).toBeLessThan(Math.abs(at(15, 'glass') - at(25, 'glass')))
  })
  test('ammonia comes with what a colour kit’s doubt about pH makes of it', () => {
    const [[, likely], [, share], [, band]] = lines('ammonia', { tan: 2, ph: 7.5, tempC: 25, salinityPpt: 0 }) as [[string, number], [string, number], [string, string]]
    const [low = NaN, high = NaN] = band.split(' to ').map(parseFloat)
    expect(likely).toBeCloseTo((2 * share) / 100, 4)
    expect([low < likely, likely < high, high / low > 2.3 && high / low < 2.6]).toEqual([true, true, true])
  })
  test('changes: one, how many, and that the new water itself may be too bad', () => {
    expect(lines('change', { level: 40, target: 10, percent: 25 })).toEqual([['after one change', 30], ['changes needed', 5]])
    expect(lines('change', { level: 40, target: 10, percent: 25, fresh: 10 })).toEqual([['after one change', 32.5], ['changes needed', 'the new water itself does not reach it']])
    expect(lines('change', { level: 5, target: 10, percent: 25 })).toEqual([['not by changes', expect.stringContaining('dosed, not changed')]])
    expect(lines('change', { level: 5, target: 10, percent: 25, fresh: 12 })).toContainEqual(['changes needed', 5])
    expect(lines('salt', { volumeL: 100, fromPpt: 34, toPpt: 34, tempC: 25 })).toEqual([['nothing to do', 'the salinity is as wanted']])
  })
  test('a drip in drops, and in words when it cannot be', () => {
    const asked = { waterL: 2, vesselL: 20, fromPpt: 27, toPpt: 35, withinPpt: 1, minutes: 60 }
    expect(lines('drip', asked)).toEqual([['flow, vessel filling', 233.3], ['how to set it', '230 mL a minute: a cup of 100 mL in 26 s'], ['in the vessel at the end', 16], ['tank water used', 14]])
    expect(lines('drip', { ...asked, waterL: 0.02, dropsPerMl: 15 })).toContainEqual(['how to set it', 'about 35 drops a minute'])
    // Once it is full, the whole vessel is exchanged, not only what the bag held.
    expect(lines('drip', { ...asked, vesselL: 10 })).toEqual(expect.arrayContaining([['tank water used', Number((8 + 10 * Math.log(1.6)).toPrecision(4))], ['in the vessel at the end', 10]]))
    expect(lines('drip', { ...asked, vesselL: 10 })).toEqual(expect.arrayContaining([['note', expect.stringContaining('let it overflow')]]))
    expect(lines('drip', { ...asked, vesselL: 1 })).toEqual([['not possible', 'The vessel holds 1 L, less than the 2 L of bag water.']])
  })
  test('a box of water less what stands in it', () => {
    expect(lines('volume', { lengthCm: 100, widthCm: 50, heightCm: 40 })).toEqual([['net volume', 200]])
    const [[, filled]] = lines('volume', { lengthCm: 100, widthCm: 50, heightCm: 40, rockKg: 27, sandL: 20, sumpL: 60 }) as [[string, number]]
    expect(filled).toBeCloseTo(200 - 10 - 20 * 0.6 + 60, 1)
  })
  test('every dose says that it is none of our business to prescribe', () => {
    for (const { isDose, caution } of calculations) if (isDose) expect(caution).toMatch(/Test before and after/)
    expect(lines('dose', { volumeL: 180, from: 0, to: 0.2, active: 25.45 })).toEqual([['active substance', 36], ['product', 0.1415]])
    expect(lines('dose', { volumeL: 180, from: 0, to: 0.2, mgPerMl: 15 })).toEqual([['active substance', 36], ['liquid product', 2.4]])
  })
  test('missing and nonsense are told by field', () => {
    expect(lines('ammonia', { tan: 8, ph: 15, tempC: 400 })).toEqual({ ph: 'This must be a number between 5 and 10', tempC: 'This must be a number between 5 and 35', salinityPpt: 'Say the salinity' })
  })
  test('whatever is typed, a figure or a sentence comes out, never NaN', () => {
    fc.assert(
      fc.property(fc.constantFrom(...calculations), fc.array(fc.oneof(fc.double(), fc.double({ min: 0, max: 50, noNaN: true })), { minLength: 8, maxLength: 8 }), fc.nat({ max: 9 }), (calculation, figures, pick) => {
        const input = Object.fromEntries(calculation.inputs.map((field, index) => [field.name, figures[index] ?? 0]))
        const words = Object.fromEntries(calculation.inputs.map((field) => [field.name, field.options?.[pick % field.options.length] ?? '']))
        const answer = calculate(calculation, input, words, shown)
        return answer.ok ? answer.lines.length > 0 && answer.lines.every(({ value }) => (typeof value === 'number' ? Number.isFinite(value) : !/NaN|Infinity/.test(value))) : Object.values(answer.errors).every((sentence) => sentence.length > 5)
      }),
      { numRuns: tries(5000) },
    )
  })
})
