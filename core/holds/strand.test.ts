import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { goneAfterDays, shippedAgents } from '../dosing/agents'
import { tries } from '../testing/tries'
import type { HoldEvent } from './holdEvents'
import { allGroups, emptyRoom } from './holdRoom'
import { playHolds } from './playHolds'
import { policiesById } from './shippedHolds'
import { newcomer, withCourse, withoutOver, type CourseKnown } from './strand'

const words = ['hiding', 'pale', 'fast breathing']
const begun = fc.record({ after: fc.integer({ min: 0, max: 300 }), lasts: fc.integer({ min: 0, max: 900 }), words: fc.subarray(words), slightWords: fc.subarray(words) })

test('courses that are forgotten explain nothing that those that are kept do not', () => {
  fc.assert(
    fc.property(fc.array(begun, { maxLength: 8 }), fc.integer({ min: 0, max: 1000 }), fc.constantFrom(...words), fc.boolean(), (list, later, word, isSlight) => {
      let at = 0
      const all = list.map(({ after, lasts, ...course }): CourseKnown => ({ ...course, at: (at += after), until: at + lasts }))
      const now = at + later
      const explains = (courses: readonly CourseKnown[]): boolean => courses.some((course) => course.at <= now && now <= course.until && (course.words.includes(word) || (isSlight && course.slightWords.includes(word))))
      const kept = all.reduce(withCourse, newcomer(null, 0, 0))
      expect([explains(kept.courses), explains(withoutOver(kept, now).courses)]).toEqual([explains(all), explains(all)])
    }),
    { numRuns: tries(5000) },
  )
})

test('fish that go to and fro have as many histories as differ in something that is asked of them, not one for each way they may have gone', () => {
  const room = emptyRoom({ timeZone: 'UTC', tanks: { A: 'one', B: 'one' }, policies: policiesById(), goneAfter: goneAfterDays(shippedAgents) })
  const startAt = 32_256_540
  const moves = Array.from({ length: 61 }, (_, index): HoldEvent[] => {
    const [at, from, to] = [startAt + 30 + index * 45, index % 2 ? 'B' : 'A', index % 2 ? 'A' : 'B']
    return [
      { kind: 'move', id: `m${index}`, at, lot: 'L', from, to, n: 1 },
      { kind: 'course', id: `c${index}`, at, lot: 'L', tank: to, words: ['hiding'], hours: 24 },
      { kind: 'meal', id: `a${index}`, at: at + 20, tank: from, answer: index % 3 ? 'all' : 'some' },
    ]
  })
  playHolds(room, [{ kind: 'arrive', id: 'came', at: startAt, lot: 'L', tank: 'A', n: 20, policy: 'shopHold' }, ...moves.flat()], startAt + 30 + 61 * 45)
  expect([...allGroups(room)].map(({ place, strands }) => [place, strands.length <= 32])).toEqual([['A', true], ['B', true]])
})
