import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { tries } from '../testing/tries'
import { riskSets, type LossLot, type LossMovement } from './riskSets'

const many = { numRuns: tries(3000, 300) }
const lots: LossLot[] = ['A', 'B', 'C'].map((lot) => ({ lot, crate: `crate of ${lot}`, entry: 'crate' }))
const dayOf = (day: number): string => new Date(Date.UTC(2031, 0, 1 + day)).toISOString().slice(0, 10)

interface Act {
  lot: string
  act: 'loss' | 'sale' | 'fewer' | 'more' | 'not found' | 'move' | 'take back'
  fish: number
  later: number
}
const act: fc.Arbitrary<Act> = fc.record({ lot: fc.constantFrom('A', 'B', 'C'), act: fc.constantFrom('loss', 'sale', 'fewer', 'more', 'not found', 'move', 'take back'), fish: fc.integer({ min: 1, max: 5 }), later: fc.nat({ max: 4 }) })

/** A ledger that never goes below nothing, as the books allow it, and how many of each lot are left in it. */
function booksOf(acts: readonly Act[]): { movements: LossMovement[]; left: Record<string, number> } {
  const movements: LossMovement[] = []
  const left: Record<string, number> = {}
  let day = 0
  const write = (rest: Pick<LossMovement, 'kind' | 'lot' | 'from' | 'to' | 'quantity'> & Partial<LossMovement>): void => void movements.push({ seq: movements.length + 1, id: `m${movements.length + 1}`, on: dayOf(day), ...rest })
  for (const { lot } of lots) {
    write({ kind: 'arrive', lot, from: 'outside', to: 'bag', quantity: 20 })
    left[lot] = 20
  }
  for (const { lot, act: what, fish, later } of acts) {
    day += later
    const [there, last] = [left[lot] ?? 0, movements.at(-1)]
    const out = Math.min(fish, there)
    if (what === 'more') {
      write({ kind: 'count-correction', lot, from: 'outside', to: 'T1', quantity: fish })
      left[lot] = there + fish
    } else if (what === 'take back') {
      if (!last || last.kind === 'reversal' || last.kind === 'arrive' || last.kind === 'count-correction') continue
      write({ kind: 'reversal', lot: last.lot, from: last.to, to: last.from, quantity: last.quantity, reverses: last.id })
      if (last.to === 'outside') left[last.lot] = (left[last.lot] ?? 0) + last.quantity
    } else if (out > 0) {
      const kind = what === 'move' ? 'move' : what === 'sale' ? 'release' : what === 'fewer' ? 'count-correction' : 'loss'
      write({ kind, lot, from: 'T1', to: what === 'move' ? 'T2' : 'outside', quantity: out, ...(kind === 'loss' ? { cause: what === 'not found' ? 'not found' : 'found dead' } : {}) })
      if (what !== 'move') left[lot] = there - out
    }
  }
  return { movements, left }
}

test('whatever happens, as many fish are followed as the books hold: nobody dies twice, nobody is lost', () => {
  fc.assert(
    fc.property(fc.array(act, { maxLength: 30 }), (acts) => {
      const { movements, left } = booksOf(acts)
      const told = riskSets({ today: dayOf(400), lots, movements })
      const isWhole = told.lots.every(({ lot, n, out, left: staying }) => Math.abs(staying - (left[lot] ?? 0)) < 1e-9 && Math.abs(n - staying - out.reduce((sum, { dead, gone }) => sum + dead + gone, 0)) < 1e-9)
      const first = told.table[0]
      return isWhole && told.unmatched === 0 && (first === undefined || first.atRisk === told.lots.reduce((sum, { n }) => sum + n, 0))
    }),
    many,
  )
})

test('what was taken back never was, and moves change nothing', () => {
  fc.assert(
    fc.property(fc.array(act, { maxLength: 20 }), (acts) => {
      const { movements } = booksOf(acts)
      const reversed = new Set(movements.flatMap(({ reverses }) => (reverses ? [reverses] : [])))
      const plain = movements.filter(({ kind, id }) => kind !== 'reversal' && kind !== 'move' && !reversed.has(id))
      const deaths = (of: LossMovement[]) => riskSets({ today: dayOf(400), lots, movements: of }).lots.map(({ lot, out, n }) => ({ lot, out, n }))
      expect(deaths(movements)).toEqual(deaths(plain))
    }),
    many,
  )
})

test('what is dated after today is not there yet', () => {
  const { movements } = booksOf([{ lot: 'A', act: 'loss', fish: 3, later: 4 }])
  const at = (day: number) => riskSets({ today: dayOf(day), lots, movements }).lots.find(({ lot }) => lot === 'A')?.out
  expect([at(3), at(4)]).toEqual([[], [{ day: 4, dead: 3, gone: 0 }]])
})

test('fish that were written off as not found and counted again leave the deaths of everybody they were taken to be', () => {
  const movements: LossMovement[] = [
    ...['A', 'B'].map((lot, index) => ({ seq: index + 1, id: `m${index + 1}`, kind: 'arrive' as const, lot, from: 'outside', to: 'T1', quantity: 5, on: dayOf(0) })),
    { seq: 3, id: 'm3', kind: 'loss', lot: 'A', from: 'T1', to: 'outside', quantity: 2, on: dayOf(3), cause: 'not found', shares: [{ lot: 'A', share: 0.5 }, { lot: 'B', share: 0.5 }] },
    { seq: 4, id: 'm4', kind: 'count-correction', lot: 'A', from: 'outside', to: 'T1', quantity: 2, on: dayOf(6) },
  ]
  expect(riskSets({ today: dayOf(9), lots, movements }).lots.map(({ lot, n, out, missing }) => [lot, n, out, missing])).toEqual([['A', 5, [], 0], ['B', 5, [], 0]])
})
