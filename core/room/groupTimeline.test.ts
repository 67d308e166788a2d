import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { groupTimeline } from './groupTimeline'
import type { MovementView, TimelineEntry } from './roomView'

const entry = (id: string, change: Partial<MovementView>): TimelineEntry => ({
  ...{ type: 'movement', id, kind: 'move', quantity: 1, lotCode: '1-01', species: 'Cherry barb', from: 'bag 1', to: 'R1-01', change: 1, happenedAtMs: 1, recordedAtMs: 1 },
  ...{ staffName: 'Imre', cause: null, reason: null, note: null, reversedById: null, reversesId: null, crate: null, pool: null, shortfall: null, chosen: null, fixedBecause: null, commandKey: 'k1' },
  ...change,
})

describe('groupTimeline', () => {
  test('six bags of one placing are one line; another lot, another touch, or one taken back are not', () => {
    const entries = [entry('a', {}), entry('b', {}), entry('c', { lotCode: '1-02' }), entry('d', {}), entry('e', { reversedById: 'x' }), entry('f', { commandKey: 'k2' })]
    expect(groupTimeline(entries).map((group) => group.entries.map(({ id }) => id))).toEqual([['a', 'b'], ['c'], ['d'], ['e'], ['f']])
  })

  test('nothing is lost, doubled or put in another order', () => {
    const any = fc.record({ commandKey: fc.constantFrom('k1', 'k2'), lotCode: fc.constantFrom('1', '2'), change: fc.constantFrom(-1, 1), kind: fc.constantFrom('move' as const, 'loss' as const) })
    fc.assert(
      fc.property(fc.array(any, { maxLength: 30 }), (changes) => {
        const entries = changes.map((change, index) => entry(String(index), change))
        const groups = groupTimeline(entries)
        expect(groups.flatMap((group) => group.entries)).toEqual(entries)
        expect(groups.every((group) => group.id === group.entries[0].id)).toBe(true)
      }),
    )
  })
})
