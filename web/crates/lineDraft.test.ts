import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { BagView, LineView } from '../../core/crates/crateView'
import { noHandling } from '../../core/species/handling'
import { splitIntoBags } from '../../core/crates/splitIntoBags'
import { draftOfLine, draftOfRead, emptyLine, readDraft } from './lineDraft'
import { notKept } from '../../core/species/keptIn'

const typed = (change: Partial<typeof emptyLine>) => readDraft({ ...emptyLine, species: 'Cherry barb', count: '16', bags: '2', ...change })
const lineView = (count: number): LineView => ({ id: 'l', position: 1, species: 'Cherry barb', count, lotId: 'lot', lotCode: '1-01', tank: { id: 't1', code: 'R1-01' }, origin: 'wild', strain: null, identity: 'sure', promisedTo: null, billed: null, sizeCm: null, priceEach: null, capture: null, ateBefore: null, note: null, handling: noHandling, lookAlikes: [], told: null, animal: null, kept: notKept, tankWater: {}, version: 3 })
const bagsOf = (listed: number[]): BagView[] => listed.map((fish, index) => ({ id: `b${index}`, lineId: 'l', number: index + 1, listed: fish, record: null, inBag: 0, photos: [], runId: null }))

describe('a line as it is typed', () => {
  test('figures and words are read; what is left out counts as not said', () => {
    expect(typed({ strain: ' albino ', origin: 'wild' })).toEqual({ ok: true, line: { species: 'Cherry barb', count: 16, bags: 2, perBag: null, tankId: null, origin: 'wild', strain: 'albino', identity: null, promisedTo: null, billed: null, sizeCm: null, priceEach: null, capture: null, ateBefore: null, note: null } })
    expect(typed({ count: '', perBag: '8' })).toMatchObject({ ok: true, line: { count: 16, perBag: 8 } })
  })
  test.each([
    [{ species: ' ' }, 'species', 'Species is missing'],
    [{ count: 'six' }, 'count', 'Count must be a number'],
    [{ count: '' }, 'count', 'Count is missing'],
    [{ bags: '1,5' }, 'bags', 'Bags must be a whole number'],
    [{ count: '0' }, 'count', 'Count must be at least 1'],
    [{ bags: '-1' }, 'bags', 'Bags must be at least 1'],
  ] as const)('%j is told beside its field', (change, field, message) => {
    const read = typed(change)
    expect(read.ok ? {} : read.errors).toMatchObject({ [field]: message })
  })
  test('fish that do not fit the bags are told beside fish per bag', () => {
    expect(typed({ count: '40', perBag: '8' })).toMatchObject({ ok: false, errors: { perBag: expect.any(String) } })
  })
})

describe('a line of a crate', () => {
  test('opened for a change and saved as it is, its bags stay what they are', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 1, max: 40 }), fc.boolean(), (bags, perBag, isShortLast) => {
        const count = isShortLast && perBag > 1 ? bags * perBag - 1 : bags * perBag
        const split = splitIntoBags(count, bags, isShortLast ? perBag : null)
        if (!split.ok) return
        const read = readDraft(draftOfLine(lineView(count), bagsOf(split.fish)))
        const again = read.ok ? splitIntoBags(read.line.count, read.line.bags, read.line.perBag) : split
        expect([read.ok, again.ok && again.fish]).toEqual([true, split.fish])
      }),
    )
  })
  test('a line that was read from a list stands in its fields', () => {
    expect(draftOfRead({ row: 2, species: 'Kuhli loach', count: 5, bags: 1, perBag: null, tankId: null, origin: null, strain: null, identity: 'doubtful', promisedTo: 'the café', billed: null, sizeCm: null, priceEach: 2.5, capture: null, ateBefore: null, note: null, told: null })).toEqual({ ...emptyLine, species: 'Kuhli loach', count: '5', bags: '1', identity: 'doubtful', promisedTo: 'the café', priceEach: '2.5' })
  })
})
