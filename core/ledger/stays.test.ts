import { expect, test } from '@jest/globals'
import { staysOf, type DatedMovement } from './stays'

let seq = 0
const went = (id: string, from: string, to: string, quantity: number, happenedAtMs: number, reversesId: string | null = null): DatedMovement => ({
  ...{ id, seq: (seq += 1), lotId: 'lot', fromPlaceId: from, toPlaceId: to, quantity, happenedAtMs, reversesId },
  kind: reversesId ? 'reversal' : from === 'outside' ? 'arrive' : to === 'outside' ? 'loss' : 'move',
})
const told = (movements: readonly DatedMovement[]) => staysOf(movements).map(({ placeId, fromMs, untilMs, openedById, closedById }) => [placeId, fromMs, untilMs, openedById, closedById])

test.each<[string, DatedMovement[], unknown[]]>([
  ['nothing ever happened', [], []],
  ['fish come, some go on, the rest follow', [went('a', 'outside', 'bag', 6, 1), went('b', 'bag', 't1', 4, 3), went('c', 'bag', 't1', 2, 5)], [['bag', 1, 5, 'a', 'c'], ['t1', 3, null, 'b', null]]],
  ['whoever comes back stays anew', [went('a', 'outside', 't1', 3, 1), went('b', 't1', 't2', 3, 4), went('c', 't2', 't1', 3, 9)], [['t1', 1, 4, 'a', 'b'], ['t1', 9, null, 'c', null], ['t2', 4, 9, 'b', 'c']]],
  ['what was taken back never was', [went('a', 'outside', 't1', 3, 1), went('b', 't1', 't2', 3, 4), went('c', 't2', 't1', 3, 6, 'b')], [['t1', 1, null, 'a', null]]],
  ['an arrival that was taken back leaves no trace', [went('a', 'outside', 't1', 3, 1), went('b', 't1', 'outside', 3, 2, 'a')], []],
  ['a move that was entered late counts from when it happened', [went('a', 'outside', 't1', 5, 10), went('b', 'outside', 't1', 2, 3)], [['t1', 3, null, 'b', null]]],
  ['fish that left before they came count from when they can have been there', [went('a', 'outside', 't1', 5, 10), went('b', 't1', 't2', 5, 4)], [['t2', 4, null, 'b', null]]],
  ['a moment is long enough', [went('a', 'outside', 'bag', 2, 7), went('b', 'bag', 't1', 2, 7)], [['bag', 7, 7, 'a', 'b'], ['t1', 7, null, 'b', null]]],
  ['a loss and its fish found again', [went('a', 'outside', 't1', 1, 1), went('b', 't1', 'outside', 1, 5), went('c', 'outside', 't1', 1, 5, 'b'), went('d', 't1', 'outside', 1, 8)], [['t1', 1, 8, 'a', 'd']]],
])('%s', (_, movements, expected) => {
  expect(told(movements)).toEqual(expected)
  expect(told([...movements].reverse())).toEqual(expected)
})
