import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, test } from '@jest/globals'
import { standardLimits } from '../limits/houseLimits'
import { quantile } from '../stats/quantile'
import { questionOf, type Worked, type WorkedFigures } from '../testing/workedCases'
import { drawEnsemble, judge, type JudgedSchool } from './judge'
import type { Figures } from './figures'
import { schools, type School } from './schools'
import { isTogether, type Tried } from './tryMethod'

const { cases } = JSON.parse(readFileSync(join(__dirname, '..', 'fixtures', 'judgement-cases.json'), 'utf8')) as { cases: Worked[] }
const names: Record<string, keyof Figures> = { peak: 'peakMgL', dose: 'doseAboveFloor', Tup: 'tempRiseC', Tdn: 'tempFallC', Sup: 'salinityRisePpt', Sdn: 'salinityFallPpt', own: 'ownPh', co2: 'co2Ph', Shr: 'salinityPerHour', do: 'lowestOxygenMgL', min: 'minutes', litres: 'litres' }
const absoluteLikely: Record<string, number> = { peak: 0.002, dose: 0.03, Tup: 0.03, Tdn: 0.03, Sup: 0.02, Sdn: 0.02, own: 0.01, co2: 0.01, Shr: 0.02, do: 0.02, min: 0, litres: 0.001 }
const absolute90: Record<string, number> = { peak: 0.003, dose: 0.1, Tup: 0.1, Tdn: 0.1, Sup: 0.1, Sdn: 0.1, own: 0.03, co2: 0.03, Shr: 0.1, do: 0.1, min: 0, litres: 0.001 }

/** Figures that lie further off than a share of their value, or an absolute bit, and what chance may add to that. */
const offBy = (got: Figures, wanted: WorkedFigures, share: number, absolute: Record<string, number>, chance: (key: keyof Figures) => number = () => 0): string[] =>
  Object.entries(names)
    .filter(([name, key]) => Math.abs(got[key] - (wanted[name] ?? NaN)) > Math.max(share * Math.abs(wanted[name] ?? NaN), absolute[name] ?? 0) + chance(key) + 1e-9)
    .map(([name, key]) => `${name} ${got[key]} for ${wanted[name]}`)

// The worked values stand on 2,000 draws of another generator; a percentile of either has an error of its own.
const [draws, workedDraws] = [600, 2000]
const standardErrorOf90 = (values: number[], n: number, at: number): number => {
  // Over two errors on either side, so that a flat bit does not look like certainty.
  const step = 2 * Math.sqrt((0.1 * 0.9) / n)
  return (quantile(values, Math.min(1, at + step)) - quantile(values, Math.max(0, at - step))) / 4
}
/** Three standard errors of the difference between two such percentiles. */
const chanceOf = (values: number[], at: number): number => 3 * Math.hypot(standardErrorOf90(values, draws, at), standardErrorOf90(values, workedDraws, at))

describe.each(cases.map((each) => [each.id, each.name, each] as const))('%s %s', (_id, _name, worked) => {
  const ensemble = drawEnsemble(questionOf(worked), standardLimits, { draws })
  const verdict = judge(ensemble)
  const school = (key: string): JudgedSchool => verdict.schools.find((each) => each.key === key) as JudgedSchool

  test('situation, order and schools on offer', () => {
    expect([verdict.situation, verdict.order, verdict.schools.map(({ key }) => key).sort()]).toEqual([worked.situation, worked.order, Object.keys(worked.schools).sort()])
  })
  test.each(Object.entries(worked.schools))('%s: the likely figures within 2 %, the 90th percentiles within 6 %', (key, wanted) => {
    const got = school(key)
    const rows = ensemble.tried.map((row) => row[ensemble.schools.findIndex((each) => each.key === key)] as Tried)
    const chance = (name: keyof Figures): number => chanceOf(rows.map(({ figures }) => figures[name]), name === 'lowestOxygenMgL' ? 0.1 : 0.9)
    // The worked crossings put the fish of all bags into the water of one while it floats; here each bag holds its own,
    // which moves the carbon dioxide part by 0.022 and nothing that binds.
    const likely = isTogether(schools.find((each) => each.key === key) as School) ? { ...absoluteLikely, co2: 0.025 } : absoluteLikely
    expect([key, offBy(got.likely, wanted.figuresLikely, 0.02, likely)]).toEqual([key, []])
    expect([key, offBy(got.figures, wanted.figures90, 0.06, absolute90, chance)]).toEqual([key, []])
    expect(Math.abs(got.worstLikely - wanted.worstLikely)).toBeLessThanOrEqual(0.02)
    expect(Math.abs(got.worst - wanted.worst)).toBeLessThanOrEqual(Math.max(0.06, 0.06 * wanted.worst) + chanceOf(rows.map(({ worst }) => worst), 0.9))
    expect([got.workMinutes, got.litres]).toEqual([wanted.workMinutes, expect.closeTo(wanted.litres, 2)])
  })
  test('verdict', () => {
    const clear = (keys: readonly string[]): string[] => keys.filter((key) => !worked.borderline.includes(key)).sort()
    expect(worked.acceptRecommended).toContain(verdict.recommended)
    expect(clear(verdict.equal)).toEqual(clear(worked.equal))
    expect(Math.abs(verdict.sure - worked.sure)).toBeLessThanOrEqual(0.06)
  })
})
