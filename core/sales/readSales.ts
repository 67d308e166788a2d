import { bounds } from '../fields/fields.schema'
import { normaliseHeading } from '../crates/listMapping'
import type { FieldError } from '../problem/problem'

/** What a till's list says of each thing sold. */
export const saleFields = ['item', 'count', 'day', 'receipt'] as const
export type SaleField = (typeof saleFields)[number]
/** Which column (by number from 0) holds which field. */
export type SaleMapping = Partial<Record<SaleField, number>>

const otherNames: Record<SaleField, readonly string[]> = {
  item: ['code', 'name', 'article', 'product', 'species', 'description', 'sku'],
  count: ['quantity', 'qty', 'number', 'pcs', 'pieces', 'sold'],
  day: ['date', 'time', 'when', 'sold on', 'timestamp'],
  receipt: ['receipt number', 'receipt no', 'invoice', 'sale', 'transaction', 'bill'],
}

/** One thing sold, as it stands in the list. */
export interface SoldRow {
  /** Row in the file, the heading being row 1. */
  row: number
  item: string
  count: number
  /** Calendar day. */
  on: string
  receipt: string | null
  /** By this it is known again: the same sale is never booked twice. */
  key: string
}
export type ReadSales = { ok: true; rows: SoldRow[] } | { ok: false; errors: FieldError[] }

const mostRows = 2000

/** Guesses from the words in the heading which column holds what. */
export function guessSaleMapping(heading: readonly string[]): SaleMapping {
  const words = heading.map(normaliseHeading)
  return Object.fromEntries(saleFields.flatMap((field) => {
    const at = [field, ...otherNames[field]].map((name) => words.indexOf(name)).find((index) => index >= 0)
    return at === undefined ? [] : [[field, at]]
  }))
}

/** Says what a mapping still lacks; null when it is enough. */
export function saleMappingProblem(mapping: SaleMapping): string | null {
  const used = Object.values(mapping)
  if (new Set(used).size !== used.length) return 'One column cannot hold two things; choose another one'
  if (mapping.item === undefined) return 'Say which column names what was sold'
  return mapping.count === undefined ? 'Say which column counts the fish' : null
}

/**
 * Reads the list of a till. With one bad cell nothing is read; each fault is told by row.
 * @param rows - cells by row, heading first.
 * @param on - day of sales whose row names none.
 */
export function readSales(rows: readonly (readonly string[])[], mapping: SaleMapping, on: string): ReadSales {
  const problem = saleMappingProblem(mapping)
  if (problem) return { ok: false, errors: [errorAt(1, 'item', problem)] }
  if (rows.length > mostRows) return { ok: false, errors: [errorAt(mostRows + 1, 'item', `A list may have at most ${mostRows} rows; take it in by the day`)] }
  const errors: FieldError[] = []
  const met = new Map<string, number>()
  const sold = rows.slice(1).flatMap((cells, index): SoldRow[] => {
    if (cells.every((cell) => cell.trim() === '')) return []
    const row = index + 2
    const cell = (field: SaleField): string => (cells[mapping[field] ?? -1] ?? '').trim()
    const complain = (field: SaleField, message: string): void => void errors.push(errorAt(row, field, message))
    const before = errors.length
    if (cell('item') === '') complain('item', `Row ${row} does not say what was sold`)
    else if (cell('item').length > bounds.name || /[\u0000-\u001f\u007f]/.test(cell('item'))) complain('item', `What was sold in row ${row} cannot be kept: at most ${bounds.name} plain characters`)
    const count = readCount(cell('count'), (why) => complain('count', `Count in row ${row} ${why}`))
    const day = cell('day') === '' ? on : dayOf(cell('day'))
    if (day === null) complain('day', `Day in row ${row} must be like 2031-05-04 or 4.5.2031, not "${cell('day').slice(0, 40)}"`)
    const receipt = cell('receipt').slice(0, bounds.name) || null
    if (errors.length > before || count === null || day === null) return []
    const same = JSON.stringify([receipt ?? day, receipt === null ? '' : day, cell('item').toLowerCase(), count])
    met.set(same, (met.get(same) ?? 0) + 1)
    return [{ row, item: cell('item'), count, on: day, receipt, key: `${same} ${met.get(same)}` }]
  })
  if (sold.length === 0 && errors.length === 0) errors.push(errorAt(2, 'item', 'The list has a heading but no row'))
  return errors.length > 0 ? { ok: false, errors } : { ok: true, rows: sold }
}

const errorAt = (row: number, column: SaleField, message: string): FieldError => ({ path: `row ${row}, ${column}`, row, column, message })

function readCount(cell: string, complain: (why: string) => void): number | null {
  const plain = cell.replace(/[.,]0+$/, '')
  if (cell === '') complain('is empty')
  else if (/^-\d+$/.test(plain)) complain('is below zero: fish that came back are entered by hand')
  else if (!/^\d{1,6}$/.test(plain)) complain(`must be a whole number, not "${cell.slice(0, 40)}"`)
  else if (Number(plain) === 0) complain('is 0; leave the row out')
  else if (Number(plain) > bounds.fishInLine) complain(`is above ${bounds.fishInLine}`)
  else return Number(plain)
  return null
}

/** A day as tills write it, year first or day first; null where it is none. A time behind it is passed over. */
function dayOf(cell: string): string | null {
  const [, y, m, d] = /^(\d{4})-(\d{1,2})-(\d{1,2})(?:[T ].*)?$/.exec(cell) ?? []
  const [, d2, m2, y2] = /^(\d{1,2})[./](\d{1,2})[./](\d{4})(?: .*)?$/.exec(cell) ?? []
  const [year, month, day] = y !== undefined ? [y, m, d] : [y2, m2, d2]
  if (year === undefined || month === undefined || day === undefined) return null
  const on = `${year}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`
  const at = Date.parse(`${on}T00:00:00Z`)
  return !Number.isNaN(at) && new Date(at).toISOString().startsWith(on) ? on : null
}
