import { ValidationError } from 'yup'
import type { FieldError } from '../problem/problem'
import { registers, type RegisterField, type RegisterName, type RegisterRow, type RegisterValue, type RegisterValues } from './registers'
import { nameKey } from '../words/nameKey'
import { baseUnitOf, registerValuesSchema } from './registerSchema'

/** A row of a file beside what the room holds. */
export interface PreviewRow {
  /** Row in the file, the heading being row 1. */
  row: number
  key: string
  change: 'new' | 'changed' | 'same'
  id: string | null
  version: number | null
  values: RegisterValues
  /** Labels of the fields that would change. */
  changes: string[]
}
export type ReadRegister = { ok: true; rows: PreviewRow[]; notices: string[] } | { ok: false; errors: FieldError[] }

/** Ids of rows of other registers by their key, in lower case. */
export type References = Partial<Record<RegisterName, ReadonlyMap<string, string>>>

/** Heading of a field's column: its label, with the unit in which the file holds it. */
export const columnOf = (field: RegisterField): string => {
  const unit = baseUnitOf(field)
  return unit ? `${field.label} (${unit})` : field.label
}

/** Writes rows as cells, heading first. References are written by the key of what they name. */
export function writeRegister(register: RegisterName, rows: readonly RegisterRow[], keyOf: (register: RegisterName, id: string) => string): (string | number)[][] {
  const { fields } = registers[register]
  const cell = (field: RegisterField, value: RegisterValue | undefined): string | number => {
    if (value === null || value === undefined) return ''
    if (field.kind === 'reference') return keyOf(field.register, String(value))
    return Array.isArray(value) ? value.join('; ') : value
  }
  return [[...fields.map(columnOf), 'retired'], ...rows.map((row) => [...fields.map((field) => cell(field, row.values[field.name])), row.retiredAtMs === null ? '' : 'yes'])]
}

/** A file of an earlier version names some columns otherwise. */
const namesColumn = ({ label, formerLabel }: RegisterField, heading: string): boolean => normalise(label) === heading || (formerLabel !== undefined && normalise(formerLabel) === heading)
const columnIn = (heading: readonly string[], field: RegisterField): number => heading.findIndex((column) => namesColumn(field, column))

const normalise = (heading: string): string => heading.trim().toLowerCase().replace(/\s*\(.*\)$/, '').replace(/[\s_-]+/g, ' ')

/** Rows that a file may bring at once. */
const mostRows = 2000
/** Faults told of one file; with so many, the rest wait. */
const mostFaults = 100

/**
 * Reads the rows of a file against what the room holds, without guessing: one bad cell and nothing is taken in.
 * Columns that a file leaves out keep what is there; rows are matched by their key, case and spacing aside. A row at a
 * time, for whoever has other things to do in between: `readRow` until `isDone`, then `answer`.
 * @param cells - cells by row as they stand in the file, heading first.
 */
export function createRegisterReader(register: RegisterName, cells: readonly (readonly string[])[], known: readonly RegisterRow[], references: References) {
  const { fields, key } = registers[register]
  const heading = (cells[0] ?? []).map(normalise)
  const errors: FieldError[] = headingErrors(register, heading)
  const isReadable = errors.length === 0
  const present = fields.flatMap((field) => {
    const column = columnIn(heading, field)
    return column < 0 ? [] : [{ field, column }]
  })
  const schema = registerValuesSchema(register)
  const byKey = new Map(known.map((row) => [rowKey(register, row.values), row]))
  const rows: PreviewRow[] = []
  const seen = new Map<string, number>()
  const tooMany = cells.slice(1).filter((line) => line.some((cell) => cell.trim() !== '')).length > mostRows
  if (isReadable && tooMany) errors.push({ path: `row ${mostRows + 2}`, row: mostRows + 2, column: fields[0]?.label ?? '', message: `At most ${mostRows.toLocaleString('en')} rows at once; this file has more. Split it` })

  function readRow(index: number): void {
    const line = cells[index] ?? []
    if (line.every((cell) => cell.trim() === '')) return
    const row = index + 1
    const before = errors.length
    const complain = (field: RegisterField, message: string): void => void errors.push({ path: `row ${row}, ${field.label}`, row, column: field.label, message })
    if (line.length > heading.length) complain(fields[0] as RegisterField, `Row ${row} has ${line.length} cells under ${heading.length} headings; a comma inside a cell needs quotes around it`)
    const read: RegisterValues = {}
    for (const { field, column } of present) read[field.name] = readCell(field, unescapeFormula(line[column]?.trim() ?? ''), references, (why) => complain(field, `Row ${row}: ${why}`))
    if (errors.length > before) return
    const old = byKey.get(rowKey(register, read))
    const values = { ...(old?.values ?? emptyValues(fields)), ...read }
    errors.push(...valueErrors(register, schema, values, row))
    const twin = seen.get(rowKey(register, values))
    if (twin) complain(fields.find((field) => field.name === key) as RegisterField, `Row ${row} names the same ${registers[register].one} as row ${twin}; leave one of them out`)
    seen.set(rowKey(register, values), row)
    const changes = old ? fields.filter((field) => JSON.stringify(old.values[field.name] ?? null) !== JSON.stringify(values[field.name] ?? null)).map((field) => field.label) : []
    rows.push({ row, key: String(values[key] ?? ''), change: !old ? 'new' : changes.length > 0 ? 'changed' : 'same', id: old?.id ?? null, version: old?.version ?? null, values, changes })
  }

  return {
    /** Whether there is nothing to read from this row on; the heading is row 0. */
    isDone: (index: number): boolean => !isReadable || tooMany || index >= cells.length || errors.length >= mostFaults,
    readRow,
    answer(): ReadRegister {
      if (isReadable && rows.length === 0 && errors.length === 0) errors.push({ path: `row 2, ${fields[0]?.label}`, row: 2, column: fields[0]?.label ?? '', message: 'The file has a heading but no row under it' })
      if (errors.length > 0) return { ok: false, errors: errors.slice(0, mostFaults) }
      const ignored = heading.filter((column) => column !== '' && column !== 'retired' && !fields.some((field) => namesColumn(field, column)))
      return { ok: true, rows, notices: ignored.map((column) => `The column "${column}" was not read.`) }
    },
  }
}

