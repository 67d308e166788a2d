import { expect, test } from '@jest/globals'
import { lookAt, lotFacts, tankFacts } from '../testing/factsOf'
import { givenBefore, takenByKind } from './givenFoods'
import { shippedRoundRules as rules } from './roundRules'
import { foodsKnown, hungryWords, lotAppetite } from './stopWords'

const [hourMs, dayMs] = [3_600_000, 86_400_000]
const nowMs = Date.UTC(2031, 4, 20, 9)
const given = (daysAgo: number, foods: string[], lotId = 'a') => ({ tankId: 't1', lotId, speciesId: 's', foods, atMs: nowMs - daysAgo * dayMs - hourMs })
const look = (daysAgo: number, ate: 'all' | 'none', id = String(daysAgo)) => lookAt({ id, ate, atMs: nowMs - daysAgo * dayMs })

test('a look speaks of the newest that was given within a day before it', () => {
  const all = [given(0, ['mysis']), given(1, ['larvae'])]
  expect(givenBefore(nowMs, all)?.foods).toEqual(['mysis'])
  expect(givenBefore(nowMs - dayMs, all)?.foods).toEqual(['larvae'])
  expect(givenBefore(nowMs - 2 * dayMs, all)).toBeNull()
  expect(givenBefore(nowMs + 30 * hourMs, all)).toBeNull()
})

test('what others of a kind took is counted by food, of looks after it was given', () => {
  const taken = takenByKind([given(0, ['mysis']), given(1, ['mysis', 'larvae']), given(3, ['larvae'])], [{ tankId: 't1', looks: [look(0, 'none'), look(1, 'all')] }])
  expect(taken.get('s')).toEqual([{ food: 'mysis', offered: 2, taken: 1 }, { food: 'larvae', offered: 1, taken: 1 }])
})

test('what a lot refused twice goes behind, what others of its kind took is tried first; what is out is not tried', () => {
  const foods = [{ name: 'Mysis', servesAs: ['mysis'] }, { name: 'Granules', servesAs: ['granules'] }, { name: 'Worms, red', servesAs: ['worms'] }]
  const refusing = lotFacts({ lotId: 'a', speciesId: 's', sinceMs: nowMs - 9 * dayMs, arrivedAtMs: nowMs - 9 * dayMs, book: { ...lotFacts().book, firstFoods: 'mysis, worms' } })
  const eater = { ...tankFacts({ tankId: 't2' }), looks: [look(1, 'all', 'e')] }
  const tank = tankFacts({ looks: [look(0, 'none'), look(1, 'none'), look(2, 'none')] })
  const known = (isOut: boolean) => foodsKnown(foods.map((food) => ({ ...food, isOut: food.name === 'Granules' && isOut })), [], [given(0, ['Mysis']), given(1, ['Mysis']), { ...given(1, ['Granules'], 'b'), tankId: 't2' }], [tank, eater])
  const words = (isOut: boolean) => hungryWords(refusing, lotAppetite(refusing, tank, known(isOut), nowMs, rules))
  expect(words(false)).toBe('Cherry barb: no meal for 9 days. Try granules (others of its kind took it); worms, mysis (the book names them).')
  expect(words(true)).toBe('Cherry barb: no meal for 9 days. Try worms, mysis (the book names them).')
  expect(lotAppetite(refusing, tank, known(false), nowMs, rules).offered).toEqual([{ food: 'mysis', times: 2 }])
})
