import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { doseMg, doseProductG, netVolumeL, volumeFromDoseL } from './dose'
import { lossFromReadings, treatmentLevel, type Treatment } from './treatmentLevel'
import { afterChange, afterChanges, afterContinuousChange, changesNeeded, plateau } from './waterChange'
import { tries } from '../testing/tries'

const many = { numRuns: tries(5000) }
const between = (min: number, max: number): fc.Arbitrary<number> => fc.double({ min, max, noNaN: true })

describe('water changes', () => {
  test('so many changes as needed reach the level, one fewer does not', () => {
    fc.assert(
      fc.property(between(1, 200), between(0.01, 0.9), between(0.05, 0.9), between(0, 0.5), (level, targetShare, share, fresh) => {
        const target = fresh + (level - fresh) * targetShare
        const changes = changesNeeded(level, target, share, fresh)
        return afterChanges(level, share, changes, fresh) <= target + 1e-6 && (changes === 0 || afterChanges(level, share, changes - 1, fresh) > target - 1e-6)
      }),
      many,
    )
    expect([changesNeeded(10, 20, 0.3), changesNeeded(40, 2, 0.3, 5), afterChange(40, 0.25, 0)]).toEqual([0, Infinity, 30])
  })
  test('a level lies between that of the tank and that of the new water', () => {
    fc.assert(
      fc.property(between(0, 100), between(0, 100), between(0.01, 0.99), fc.integer({ min: 1, max: 12 }), (level, fresh, share, times) => {
        const [low, high] = [Math.min(level, fresh) - 1e-9, Math.max(level, fresh) + 1e-9]
        return [afterChange(level, share, fresh), afterChanges(level, share, times, fresh), afterContinuousChange(level, share * 100, 100, fresh)].every((value) => value >= low && value <= high)
      }),
      many,
    )
  })
  test('what rises between changes settles where a change takes away as much', () => {
    const { before, after } = plateau(10, 0.25, 5)
    expect([afterChange(before, 0.25, 5), after + 10]).toEqual([expect.closeTo(after, 9), expect.closeTo(before, 9)])
  })
})

describe('doses', () => {
  test('a dose and its rise tell the volume; nothing is taken out by dosing', () => {
    fc.assert(
      fc.property(between(1, 5000), between(0, 10), between(0.01, 10), between(0.01, 1), (volume, from, rise, active) => {
        const mg = doseMg(volume, from, from + rise)
        return Math.abs(volumeFromDoseL(mg, from, from + rise) / volume - 1) < 1e-6 && doseMg(volume, from + rise, from) === 0 && doseProductG(volume, from, from + rise, active) >= mg / 1000
      }),
      many,
    )
    expect(volumeFromDoseL(10, 0.2, 0.2)).toBeNaN()
  })
  test('rock and sand take room, pores do not; never less than no water', () => {
    expect(netVolumeL({ lengthCm: 100, widthCm: 50, heightCm: 40 })).toBe(200)
    expect(netVolumeL({ lengthCm: 100, widthCm: 50, heightCm: 40, rockKg: 27, sandL: 10 })).toBeCloseTo(200 - 10 - 6, 9)
    expect(netVolumeL({ lengthCm: 10, widthCm: 10, heightCm: 10, rockKg: 500 })).toBe(0)
  })
})

describe('the level of a treatment', () => {
  const par: Treatment = { volumeL: 200, lossPerH: 0.004, startMgL: 0, startSd: 0.01, doseRelativeSd: 0.05, driftPerH: 1e-6 }
  test('a reading never makes one less sure, a dose never more', () => {
    fc.assert(
      fc.property(between(0, 0.5), between(0.005, 0.1), between(0, 80), (readingMgL, readingSd, dose) => {
        const dosed = treatmentLevel(par, [{ atH: 0, doseMg: dose }])
        const read = treatmentLevel(par, [{ atH: 0, doseMg: dose, readingMgL, readingSd }])
        const between2 = [Math.min(dosed.mgL, readingMgL), Math.max(dosed.mgL, readingMgL)] as const
        return dosed.sd >= par.startSd && read.sd <= dosed.sd + 1e-12 && read.mgL >= between2[0] - 1e-9 && read.mgL <= between2[1] + 1e-9
      }),
      many,
    )
  })
  test('left alone it falls, and how fast can be read off', () => {
    const at = (atH: number): number => treatmentLevel({ ...par, startMgL: 0.2 }, [{ atH: 0 }, { atH }]).mgL
    expect([at(48) < at(24), lossFromReadings([[0, at(0)], [24, at(24)], [48, at(48)]])]).toEqual([true, expect.closeTo(0.004, 9)])
    expect([lossFromReadings([[0, 0.2]]), lossFromReadings([[0, 0], [5, 0]])]).toEqual([NaN, NaN])
  })
  test('events out of order are refused', () => expect(() => treatmentLevel(par, [{ atH: 5 }, { atH: 1 }])).toThrow(RangeError))
})