function headingErrors(register: RegisterName, heading: readonly string[]): FieldError[] {
  const { fields, key } = registers[register]
  const needed = fields.filter((field) => field.name === key || field.name === registers[register].keyWithin)
  const at = (column: string, message: string): FieldError => ({ path: `row 1, ${column}`, row: 1, column, message })
  return [
    ...needed.filter((field) => !heading.includes(normalise(field.label))).map((field) => at(field.label, `The heading has no column "${field.label}". The first row must name the columns, of: ${fields.map((each) => each.label).join(', ')}`)),
    ...fields.filter((field) => heading.filter((each) => each === normalise(field.label)).length > 1).map((field) => at(field.label, `The heading names the column "${field.label}" twice; leave one of them out`)),
  ]
}

/** What rows are matched by. */
export function rowKey(register: RegisterName, values: RegisterValues): string {
  const { key, keyWithin } = registers[register]
  const plain = nameKey(String(values[key] ?? ''))
  return keyWithin ? `${String(values[keyWithin] ?? '')}/${plain}` : plain
}

/** A row with nothing filled in. */
export const emptyValues = (fields: readonly RegisterField[]): RegisterValues => Object.fromEntries(fields.map((field) => [field.name, field.kind === 'choices' ? [] : null]))

/**
 * Cells that a spreadsheet would take for a formula, and those that look like one made harmless already. They are written
 * with one more quote mark before them, which is no part of the text. Some spreadsheets take the full-width signs of East
 * Asian keyboards for the narrow ones.
 */
export const formulaLike = /^'*[=+\-@\t\r＝＋－＠][^]*$/
const unescapeFormula = (cell: string): string => (/^'+[=+\-@\t\r＝＋－＠]/.test(cell) ? cell.slice(1) : cell)

/** The option a word means, whatever its case. */
const optionOf = (options: readonly string[], word: string): string | undefined => options.find((option) => option.toLowerCase() === word.toLowerCase())

function readCell(field: RegisterField, cell: string, references: References, complain: (why: string) => void): RegisterValue {
  const shown = cell.slice(0, 40)
  if (field.kind === 'choices') {
    const typed = cell === '' ? [] : cell.split(';').map((word) => word.trim()).filter(Boolean)
    const words = typed.map((word) => optionOf(field.options, word) ?? word)
    const strange = words.find((word) => !field.options.includes(word))
    if (strange && field.moved?.words.includes(strange)) complain(`"${strange}" does not stand under ${field.label} any more: ${field.moved.remedy}`)
    else if (strange) complain(`${field.label} may hold ${field.options.join(', ')}, separated by semicolons; not "${strange.slice(0, 40)}"`)
    return words
  }
  if (cell === '') return null
  if (field.kind === 'text') return field.name === 'code' ? cell.toUpperCase() : cell
  if (field.kind === 'reference') {
    const id = references[field.register]?.get(nameKey(cell))
    if (!id) complain(`there is no ${registers[field.register].one} called "${shown}"; add it first, or correct the name`)
    return id ?? null
  }
  if (field.kind === 'choice') {
    const word = optionOf(field.options, cell)
    if (!word) complain(`${field.label} must be one of ${field.options.join(', ')}; not "${shown}"`)
    return word ?? null
  }
  const figure = /^[+-]?\d*([.,]\d+)?$/.test(cell) ? Number(cell.replace(',', '.')) : NaN
  if (!Number.isFinite(figure)) complain(`${field.label} must be a number, without its unit; not "${shown}"`)
  return Number.isFinite(figure) ? figure : null
}

/** Says by row and column what a schema has against the values of a row. */
function valueErrors(register: RegisterName, schema: ReturnType<typeof registerValuesSchema>, values: RegisterValues, row: number): FieldError[] {
  try {
    schema.validateSync(values, { strict: true, abortEarly: false, disableStackTrace: true })
    return []
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    return error.inner.map((inner) => {
      const column = registers[register].fields.find((field) => field.name === inner.path)?.label ?? registers[register].key
      return { path: `row ${row}, ${column}`, row, column, message: `Row ${row}: ${inner.message}` }
    })
  }
}
