import { expect, test } from '@jest/globals'
import { shippedRoundRules as rules } from '../rounds/roundRules'
import { courseEvents } from './courseEvents'
import type { HoldEvent } from './holdEvents'
import { usualAfter, usualAlways } from './usualSigns'

const hourMs = 3_600_000

test('what is usual is told by how long: slight signs for longer, delicate fish for longer, grave signs never', () => {
  expect(usualAfter('crossing', 'ramp', {}, rules)).toEqual([
    { hours: 12, words: ['pale', 'clamped fins', 'fast breathing'], slightWords: [] },
    { hours: 24, words: ['hiding', 'on the bottom'], slightWords: ['pale', 'clamped fins', 'fast breathing', 'on the bottom'] },
    { hours: 48, words: [], slightWords: ['hiding'] },
  ])
  const of = (tolerance: 'hardy' | 'delicate') => usualAfter('move', null, { tolerance }, rules).map(({ hours }) => hours)
  expect(of('delicate').every((hours, index) => hours > (of('hardy')[index] ?? 0))).toBe(true)
  // Lying on its side is never what one expects, whoever lists it.
  const listed = { ...rules, courses: rules.courses.map((entry) => (entry.event === 'move' ? { ...entry, signs: { ...entry.signs, 'on its side': [9, 9] as const } } : entry)) }
  expect(usualAfter('move', null, {}, listed).some(({ words, slightWords }) => [...words, ...slightWords].includes('on its side'))).toBe(false)
  expect(usualAlways({ habits: ['surface'] }, rules).flatMap(({ words }) => words)).toContain('at the surface')
  expect(usualAlways({}, rules)).toEqual([])
})

test('a movement that was part of a run is explained by the run, and by its school', () => {
  const run = { kind: 'acclimation' as const, schoolKey: 'ramp', isDelivery: false, isCrossing: true, darkUntilMs: null, startedAtMs: 100 * hourMs, outAtMs: 110 * hourMs }
  const move = (hour: number, lot = 'L1'): HoldEvent => ({ kind: 'move', id: `m${hour}${lot}`, at: hour * 60, lot, from: 'vessel:r', to: 'Q1-01', n: 3 })
  const hoursOf = (event: HoldEvent): number => Math.max(0, ...courseEvents([event], { rules, speciesOf: () => ({}), runsOf: (lot) => (lot === 'L1' ? [run] : []) }).filter(({ words, slightWords = [] }) => [...words, ...slightWords].includes('clamped fins')).map(({ hours }) => hours))
  expect([hoursOf(move(110)), hoursOf(move(111, 'L2')), hoursOf(move(140))]).toEqual([24, 12, 12])
  expect(courseEvents([{ kind: 'look', id: 'l', at: 1, tank: 'Q1-01' }], { rules, speciesOf: () => ({}), runsOf: () => [] })).toEqual([])
})
