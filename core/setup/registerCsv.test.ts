import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import Papa from 'papaparse'
import { columnOf, createRegisterReader, emptyValues, formulaLike, rowKey, writeRegister, type ReadRegister } from './registerCsv'
import { registerNames, registers, type RegisterField, type RegisterName, type RegisterRow, type RegisterValue } from './registers'

function readRegister(...file: Parameters<typeof createRegisterReader>): ReadRegister {
  const reader = createRegisterReader(...file)
  for (let index = 1; !reader.isDone(index); index += 1) reader.readRow(index)
  return reader.answer()
}

const ids: Record<string, string> = { zones: 'zone-1', systems: 'system-1', suppliers: 'supplier-1' }
const references = Object.fromEntries(Object.entries(ids).map(([register, id]) => [register, new Map([[`the ${register}`, id]])]))
const keyOf = (register: RegisterName): string => `The ${register}`

const words = (max: number): fc.Arbitrary<string> => fc.string({ minLength: 1, maxLength: Math.min(max, 20) }).map((text) => text.replace(/[\u0000-\u001f\u007f]/g, '').trim()).filter((text) => text !== '' && !/\s{2}/.test(text))
function valueOf(field: RegisterField): fc.Arbitrary<RegisterValue> {
  const some = (() => {
    switch (field.kind) {
      case 'text':
        return field.pattern ? fc.stringMatching(/^[A-Z][A-Z0-9-]{0,11}$/) : words(field.max)
      case 'whole':
        return fc.integer({ min: field.min, max: field.max })
      case 'measure':
        return fc.integer({ min: Math.ceil(field.min * 10), max: Math.floor(field.max * 10) }).map((tenths) => tenths / 10)
      case 'choice':
        return fc.constantFrom(...field.options)
      case 'choices':
        return fc.subarray([...field.options])
      case 'reference':
        return fc.constant(ids[field.register] ?? '')
    }
  })() as fc.Arbitrary<RegisterValue>
  return field.isRequired || field.kind === 'choices' ? some : fc.option(some, { nil: null })
}
const rowOf = (register: RegisterName): fc.Arbitrary<RegisterRow> =>
  fc.record(Object.fromEntries(registers[register].fields.map((field) => [field.name, valueOf(field)]))).map((values) => {
    // A range that was drawn upside down is turned round.
    for (const low of Object.keys(values).filter((name) => name.endsWith('Min'))) {
      const high = low.replace(/Min$/, 'Max')
      const [a, b] = [values[low], values[high]]
      if (typeof a === 'number' && typeof b === 'number' && a > b) Object.assign(values, { [low]: b, [high]: a })
    }
    return { id: 'row-1', version: 1, retiredAtMs: null, values }
  })

describe.each(registerNames)('%s as a file', (register) => {
  test('what goes out comes in as no change, spreadsheets between or not', () => {
    fc.assert(
      fc.property(rowOf(register), (row) => {
        const csv = Papa.unparse(writeRegister(register, [row], keyOf), { newline: '\r\n', escapeFormulae: formulaLike })
        const cells = Papa.parse<string[]>(csv).data
        expect(readRegister(register, cells, [row], references)).toMatchObject({ ok: true, rows: [{ change: 'same', changes: [], id: 'row-1' }] })
      }),
      { numRuns: 150 },
    )
  })
  test('whatever stands in the cells, it is read or refused by row and column', () => {
    const heading = registers[register].fields.map(columnOf)
    fc.assert(
      fc.property(fc.array(fc.array(fc.oneof(fc.string({ maxLength: 12 }), fc.constantFrom('', '1', '-5', '1e9', 'fresh', '=1+1', 'R1-01')), { maxLength: heading.length + 1 }), { maxLength: 5 }), (rows) => {
        const read = readRegister(register, [heading, ...rows], [], references)
        return read.ok || read.errors.every(({ message, column, row }) => message.length > 5 && column !== undefined && (row ?? 0) >= 1)
      }),
      { numRuns: 300 },
    )
  })
})

test('rows are told apart by what names them, sources within their supplier', () => {
  expect(rowKey('suppliers', { name: '  Pale   HARBOUR ' })).toBe('pale harbour')
  expect(rowKey('sources', { name: 'Ponds', supplierId: 'a' })).not.toBe(rowKey('sources', { name: 'Ponds', supplierId: 'b' }))
  expect(emptyValues(registers.species.fields)).toMatchObject({ name: null, sensitivities: [] })
})

describe('a species file of an earlier version', () => {
  const read = (rows: string[][]) => readRegister('species', rows, [], references)
  test('its column of the water is still read', () => expect(read([['name', 'water'], ['Moonfish', 'marine']])).toMatchObject({ ok: true, notices: [], rows: [{ values: { name: 'Moonfish', water: 'marine' } }] }))
  test('agents under “sensitive to” are refused with where they stand now', () => {
    const answer = read([['name', 'sensitive to'], ['Moonfish', 'netting; copper']])
    expect(answer.ok ? '' : answer.errors[0]?.message).toBe('Row 2: "copper" does not stand under sensitive to any more: agents have columns of their own now; put "forbidden" there')
  })
})
