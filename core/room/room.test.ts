import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { tries } from '../testing/tries'
import { arrangeRack, type Arranging, type PlacedTank } from './arrangeRack'
import { roomAsOf, type MovedThen } from './roomAsOf'

const places = ['outside', 'T1', 'T2', 'T3']
const draft = fc.record({ lot: fc.constantFrom('a', 'b'), n: fc.integer({ min: 1, max: 9 }), from: fc.constantFrom(...places), to: fc.constantFrom(...places), lateBy: fc.nat({ max: 50 }), isReversed: fc.boolean(), gap: fc.nat({ max: 20 }) })
/** A ledger in the order it was written; some entries come late, some are taken back later on. */
const ledger = fc.array(draft, { maxLength: 30 }).map((drafts) => {
  let at = 100
  const written: MovedThen[] = []
  drafts.forEach(({ lot, n, from, to, lateBy, isReversed, gap }, index) => {
    at += gap
    written.push({ id: `m${index}`, lot, n, from, to, happenedAt: at - lateBy, recordedAt: at, reverses: null })
    if (isReversed) written.push({ id: `r${index}`, lot, n, from: to, to: from, happenedAt: at + 1, recordedAt: (at += 1), reverses: `m${index}` })
  })
  return written
})

/** Carries movements out one by one. */
function carriedOut(movements: readonly MovedThen[]): Record<string, number> {
  const there: Record<string, number> = {}
  for (const { lot, n, from, to } of movements) {
    there[`${from} ${lot}`] = (there[`${from} ${lot}`] ?? 0) - n
    there[`${to} ${lot}`] = (there[`${to} ${lot}`] ?? 0) + n
  }
  return Object.fromEntries(Object.entries(there).filter(([key, n]) => n !== 0 && !key.startsWith('outside')))
}
const asRecord = ({ stock, below }: ReturnType<typeof roomAsOf>): Record<string, number> => Object.fromEntries([...stock, ...below].map(({ place, lot, n }) => [`${place} ${lot}`, n]))

describe('the room as of a moment', () => {
  test('by the books is what carrying out every entry of until then leaves', () => {
    fc.assert(
      fc.property(ledger, fc.nat({ max: 700 }), (movements, at) => {
        expect(asRecord(roomAsOf({ movements, names: [], at, clock: 'books' }))).toEqual(carriedOut(movements.filter(({ recordedAt }) => recordedAt <= at)))
      }),
      { numRuns: tries(2000) },
    )
  })

  test('as it happened knows nothing of what was taken back, and agrees with the books today', () => {
    fc.assert(
      fc.property(ledger, (movements) => {
        const kept = movements.filter(({ id, reverses }) => reverses === null && !movements.some((each) => each.reverses === id))
        const [books, happened] = (['books', 'happened'] as const).map((clock) => asRecord(roomAsOf({ movements, names: [], at: 1e9, clock })))
        expect(books).toEqual(happened)
        expect(asRecord(roomAsOf({ movements, names: [], at: 300, clock: 'happened' }))).toEqual(carriedOut(kept.filter(({ happenedAt }) => happenedAt <= 300)))
      }),
      { numRuns: tries(2000) },
    )
  })
})

const racks = [{ rack: 'R1', shelves: 2, perShelf: 4 }, { rack: 'R2', shelves: 1, perShelf: 3 }]
const spots = racks.flatMap(({ rack, shelves, perShelf }) => Array.from({ length: shelves * perShelf }, (_, index) => ({ rack, shelf: Math.floor(index / perShelf) + 1, position: (index % perShelf) + 1 })))
const standing = fc.subarray(spots, { minLength: 1 }).map((all): PlacedTank[] => all.map((spot, index) => ({ id: `t${index}`, ...spot })))
const op = fc.record({ nth: fc.nat({ max: 10 }), rack: fc.constantFrom('R1', 'R2'), mode: fc.constantFrom('swap' as const, 'insert' as const), x: fc.double({ min: -2, max: 6, noNaN: true }), y: fc.double({ min: -2, max: 4, noNaN: true }) })
const after = (tanks: readonly PlacedTank[], moved: readonly PlacedTank[]): PlacedTank[] => tanks.map((tank) => moved.find(({ id }) => id === tank.id) ?? tank)

describe('arranging racks', () => {
  test('never puts two tanks into one spot, and is taken back to what it was', () => {
    fc.assert(
      fc.property(standing, op, (tanks, { nth, ...put }) => {
        const asked: Arranging = { id: tanks[nth % tanks.length]?.id ?? '', ...put }
        const { refused, moved, undo } = arrangeRack(racks, tanks, asked)
        const now = after(tanks, moved)
        expect(new Set(now.map(({ rack, shelf, position }) => `${rack} ${shelf} ${position}`)).size).toBe(tanks.length)
        expect(now.every(({ rack, shelf, position }) => spots.some((spot) => spot.rack === rack && spot.shelf === shelf && spot.position === position))).toBe(true)
        expect(after(now, undo)).toEqual(tanks)
        if (refused !== null) expect([refused, moved, undo]).toEqual(['full', [], []])
      }),
      { numRuns: tries(3000) },
    )
  })

  test('says where there is no such tank, rack or spot', () => {
    const tanks = [{ id: 'A', rack: 'R1', shelf: 1, position: 1 }]
    expect(arrangeRack(racks, tanks, { id: 'B', rack: 'R1', shelf: 1, position: 1 }).refused).toBe('unknown')
    expect(arrangeRack(racks, tanks, { id: 'A', rack: 'R9', shelf: 1, position: 1 }).refused).toBe('unknown')
    expect(arrangeRack(racks, tanks, { id: 'A', rack: 'R2', shelf: 2, position: 1 }).refused).toBe('off the rack')
  })
})
