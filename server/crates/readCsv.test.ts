import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { readPackingList } from '../../core/crates/readPackingList'
import { Problem } from '../http/problem'
import { readCsv } from './readCsv'
import { tries } from '../../core/testing/tries'

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text)

describe('readCsv', () => {
  test('any bytes give rows or a problem that names a row, never another error', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 400 }), (bytes) => {
        try {
          expect(Array.isArray(readCsv(bytes))).toBe(true)
        } catch (error) {
          expect(error).toBeInstanceOf(Problem)
          expect((error as Problem).extra.errors?.[0]).toMatchObject({ row: expect.any(Number), column: 'species' })
        }
      }),
      { numRuns: tries(2000) },
    )
  })

  const cell = fc.string({ minLength: 1, maxLength: 12, unit: fc.constantFrom(...'aé, ;"\n\t8-') })
  test.each([',', ';', '\t'])('cells survive quoting with %j between them', (separator) => {
    const quoted = (text: string): string => `"${text.replaceAll('"', '""')}"`
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 6 }), (rows) => {
        const heading = ['species', 'bags'].join(separator)
        const text = [heading, ...rows.map((row) => row.map(quoted).join(separator))].join('\r\n')
        expect(readCsv(bytesOf(text)).slice(1)).toEqual(rows)
      }),
    )
  })
})

describe('readPackingList', () => {
  const name = fc.string({ minLength: 1, maxLength: 30 }).filter((text) => text.trim().length > 0 && !/[\u0000-\u001f\u007f]/.test(text))
  const line = fc.record({ species: name, bags: fc.integer({ min: 1, max: 5 }), perBag: fc.integer({ min: 1, max: 40 }), tank: fc.constantFrom('', 'R1-01', 'r1-02') })
  const tanks = new Map([
    ['R1-01', 'a'],
    ['R1-02', 'b'],
  ])

  test('a good list comes out as it went in', () => {
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 40 }), (lines) => {
        const rows = [['Species', 'BAGS', 'per_bag', 'count', 'Tank'], ...lines.map((each) => [each.species, String(each.bags), String(each.perBag), String(each.bags * each.perBag), each.tank])]
        expect(readPackingList(rows, tanks)).toEqual({
          ok: true,
          notices: [],
          lines: lines.map((each, index) => ({ row: index + 2, species: each.species.trim(), count: each.bags * each.perBag, bags: each.bags, perBag: each.perBag, tankId: tanks.get(each.tank.toUpperCase()) ?? null, origin: null, strain: null, identity: null, promisedTo: null, billed: null, sizeCm: null, priceEach: null, capture: null, ateBefore: null, note: null, told: null })),
        })
      }),
    )
  })

  test('one bad cell anywhere spoils the whole list, and is named where it stands', () => {
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 12 }), fc.nat(), fc.constantFrom('two', '-1', '1.5', '0', '', '=1+1', '9'.repeat(9)), (lines, where, bad) => {
        const at = where % lines.length
        const rows = [['species', 'bags', 'per bag'], ...lines.map((each, index) => [each.species, index === at ? bad : String(each.bags), String(each.perBag)])]
        const read = readPackingList(rows, tanks)
        expect(read).toMatchObject({ ok: false, errors: [{ row: at + 2, column: 'bags' }] })
      }),
    )
  })

  test('any cells whatever give lines or sentences', () => {
    fc.assert(
      fc.property(fc.array(fc.array(fc.string({ maxLength: 8 }), { maxLength: 6 }), { maxLength: 12 }), fc.boolean(), (rows, hasHeading) => {
        const read = readPackingList(hasHeading ? [['species', 'count', 'bags', 'per bag', 'tank'], ...rows] : rows, tanks)
        if (read.ok) expect(read.lines.every(({ count, bags }) => count >= bags && bags >= 1)).toBe(true)
        else expect(read.errors.every(({ message, row }) => message.length > 0 && (row ?? 0) >= 1)).toBe(true)
      }),
      { numRuns: 1000 },
    )
  })
})
