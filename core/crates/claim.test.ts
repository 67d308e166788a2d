import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { noHandling } from '../species/handling'
import { claimClock, claimSheet, openClaim } from './claim'
import type { BagFindings, BagView, CrateView, LineView } from './crateView'
import type { CrateSummary } from './crateSummary'
import { notKept } from '../species/keptIn'

const hourMs = 3_600_000
const findings: BagFindings = { alive: 0, dead: 0, concerns: [], body: null, skinTempC: null, waterTempC: null, salinityPpt: null, note: null }
interface Found {
  line: number
  listed: number
  alive: number
  dead: number
  isWrong: boolean
}
const bag = ({ line, listed, alive, dead, isWrong }: Found, index: number): BagView => ({
  ...{ id: `b${index}`, lineId: `l${line}`, number: index + 1, listed, inBag: alive, photos: [], runId: null },
  record: { ...findings, alive, dead, mishap: isWrong ? 'wrong species' : null, staffId: 's', staffName: 'Oona', happenedAtMs: 1, commandKey: 'k' },
})
const line = (index: number, priceEach: number | null): LineView => ({
  ...{ id: `l${index}`, position: index + 1, species: `fish ${index}`, count: 10, lotId: `lot${index}`, lotCode: `1-0${index + 1}`, tank: null, version: 1, handling: noHandling, lookAlikes: [], animal: null, kept: notKept, tankWater: {}, told: null },
  ...{ origin: null, strain: null, identity: null, promisedTo: null, billed: null, sizeCm: null, priceEach, capture: null, ateBefore: null, note: null },
})
const crateOf = (found: Found[], prices: (number | null)[]): CrateView => ({
  ...{ id: 'c', number: 1, supplier: 's', expectedAtMs: null, packedAtMs: null, arrivedAtMs: 0, lastPlacement: null, went: [], note: null, version: 1, claimWindowHours: 4, claimState: null, closedAtMs: null },
  ...{ carrier: null, shippingWater: null, method: null, hasList: true, box: null, boxVersion: 1, closedBecause: null, lines: prices.map((price, index) => line(index, price)), bags: found.map(bag) },
})

describe('what is claimed', () => {
  const found = fc.record({ line: fc.nat({ max: 2 }), listed: fc.integer({ min: 1, max: 20 }), alive: fc.nat({ max: 20 }), dead: fc.nat({ max: 5 }), isWrong: fc.boolean() })
  const prices = fc.tuple(...[0, 1, 2].map(() => fc.option(fc.integer({ min: 0, max: 5000 }).map((cents) => cents / 100), { nil: null })))

  test('never more than the list promised less what lives, by line; amounts are fish times price; sums are sums', () => {
    fc.assert(
      fc.property(fc.array(found, { maxLength: 12 }), prices, (bags, priced) => {
        const sheet = claimSheet(crateOf(bags, priced))
        for (const { lineId, dead, missing, wrong, priceEach, amount } of sheet.lines) {
          const own = bags.filter((each) => `l${each.line}` === lineId)
          const [listed, arrived] = [own.reduce((sum, each) => sum + each.listed, 0), own.reduce((sum, each) => sum + each.alive + each.dead, 0)]
          expect(missing).toBe(Math.max(0, listed - arrived))
          expect(dead).toBe(own.reduce((sum, each) => sum + each.dead, 0))
          expect(wrong).toBe(own.reduce((sum, each) => sum + (each.isWrong ? each.alive : 0), 0))
          if (priceEach === null) expect(amount).toBeNull()
          else expect(amount).toBeCloseTo(priceEach * (dead + missing + wrong), 2)
        }
        expect(sheet.dead).toBe(bags.reduce((sum, each) => sum + each.dead, 0))
        expect(sheet.amount).toBeCloseTo(sheet.lines.reduce((sum, each) => sum + (each.amount ?? 0), 0), 2)
        expect(sheet.lines.every((each) => each.dead + each.missing + each.wrong > 0)).toBe(true)
      }),
      { numRuns: 300 },
    )
  })

  test('bags that came as listed are no evidence', () => {
    const sheet = claimSheet(crateOf([{ line: 0, listed: 5, alive: 5, dead: 0, isWrong: false }, { line: 0, listed: 5, alive: 4, dead: 1, isWrong: false }], [2]))
    expect(sheet.lines[0]?.bags.map(({ number, dead, missing }) => [number, dead, missing])).toEqual([[2, 1, 0]])
  })
})

describe('the clock', () => {
  test('runs from arrival, not from packing; none without an agreement or before anything arrived', () => {
    expect(claimClock(10 * hourMs, 4, 11 * hourMs)).toEqual({ endsAtMs: 14 * hourMs, leftMs: 3 * hourMs })
    expect([claimClock(null, 4, 0), claimClock(0, null, 0)]).toEqual([null, null])
  })

  const summary: CrateSummary = { id: 'c', number: 1, supplier: 's', expectedAtMs: null, packedAtMs: null, arrivedAtMs: 0, claimWindowHours: 4, claimState: null, closedAtMs: null, lineCount: 1, bagCount: 1, openedCount: 1, listed: 8, alive: 7, dead: 1, missing: 0, inBags: 0 }
  test.each<[string, Partial<CrateSummary>, number, number]>([
    ['open', {}, hourMs, 1],
    ['a draft is still to be sent', { claimState: 'draft' }, hourMs, 1],
    ['sent', { claimState: 'sent' }, hourMs, 0],
    ['settled', { claimState: 'settled' }, hourMs, 0],
    ['too late', {}, 5 * hourMs, 0],
    ['nothing lost', { dead: 0 }, hourMs, 0],
    ['only missing', { dead: 0, missing: 2 }, hourMs, 1],
  ])('%s', (_, more, nowMs, count) => expect(openClaim({ ...summary, ...more }, nowMs)).toHaveLength(count))
})
