import { expect, test } from '@jest/globals'
import { expectedCourse } from './expectedCourse'
import { listsOf, readRoundLists, withLists, type RoundListChanges } from './roundLists.schema'
import { shippedRoundRules, signRule } from './roundRules'
import { tankLevel } from './tankLevel'

const read = (value: unknown): RoundListChanges => {
  const answer = readRoundLists(value)
  if (!answer.ok) throw new Error(answer.problems.join('. '))
  return answer.changes
}
const problems = (value: unknown): string[] => {
  const answer = readRoundLists(value)
  return answer.ok ? [] : answer.problems
}

test('what is shipped may be written back as it is, and nothing changes by it', () => {
  const shipped = JSON.parse(JSON.stringify(listsOf(shippedRoundRules), (key, value: unknown) => (key === 'isGrave' || key === 'relative' || value === null ? undefined : value))) as { courses: object[] }
  const changes = read({ ...shipped, courses: shippedRoundRules.courses })
  expect(withLists(changes)).toEqual(shippedRoundRules)
  expect(withLists(read({}))).toEqual(shippedRoundRules)
})

test('a house changes single entries: a sign weighs more, a school of its own has a course, a reading its limits', () => {
  const rules = withLists(read({ signs: [{ sign: 'thin', slight: 9, clear: 10 }], courses: [{ event: 'arrival', school: 'house1', signs: { pale: [0, 48] } }], readings: [{ kind: 'nitrateN', high: [10, 50] }], seenWith: { thin: ['not enough food'] } }))
  expect(signRule(rules, 'thin')).toEqual({ sign: 'thin', slight: 9, clear: 10, group: 'wasting', isSlow: true })
  const settled = { lot: 'A', fish: 5, days: 60, inHold: false, species: {}, events: [] }
  expect(tankLevel({ lots: [settled], rounds: [{ hoursAgo: 0, signs: [{ sign: 'thin', severity: 1 }], ate: [{ ate: 'all' }] }], readings: [{ kind: 'nitrateN', hoursAgo: 1, value: 12 }] }, rules)).toMatchObject({ level: 'act', points: 13 })
  expect(expectedCourse([{ event: 'arrival', school: 'house1', hoursAgo: 30 }], {}, rules).signs.get('pale')).toEqual({ clearLeftH: 0, slightLeftH: 18 })
  expect(expectedCourse([{ event: 'arrival', school: 'house1', hoursAgo: 2 }], {}, rules).signs.get('dark')).toEqual({ clearLeftH: 2, slightLeftH: 22 })
})

test.each<[string, unknown, string]>([
  ['no object', [1], 'The request must be an object'],
  ['a list nobody knows', { weights: [] }, 'Nothing here is called weights'],
  ['a sign nobody knows', { signs: [{ sign: 'green' }] }, 'signs[0].sign: Sign must be one of: '],
  ['a slight sign that weighs more', { signs: [{ sign: 'spots', slight: 8 }] }, 'signs[0]: A slight spots cannot weigh more than a clear one'],
  ['a grave sign made mild by its flag', { signs: [{ sign: 'gasping', isGrave: false }] }, 'signs[0]: Nothing here is called isGrave'],
  ['an event nobody knows', { courses: [{ event: 'party', school: null }] }, 'courses[0].event: Event must be one of: '],
  ['a sign nobody knows in a course', { courses: [{ event: 'move', school: null, signs: { green: [1, 2] } }] }, 'courses[0].signs: The signs of a course knows no green'],
  ['a clear window longer than its slight one', { courses: [{ event: 'move', school: null, signs: { pale: [5, 4] } }] }, 'courses[0].signs.pale: A clear pale cannot be usual for longer than a slight one'],
  ['a grave sign taken as usual', { courses: [{ event: 'move', school: null, signs: { gasping: [1, 2] } }] }, 'courses[0].signs.gasping: gasping is never usual: it calls for somebody at once'],
  ['half a window', { courses: [{ event: 'move', school: null, signs: { pale: [5] } }] }, 'courses[0].signs.pale: The window of pale needs two numbers of hours: clear, slight'],
  ['shares above one', { courses: [{ event: 'move', school: null, shareSeen: [[4, 2]] }] }, 'courses[0].shareSeen: shareSeen needs pairs with rising hours and shares from 0 to 1'],
  ['a limit on the side that has none', { readings: [{ kind: 'nitrateN', low: [1, 2] }] }, 'readings[0]: nitrateN has no limit on that side'],
  ['limits upside down', { readings: [{ kind: 'nh3N', high: [0.05, 0.02] }] }, 'readings[0].high: high needs two numbers, the smaller first'],
  ['a food nobody knows', { lures: [{ for: {}, foods: ['pizza'] }] }, 'lures[0].foods[0]: Food must be one of: '],
  ['words that are none', { seenWith: { spots: 'fungus' } }, 'seenWith.spots: spots must be a list of words'],
  ['a list of nothing', { signs: [null] }, 'signs[0]: A sign is missing'],
])('%s is refused, with where', (_, value, words) => {
  expect(problems(value).some((problem) => problem.startsWith(words))).toBe(true)
})

test('thousands of entries are refused for their number, not one by one', () => {
  expect(problems({ signs: Array.from({ length: 5000 }, () => ({})) })).toEqual(['signs: signs may have at most 100 entries'])
})
