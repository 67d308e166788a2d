import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { survivalAt, type Seen } from '../stats/survival'
import { tries } from '../testing/tries'
import { anyKind, kindsOfDeath, type KindRow } from './kindsOfDeath'
import type { LossRow } from './lossRow'
import { survivalByCrate } from './survivalByCrate'

const many = { numRuns: tries(3000, 300) }
const kinds = ['late gasping', 'spots or film', 'other'] as const

/** Rows as a room has them: no more leave than were there, days sorted. */
const kindRow: fc.Arbitrary<KindRow> = fc
  .record({ crate: fc.constantFrom('c1', 'c2', 'c3', 'c4', 'c5'), n: fc.integer({ min: 1, max: 30 }), days: fc.uniqueArray(fc.integer({ min: 0, max: 25 }), { maxLength: 4 }), parts: fc.array(fc.tuple(fc.nat({ max: 6 }), fc.nat({ max: 4 }), fc.nat({ max: 5 })), { minLength: 4, maxLength: 4 }), stays: fc.nat({ max: 12 }) })
  .map(({ crate, n, days, parts, stays }) => {
    let left = n
    const take = (fish: number): number => {
      const taken = Math.min(fish, left)
      left -= taken
      return taken
    }
    const out = days.sort((a, b) => a - b).map((day, index) => {
      const [gasping, spots, gone] = parts[index] ?? [0, 0, 0]
      return { day, dead: { 'late gasping': take(gasping), 'spots or film': take(spots) }, gone: take(gone) }
    })
    return { crate, n, out, until: (out.at(-1)?.day ?? 0) + stays }
  })
const rows = fc.array(kindRow, { minLength: 1, maxLength: 8 })
const plain = rows.map((each) => each.map(anyKind))
const day = fc.integer({ min: 0, max: 20 })

/** The same fish, each a row and a crate of its own. */
const apart = (lots: readonly LossRow[]): Seen[] =>
  lots.flatMap((lot): Seen[] => {
    const left = lot.n - lot.out.reduce((sum, { dead, gone }) => sum + dead + gone, 0)
    return [...lot.out.flatMap(({ day: on, dead, gone }) => [{ time: on, isDeath: true, weight: dead }, { time: on, isDeath: false, weight: gone }]), { time: lot.until ?? 0, isDeath: false, weight: left }].filter(({ weight }) => weight > 0)
  })

describe('survival by crate', () => {
  test('is the curve of its fish, and its error by fish is Greenwood’s; only the band knows of crates', () => {
    fc.assert(
      fc.property(plain, day, (lots, on) => {
        const [own] = survivalByCrate({ lots, at: [on] }).rows
        const known = survivalAt(apart(lots), on)
        if (own?.survival == null) return known.atRisk === 0 || known.survival === 0
        return Math.abs(own.survival - known.survival) < 1e-9 && (own.survival === 1 || own.survival === 0 || Math.abs((own.seFish ?? 0) - known.standardError) < 1e-9)
      }),
      many,
    )
  })
  test('the band holds the share and stays between nothing and all; survival never rises', () => {
    fc.assert(
      fc.property(plain, day, (lots, on) => {
        const [now, later] = survivalByCrate({ lots, at: [on, on + 3] }).rows
        if (now?.survival == null || now.low === null || now.high === null) return true
        const isHeld = now.low >= 0 && now.low <= now.survival + 1e-12 && now.survival <= now.high + 1e-12 && now.high <= 1
        return isHeld && (later?.survival == null || later.survival <= now.survival + 1e-12)
      }),
      many,
    )
  })
  test('a crate told in two rows is one crate; the order of rows says nothing', () => {
    fc.assert(
      fc.property(plain, day, (lots, on) => {
        const [together, parted] = [survivalByCrate({ lots, at: [on] }), survivalByCrate({ lots: lots.flatMap((row) => halves(row)).reverse(), at: [on] })]
        const [one, other] = [together.rows[0], parted.rows[0]]
        return together.clusters === parted.clusters && near(one?.survival, other?.survival) && near(one?.se, other?.se) && near(one?.low, other?.low) && near(together.mean.se, parted.mean.se)
      }),
      many,
    )
  })
  test('a figure nobody can know is not filled with the last one', () => {
    const week: LossRow[] = [{ crate: 'new', n: 20, out: [{ day: 1, dead: 2, gone: 0 }], until: 6 }]
    expect(survivalByCrate({ lots: week, at: [6, 7, 14] }).rows.map(({ survival, low }) => [survival, low === null])).toEqual([[0.9, false], [null, true], [null, true]])
    expect(survivalByCrate({ lots: [], at: [7] })).toMatchObject({ fish: 0, rows: [{ survival: null }], mean: { value: null } })
  })
})

describe('kinds of death', () => {
  test('together they are all deaths: shares of the kinds and of the living come to one', () => {
    fc.assert(
      fc.property(rows, day, (lots, on) => {
        const { rows: shares, survival } = kindsOfDeath({ lots, outcomes: kinds, at: [on] })
        const alive = survival[0]?.survival
        return alive == null || Math.abs(shares.reduce((sum, { incidence }) => sum + (incidence ?? 0), alive) - 1) < 1e-9
      }),
      many,
    )
  })
  test('all deaths as one kind have the spread of survival', () => {
    fc.assert(
      fc.property(plain, day, (lots, on) => {
        const [alive] = survivalByCrate({ lots, at: [on] }).rows
        const [dead] = kindsOfDeath({ lots: lots.map((row) => ({ ...row, out: row.out.map((exit) => ({ ...exit, dead: { any: exit.dead } })) })), outcomes: ['any'], at: [on] }).rows
        return alive?.survival == null || alive.survival === 0 || near(alive.se, dead?.se, 1e-8)
      }),
      many,
    )
  })
  test('whoever left before the counting begins is not counted', () => {
    fc.assert(
      fc.property(rows, (lots) => {
        const early: KindRow = { crate: 'early', n: 9, out: [{ day: 2, dead: { other: 9 }, gone: 0 }], until: 2 }
        const asked = { outcomes: kinds, at: [21], from: 5 }
        return JSON.stringify(kindsOfDeath({ lots: [...lots, early], ...asked })) === JSON.stringify(kindsOfDeath({ lots, ...asked }))
      }),
      many,
    )
  })
})

const near = (one: number | null | undefined, other: number | null | undefined, by = 1e-9): boolean => (one == null ? other == null : Math.abs(one - (other ?? NaN)) < by)

/** The same fish in two rows: those that went, and those that stayed to the end. */
function halves(row: LossRow): LossRow[] {
  const went = row.out.reduce((sum, { dead, gone }) => sum + dead + gone, 0)
  return [{ ...row, n: went }, { ...row, n: row.n - went, out: [] }]
}
