import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { tries } from '../testing/tries'
import { certainties, certaintyWords, type Judged } from './certaintyWords'
import { clusterTest, type ScoredUnit } from './clusterTest'
import { compareGroups } from './compareGroups'
import { falseDiscovery } from './falseDiscovery'
import type { LossRow } from './lossRow'
import { shrinkRank } from './shrinkRank'

const many = { numRuns: tries(2000, 200) }
const row: fc.Arbitrary<LossRow> = fc.record({ crate: fc.integer({ min: 1, max: 9 }), group: fc.constantFrom('A', 'B'), kind: fc.constantFrom('hardy', 'delicate'), n: fc.integer({ min: 4, max: 25 }), dead: fc.nat({ max: 6 }), day: fc.nat({ max: 9 }), shared: fc.nat({ max: 1 }) }).map(({ crate, group, kind, n, dead, day, shared }) => ({ crate: `c${crate}`, group, n, out: dead > 0 ? [{ day, dead: Math.min(dead, n), gone: 0 }] : [], until: 30, strata: [kind], shared: dead > 0 ? shared : 0 }))
const lots = fc.array(row, { minLength: 2, maxLength: 16 })
const near = (one: number | null | undefined, other: number | null | undefined): boolean => (one == null ? other == null : Math.abs(one - (other ?? NaN)) < 1e-9)

describe('comparing two groups', () => {
  test('the other way round it is the same difference, the same chance', () => {
    fc.assert(
      fc.property(lots, (rows) => {
        const [one, other] = [compareGroups({ lots: rows, a: 'A', b: 'B', day: 10 }), compareGroups({ lots: rows, a: 'B', b: 'A', day: 10 })]
        return near(one.difference, other.difference === null ? null : -other.difference) && near(one.low, other.high === null ? null : -other.high) && near(one.test?.p, other.test?.p) && one.used === other.used
      }),
      many,
    )
  })
  test('one kind of fish is compared like for like exactly as it is raw', () => {
    fc.assert(
      fc.property(lots, (rows) => {
        const [alike, raw] = [compareGroups({ lots: rows.map((each) => ({ ...each, strata: ['all'] })), a: 'A', b: 'B', day: 10 }), compareGroups({ lots: rows.map(({ strata: _, ...each }) => each), a: 'A', b: 'B', day: 10 })]
        return near(alike.adjusted?.difference, raw.difference) && near(alike.adjusted?.low, raw.low) && near(alike.test?.p, raw.test?.p)
      }),
      many,
    )
  })
  test('the interval holds the difference, and words never say more than figures', () => {
    fc.assert(
      fc.property(lots, fc.double({ min: 0, max: 1, noNaN: true }), (rows, q) => {
        const compared = compareGroups({ lots: rows, a: 'A', b: 'B', day: 10 })
        if (compared.difference !== null && !((compared.low ?? 1) <= compared.difference + 1e-9 && compared.difference <= (compared.high ?? -1) + 1e-9)) return false
        const judged: Judged = { a: 'A', b: 'B', crates: [compared.a.crates, compared.b.crates], dead: compared.a.dead + compared.b.dead, day: 10, used: compared.used, test: compared.test, p: compared.test?.p ?? null, q, difference: compared.difference, low: compared.low, high: compared.high, hangsOn: compared.hangsOn, attributed: compared.attributed, basis: 'observed' }
        const { word, better, sentence } = certaintyWords(judged)
        const isSure = word === 'clear' || word === 'likely'
        const holdsNothing = (compared.low ?? 0) > 0 || (compared.high ?? 0) < 0
        return certainties.includes(word) && !/NaN|undefined|null|Infinity/.test(sentence) && (better !== null) === (isSure || word === 'leans to') && (!isSure || (holdsNothing && compared.attributed <= 0.2 && Math.min(...judged.crates) >= 3))
      }),
      many,
    )
  })
})

