import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { identities, origins } from '../setup/words'
import { guessMapping, headingKey, identityOf, mappingProblem, originOf } from './listMapping'
import { readPackingListJson } from './packingListFile'
import { packingListFormat } from './packingListName'
import { readPackingList } from './readPackingList'
import { tries } from '../testing/tries'

const words = fc.string({ minLength: 1, maxLength: 30 }).filter((text) => text.trim() !== '' && !/[\u0000-\u001f\u007f]/.test(text))
const maybe = <T>(value: fc.Arbitrary<T>): fc.Arbitrary<T | null> => fc.option(value, { nil: null })
const line = fc
  .record({ species: words, bags: fc.integer({ min: 1, max: 12 }), perBag: fc.integer({ min: 1, max: 40 }), origin: maybe(fc.constantFrom(...origins)), strain: maybe(words), identity: maybe(fc.constantFrom(...identities)), promisedTo: maybe(words), note: maybe(words) })
  .map((each) => ({ ...each, count: each.bags * each.perBag }))

describe('a packing list as JSON', () => {
  test('good lines come out as they went in', () => {
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 20 }), (lines) => {
        const read = readPackingListJson(JSON.stringify({ format: packingListFormat, version: 1, lines }))
        expect(read).toMatchObject({ ok: true, lines: lines.map((each, index) => ({ ...each, row: index + 1, tankId: null })) })
      }),
    )
  })
  test('whatever else comes, it is refused by line and never throws', () => {
    fc.assert(
      fc.property(fc.oneof(fc.json(), fc.string(), line.map((each) => JSON.stringify({ format: packingListFormat, version: 1, lines: [{ ...each, count: -1 }] }))), (text) => {
        const read = readPackingListJson(text)
        return read.ok || (read.errors.length > 0 && read.errors.every(({ message, row }) => message.length > 5 && (row ?? 0) >= 1))
      }),
      { numRuns: tries(2000) },
    )
  })
  test('what may be left out counts as not said; moments become times', () => {
    const read = readPackingListJson(JSON.stringify({ format: packingListFormat, version: 1, supplier: 'Hollow Reed', packedAt: '2031-05-04T09:00:00Z', lines: [{ species: 'Cherry barb', count: 8, bags: 1 }] }))
    expect(read).toMatchObject({ ok: true, head: { supplier: 'Hollow Reed', packedAtMs: Date.UTC(2031, 4, 4, 9), expectedAtMs: null }, lines: [{ origin: null, promisedTo: null }] })
    expect(readPackingListJson(JSON.stringify({ format: packingListFormat, version: 1, packedAt: 'soon', lines: [{ species: 'X', count: 1, bags: 1 }] }))).toMatchObject({ ok: false, errors: [{ path: 'packedAt' }] })
  })
})

describe('columns', () => {
  test.each([
    [['Species', 'Count', 'Bags'], { species: 0, count: 1, bags: 2 }],
    [['Item', 'QTY', 'boxes', 'Remarks'], { species: 0, count: 1, bags: 2, note: 3 }],
    [['name', 'species', 'bag'], { species: 1, bags: 2 }],
    [['per_bag', 'PER BAG', 'fish'], { species: 2, 'per bag': 0 }],
    [['', 'unknown'], {}],
  ])('%j is read as %j', (heading, mapping) => expect(guessMapping(heading)).toEqual(mapping))

  test('no column is ever given two meanings', () => {
    fc.assert(
      fc.property(fc.array(fc.oneof(fc.constantFrom('species', 'fish', 'count', 'qty', 'bags', 'per bag', 'note', 'tank', 'origin', 'source', 'promised'), fc.string()), { maxLength: 12 }), (heading) => {
        const used = Object.values(guessMapping(heading))
        return new Set(used).size === used.length && used.every((column) => column >= 0 && column < heading.length)
      }),
      { numRuns: tries(2000) },
    )
  })
  test('what a mapping still lacks is said', () => {
    expect(mappingProblem({ species: 0, bags: 1 }, 2)).toBeNull()
    expect([mappingProblem({ bags: 1 }, 2), mappingProblem({ species: 0 }, 2), mappingProblem({ species: 0, bags: 0 }, 2), mappingProblem({ species: 0, bags: 5 }, 2)]).toEqual(['Say which column names the species', 'Say which column counts the bags, or the fish', 'One column cannot hold two things; choose another one', 'The list has fewer columns than were named'])
    expect(headingKey(['Item ', 'QTY', 'no-of_bags'])).toBe('item|qty|no of bags')
  })
  test('origins and certainties in the words of a list', () => {
    expect([originOf('Wild caught'), originOf('CB'), originOf('pond'), originOf('moon'), identityOf(' Likely '), identityOf('maybe')]).toEqual(['wild', 'captive bred', 'pond raised', undefined, 'likely', undefined])
  })
  test('a mapping of one’s own reads any heading', () => {
    const read = readPackingList([['a', 'b', 'c', 'd'], ['3', 'Cherry barb', '24', 'wild']], new Map(), { species: 1, bags: 0, count: 2, origin: 3 })
    expect(read).toMatchObject({ ok: true, lines: [{ species: 'Cherry barb', bags: 3, count: 24, origin: 'wild' }], notices: [] })
  })
})
