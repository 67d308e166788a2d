import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { directionProblem } from './directionProblem'
import { movementKinds, outsidePlaceId, type Movement } from './movement'
import { planReversal } from './planReversal'
import { applyMovement, compareStock, fishIn, sumMovements, type Stock } from './stock'

const movement = (change: Partial<Movement>): Movement => ({ id: 'm', kind: 'move', lotId: 'lot', fromPlaceId: 'a', toPlaceId: 'b', quantity: 1, reversesId: null, ...change })
const arrive = movement({ kind: 'arrive', fromPlaceId: outsidePlaceId, toPlaceId: 'bag', quantity: 8 })

describe('applying movements', () => {
  test('an arrival stands in its bag; the argument stays as it was', () => {
    const empty: Stock = new Map()
    const applied = applyMovement(empty, arrive)
    expect(applied).toEqual({ ok: true, stock: new Map([['bag/lot', 8]]) })
    expect(empty.size).toBe(0)
  })

  test('more than are there is an expected no', () => {
    expect(applyMovement(new Map([['a/lot', 3]]), movement({ quantity: 4 }))).toEqual({ ok: false, reason: 'below-zero', available: 3 })
  })

  test.each([0, -1, 1.5, Number.NaN, Number.POSITIVE_INFINITY])('%d fish are misuse', (quantity) => expect(() => applyMovement(new Map(), movement({ quantity }))).toThrow(RangeError))

  test('each kind has its own way', () => {
    const ways = [[outsidePlaceId, 'b'], ['a', outsidePlaceId], ['a', 'b']] as const
    const allowed = Object.fromEntries(
      movementKinds.map((kind) => [kind, ways.filter(([fromPlaceId, toPlaceId]) => !directionProblem(movement({ kind, fromPlaceId, toPlaceId, reversesId: kind === 'reversal' ? 'x' : null }))).map((way) => way.join('>'))]),
    )
    expect(allowed).toEqual({
      ...{ arrive: ['outside>b'], born: ['outside>b'], 'dead-in-bag': ['a>outside'], loss: ['a>outside'], release: ['a>outside'], move: ['a>b'] },
      ...{ 'count-correction': ['outside>b', 'a>outside'], reversal: ['outside>b', 'a>outside', 'a>b'] },
    })
    expect(directionProblem(movement({ reversesId: 'x' }))).toMatch(/only a reversal/)
  })

  const place = fc.constantFrom('a', 'b', 'c', outsidePlaceId)
  const any = fc
    .record({ fromPlaceId: place, toPlaceId: place, quantity: fc.integer({ min: 1, max: 9 }), lotId: fc.constantFrom('x', 'y') })
    .filter(({ fromPlaceId, toPlaceId }) => fromPlaceId !== toPlaceId)
    .map((each): Movement => movement({ ...each, kind: each.fromPlaceId === outsidePlaceId ? 'arrive' : each.toPlaceId === outsidePlaceId ? 'loss' : 'move' }))

  test('stock kept step by step equals the sum, never falls below zero, and every reversal restores it', () => {
    fc.assert(
      fc.property(fc.array(any, { maxLength: 40 }), (movements) => {
        let stock: Stock = new Map()
        const done: Movement[] = []
        for (const each of movements) {
          const applied = applyMovement(stock, each)
          if (!applied.ok) continue
          const planned = planReversal(each, false, fishIn(applied.stock, each.toPlaceId, each.lotId))
          const back = planned.ok && applyMovement(applied.stock, { ...movement({}), ...planned, kind: 'reversal' })
          expect(back && back.ok && compareStock(back.stock, stock)).toEqual([])
          stock = applied.stock
          done.push(each)
        }
        expect(compareStock(stock, sumMovements(done))).toEqual([])
        expect([...stock.values()].every((fish) => fish > 0)).toBe(true)
      }),
    )
  })

  test('a comparison names what differs', () => {
    expect(compareStock(new Map([['a/x', 2]]), new Map([['a/x', 3], ['b/x', 1]]))).toEqual([
      { key: 'a/x', kept: 2, summed: 3 },
      { key: 'b/x', kept: 0, summed: 1 },
    ])
  })
})

describe('planning a reversal', () => {
  const moved = movement({ quantity: 6 })
  test.each([
    ['fish are there', moved, false, 6, { ok: true, fromPlaceId: 'b', toPlaceId: 'a', lotId: 'lot', quantity: 6, reversesId: 'm' }],
    ['fish moved on', moved, false, 4, { ok: false, reason: 'fish-moved-on', available: 4 }],
    ['done before', moved, true, 6, { ok: false, reason: 'already-reversed' }],
    ['a reversal', movement({ kind: 'reversal', reversesId: 'x' }), false, 6, { ok: false, reason: 'is-reversal' }],
    ['a loss can always come back', movement({ kind: 'loss', toPlaceId: outsidePlaceId, quantity: 2 }), false, 0, expect.objectContaining({ ok: true, toPlaceId: 'a' })],
  ])('%s', (_, subject, isReversed, available, planned) => expect(planReversal(subject, isReversed, available)).toEqual(planned))
})