/** Every arrangement of a few crates, listed in the plainest way. */
function bruteForce(units: readonly ScoredUnit[]): number {
  const crates = [...new Set(units.map(({ crate }) => crate))]
  const own = new Set(units.filter(({ group }) => group === 'A').map(({ crate }) => crate))
  const pairs = crates.filter((crate) => new Set(units.filter((unit) => unit.crate === crate).map(({ group }) => group)).size === 2)
  const singles = crates.filter((crate) => !pairs.includes(crate))
  const wanted = singles.filter((crate) => own.has(crate)).length
  const sums: number[] = []
  for (let mask = 0; mask < 2 ** crates.length; mask += 1) {
    const chosen = crates.filter((_, index) => mask & (2 ** index))
    if (chosen.filter((crate) => singles.includes(crate)).length !== wanted) continue
    sums.push(units.reduce((sum, { crate, group, score }) => sum + (pairs.includes(crate) ? ((group === 'A') === chosen.includes(crate) ? score : 0) : chosen.includes(crate) ? score : 0), 0))
  }
  const mean = sums.reduce((sum, each) => sum + each, 0) / sums.length
  const seen = units.reduce((sum, { group, score }) => (group === 'A' ? sum + score : sum), 0) - mean
  return sums.filter((each) => Math.abs(each - mean) >= Math.abs(seen) - 1e-9).length / sums.length
}

test('sharing crates out anew is what a list of every way gives; drawn, it comes near', () => {
  const unit: fc.Arbitrary<ScoredUnit> = fc.record({ crate: fc.integer({ min: 1, max: 8 }).map((each) => `c${each}`), group: fc.constantFrom('A', 'B'), score: fc.integer({ min: -6, max: 6 }) })
  fc.assert(
    fc.property(fc.uniqueArray(unit, { minLength: 2, maxLength: 12, selector: ({ crate, group }) => crate + group }), (units) => {
      const [exact, drawn] = [clusterTest({ units, a: 'A' }), clusterTest({ units, a: 'A', exactUpTo: 0, draws: 2000 })]
      return Math.abs(exact.p - bruteForce(units)) < 1e-9 && exact.kind === 'exact' && drawn.kind === 'drawn' && Math.abs(drawn.p - exact.p) < 0.08
    }),
    { numRuns: tries(400, 60) },
  )
})

test('of many comparisons q is never below p, keeps their order, and leaves out what was no test', () => {
  fc.assert(
    fc.property(fc.array(fc.option(fc.double({ min: 0, max: 1, noNaN: true })), { maxLength: 30 }), (p) => {
      const { comparisons, q } = falseDiscovery({ p })
      const pairs = p.flatMap((each, index) => (each === null ? [] : [[each, q[index] ?? NaN] as const])).sort(([one], [other]) => one - other)
      return comparisons === pairs.length && q.every((each, index) => (each === null) === (p[index] === null)) && pairs.every(([own, corrected], index) => corrected >= own - 1e-12 && corrected <= 1 && corrected >= (pairs[index - 1]?.[1] ?? 0) - 1e-12)
    }),
    many,
  )
})

test('ranks share out the places, and stand inside their intervals', () => {
  const crates = fc.array(fc.record({ group: fc.constantFrom('A', 'B', 'C', 'D'), of: fc.integer({ min: 1, max: 60 }), dead: fc.nat({ max: 20 }) }), { minLength: 1, maxLength: 20 })
  fc.assert(
    fc.property(crates, (drawn) => {
      const rows = drawn.map(({ group, of, dead }, index) => ({ group, crate: `c${index}`, of, dead: Math.min(dead, of) }))
      const { groups, overall } = shrinkRank({ rows })
      const places = groups.reduce((sum, { expectedRank }) => sum + expectedRank, 0)
      const isPlaced = Math.abs(places - (groups.length * (groups.length + 1)) / 2) < 0.02 * groups.length
      return isPlaced && groups.every(({ rankLow, rankHigh, expectedRank, low, mean, high, share }) => rankLow <= expectedRank + 0.5 && expectedRank <= rankHigh + 0.5 && low <= mean && mean <= high && mean >= Math.min(share, overall) - 1e-9 && mean <= Math.max(share, overall) + 1e-9)
    }),
    { numRuns: tries(400, 60) },
  )
  expect(shrinkRank({ rows: [] }).groups).toEqual([])
})
