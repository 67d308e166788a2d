import { expect, test } from '@jest/globals'
import { rackSize } from './rackSize'

const water = ['fresh, one water, sump 420 L']

test('a rack is as wide as its longest shelf, wide enough for its name, and never wider than a tablet', () => {
  expect(rackSize('R1 Fresh rack', water, [['Guppy', 'Platy', 'empty', 'empty'], ['Guppy']]).across).toBe(4)
  expect(rackSize('H1 Hospital corner', ['fresh'], [['Clown loach']]).across).toBe(2)
  expect(rackSize('D1 Fresh sale rack, hard and Marine sale rack', water, [['empty']]).across).toBe(3)
  expect(rackSize('R1 Fresh rack', water, [Array.from({ length: 12 }, () => 'Guppy')]).across).toBe(6)
})

test('whatever takes more lines makes it higher: shelves, long names below tanks, another water, a shelf that goes on', () => {
  const height = (labels: string[][], waters = water): number => rackSize('R1 Fresh rack', waters, labels).rows
  const one = height([['Guppy', 'Platy', 'empty']])
  expect(height([['Guppy', 'Platy', 'empty'], ['Guppy']])).toBeGreaterThan(one + 15)
  expect(height([['Electric yellow cichlid', 'Platy', 'empty']])).toBeGreaterThan(one)
  expect(height([['Guppy', 'Platy', 'empty']], [...water, 'marine, one with M1'])).toBeGreaterThan(one)
  expect(height([Array.from({ length: 7 }, () => 'Guppy')])).toBe(height([Array.from({ length: 6 }, () => 'Guppy'), ['Guppy']]))
  expect(rackSize('', [], []).across).toBe(2)
})
