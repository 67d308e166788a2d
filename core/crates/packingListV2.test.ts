import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { tries } from '../testing/tries'
import { readPackingListJson } from './packingListFile'
import { takeAlongCard, type CardLine } from './takeAlongCard'

const base = { format: 'daily-crate/packing-list', lines: [{ species: 'Cherry barb', count: 6, bags: 1 }] }
const read = (list: object) => readPackingListJson(JSON.stringify(list))

test('version 1 stays readable, and says nothing of what came later', () => {
  expect(read({ ...base, version: 1 })).toMatchObject({ ok: true, lines: [{ told: null }], head: { water: null, method: null, part: null } })
  expect(read({ ...base, version: 1, water: { tempC: 24 } })).toMatchObject({ ok: false, errors: [{ path: 'water', message: 'Version 1 of a packing list has no "water"; it comes with version 2' }] })
  expect(read({ ...base, version: 1, lines: [{ ...base.lines[0], lastFedOn: '2031-05-03' }] })).toMatchObject({ ok: false, errors: [{ path: 'lines[0].lastFedOn', row: 1 }] })
})

test('version 2 tells the water, the way, the hold and the agents', () => {
  const line = { ...base.lines[0], held: { days: 14, of: 14, school: 'shop hold' }, agents: [{ agent: 'copper', lastOn: '2031-04-20' }], lastFedOn: '2031-05-03' }
  expect(read({ ...base, version: 2, part: { n: 1, of: 2 }, water: { tempC: 24.5, ph: 7.4 }, method: 'net over', lines: [line] })).toMatchObject({
    ...{ ok: true, lines: [{ told: { held: { days: 14, of: 14 }, agents: [{ agent: 'copper' }], lastFedOn: '2031-05-03' } }] },
    head: { water: { tempC: 24.5, ph: 7.4 }, method: 'net over', part: { n: 1, of: 2 } },
  })
  expect(read({ ...base, version: 2, water: { tempC: 90 } })).toMatchObject({ ok: false })
  expect(read({ ...base, version: 3 })).toMatchObject({ ok: false })
  expect(read({ ...base, version: 2, lines: [{ ...line, lastFedOn: 'yesterday' }] })).toMatchObject({ ok: false })
})

const words = fc.string({ minLength: 1, maxLength: 30 }).map((text) => text.replace(/[\p{Cc}\p{Cs}]/gu, '').trim() || 'x')
const day = fc.integer({ min: 1, max: 28 }).map((n) => `2031-04-${String(n).padStart(2, '0')}`)
const line: fc.Arbitrary<CardLine> = fc.record({
  ...{ species: words, count: fc.integer({ min: 1, max: 500 }), bags: fc.constant(1) },
  strain: fc.option(words),
  origin: fc.option(fc.constantFrom('wild', 'captive bred', 'unknown')),
  sizeCm: fc.option(fc.integer({ min: 1, max: 40 })),
  ateBefore: fc.option(words),
  held: fc.option(fc.record({ days: fc.nat({ max: 60 }), of: fc.nat({ max: 60 }), school: fc.option(words) })),
  agents: fc.array(fc.record({ agent: words, lastOn: fc.option(day) }), { maxLength: 3 }),
  lastFedOn: fc.option(day),
})

test('the codes of a card hold every line once, and each is read by the reader as a list of its own', () => {
  fc.assert(
    fc.property(words, fc.array(line, { minLength: 1, maxLength: 8 }), fc.option(words), fc.option(words), (room, lines, method, note) => {
      const card = takeAlongCard({ room, packedAt: '2031-05-04T09:20:00Z', packedLocal: '4 May', water: { tempC: 24.54, salinityPpt: null }, lines, method, note })
      const parts = card.codes.map(({ text }) => readPackingListJson(text))
      const read = parts.flatMap((part) => (part.ok ? part.lines : []))
      expect(read.map(({ species, count }) => [species, count])).toEqual(lines.map(({ species, count }) => [species, count]))
      expect(card.codes.every(({ bytes, text }) => bytes === text.length && /^[\x20-\x7e]*$/.test(text))).toBe(true)
      expect(parts.map((part) => (part.ok ? (part.head?.part?.n ?? 1) : 0))).toEqual(parts.map((_, index) => index + 1))
      // Never left out: the water, what they were held and what stood in their water.
      expect(read.map(({ told }) => told?.held?.days ?? null)).toEqual(lines.map(({ held }) => held?.days ?? null))
      expect(read.map(({ told }) => told?.agents?.length ?? 0)).toEqual(lines.map(({ agents }) => agents?.length ?? 0))
      expect(parts.every((part) => part.ok && part.head?.water?.tempC === 24.54)).toBe(true)
      expect(readPackingListJson(JSON.stringify(card.json))).toMatchObject({ ok: true })
    }),
    { numRuns: tries(2000, 400) },
  )
})
