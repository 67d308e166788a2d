import { expect, test } from '@jest/globals'
import { standardLimits } from '../limits/houseLimits'
import { limitNames, type LimitName } from './figures'
import { drawEnsemble, judge, type JudgedSchool, type Verdict } from './judge'
import type { AcclimationQuestion } from './question'
import { bestRemedy } from './remedies'
import { figureAndLimit, sureSentence, verdictWords } from './sentences'
import { sceneOf } from './tryMethod'

const plain: AcclimationQuestion = {
  ...{ waterClass: 'hard', told: {}, measured: {}, guessedC: 24, bags: 1, isFed: false, hasSpareTank: true, prepared: null, tolerance: 'normal', roomC: 22, roomPco2Uatm: 600 },
  bag: { fish: 10, massG: 4, waterL: 2, gasL: 4, hours: 30, packedC: 25, transitC: 24 },
  tank: { tempC: 25, salinityPpt: 0.3, alkalinityMeqL: 3, ph: 7.8 },
}
const fouled: AcclimationQuestion = { ...plain, measured: { ph: 6.9, tanMgL: 25, tempC: 24 }, bag: { ...plain.bag, waterL: 0.6 } }
const cold: AcclimationQuestion = { ...plain, measured: { tempC: 12 } }
const salty: AcclimationQuestion = { ...plain, waterClass: 'brackish', measured: { salinityPpt: 14, tempC: 25 }, tolerance: 'delicate', tank: { tempC: 25, salinityPpt: 20, alkalinityMeqL: 2.6, ph: 8.1 } }
const crossing: AcclimationQuestion = { ...plain, waterClass: 'brackish', measured: { salinityPpt: 9, tempC: 25 }, tolerance: 'very delicate', tank: { tempC: 25, salinityPpt: 34, alkalinityMeqL: 2.6, ph: 8.2 } }

const verdictOf = (question: AcclimationQuestion, draws = 200): Verdict => judge(drawEnsemble(question, standardLimits, { draws }))
const schoolIn = (verdict: Verdict, key: string): JudgedSchool => {
  const school = verdict.schools.find((each) => each.key === key)
  if (!school) throw new Error(`no ${key}`)
  return school
}

test.each<[string, AcclimationQuestion, string, readonly LimitName[], RegExp]>([
  ['ammonia in air', fouled, 'dripAir', ['nh3', 'dose', 'co2'], /^(Without an air stone|Pouring half of the bag water away first|Dripping still, without an air stone)$/],
  ['cold bags let straight in', cold, 'straight', ['T'], /^A tank at \d\d\.\d °C$/],
  ['brackish to sea let straight in', salty, 'straight', ['S', 'own'], /^(A tank prepared to \d\d\.\d ppt|Twice the minutes)$/],
])('%s: what is said to help was tried on the same bags and does', (_what, question, key, binds, words) => {
  const school = schoolIn(verdictOf(question), key)
  expect(binds).toContain(school.binds)
  const remedy = bestRemedy(school, question, standardLimits)
  expect(remedy?.words).toMatch(words)
  expect(remedy?.worst).toBeLessThan(school.worst - 0.05)
  // The same bags, the same answer.
  expect(bestRemedy(school, question, standardLimits)).toEqual(remedy)
})

test('a tank prepared to what the bag holds is judged as that tank would be', () => {
  const school = schoolIn(verdictOf(cold), 'straight')
  const remedy = bestRemedy(school, cold, standardLimits)
  const tempC = Number(/[\d.]+/.exec(remedy?.words ?? '')?.[0])
  expect(tempC).toBeCloseTo(25 + (12 - 25) / 2, 1)
  expect(schoolIn(verdictOf({ ...cold, prepared: { tempC, salinityPpt: 0.3 } }), 'straight').worst).toBeCloseTo(remedy?.worst ?? NaN, 1)
})

test('nothing is promised where nothing helps, whichever limit binds; a school nobody knows has no remedy', () => {
  for (const [question, key] of [[plain, 'netOver'], [fouled, 'siphon']] as const) {
    const school = schoolIn(verdictOf(question, 60), key)
    for (const binds of limitNames) expect(bestRemedy({ ...school, binds }, question, standardLimits)?.worst ?? -Infinity).toBeLessThan(school.worst - 0.05)
  }
  expect(bestRemedy({ ...schoolIn(verdictOf(plain, 60), 'drip'), key: 'unknown' }, plain, standardLimits)).toBeNull()
})

test('each limit is named with its figure, its limit and how much of it that is', () => {
  const question = crossing
  const school = schoolIn(verdictOf(question, 60), 'overflow')
  const { limits } = sceneOf(question, standardLimits)
  const said = Object.fromEntries(limitNames.map((binds) => [binds, figureAndLimit({ ...school, binds }, limits)]))
  expect(Object.fromEntries(limitNames.map((name) => [name, said[name]?.figure]))).toEqual({
    ...{ nh3: 'peak NH3-N', dose: 'NH3-N dose above 0.02', T: expect.stringMatching(/^(warming|cooling) in 5 min$/), S: 'rise of salinity in 5 min', own: 'change of the water’s own pH in 5 min' },
    ...{ co2: 'change of pH by carbon dioxide in 5 min', do: 'lowest oxygen', Shr: 'change of salinity in an hour' },
  })
  for (const name of limitNames) {
    expect(said[name]?.value).toMatch(/^[\d.]+( mg\/L| mg·min\/L| °C| ppt)?$/)
    expect(said[name]?.limit).toMatch(/^[\d.]+( [^(]+)? \([\d.]+ of it\)$/)
  }
})

test('how sure one can be is said in three words, and from what', () => {
  const verdict = verdictOf(plain, 60)
  const said = (sure: number, more: Partial<Verdict> = {}, measured: AcclimationQuestion['measured'] = {}): string => sureSentence({ ...verdict, borderline: [], sure, ...more }, { ...plain, measured })
  expect([said(0.95), said(0.8), said(0.4)].map((sentence) => sentence.slice(0, 15))).toEqual(['This is firm, e', 'This is likely,', 'This is open, e'])
  expect(said(0.95)).toContain('estimated from hours, fish and water')
  expect(said(0.95, {}, { ph: 7 })).toContain('from your readings')
  expect(said(0.95, {}, { phBy: 'kit' })).toContain('estimated')
  expect(said(0.95, { borderline: ['drip'], recommended: 'drip', equal: ['drip', 'siphon'] })).toContain(', close to a limit; Open siphon is as good,')
  expect(said(0.95, { borderline: ['drip'], recommended: 'drip', equal: ['drip'] })).toMatch(/close to a limit, estimated/)
})

test('the only school under every limit is called so, beside what the next would reach; figures that bind are told of both', () => {
  const verdict = verdictOf(plain, 60)
  const only = { ...verdict, recommended: 'netOver', equal: ['netOver'] }
  const { limits } = sceneOf(plain, standardLimits)
  expect(verdictWords(only, plain, limits, null).why).toMatch(/^It is the only one under every limit\. .+ would reach .+, limit .+\.$/)
  expect(verdictWords({ ...verdict, recommended: 'gone' }, plain, limits, null)).toEqual({ sentence: '', why: '' })
  // The house's first may be a hair behind the nearest: it is not called the nearest then.
  const none = { ...verdict, equal: [], schools: verdict.schools.map((each) => ({ ...each, worst: each.key === 'netOver' ? 1.11 : each.key === 'drip' ? 1.06 : 2 })), recommended: 'netOver' }
  expect(verdictWords(none, plain, limits, null).sentence).toMatch(/^No school stays under the limits; .+ is as near as Slow drip, still.* within 0\.05 and goes first in this house: /)
})
