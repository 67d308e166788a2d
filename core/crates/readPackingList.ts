import { bounds } from '../fields/fields.schema'
import type { FieldError } from '../problem/problem'
import { splitIntoBags } from './splitIntoBags'

/** Columns of a packing list as CSV; see docs/formats.md. */
export const listColumns = ['species', 'count', 'bags', 'per bag', 'tank'] as const
type Column = (typeof listColumns)[number]

export interface ReadLine {
  /** Row in the file, the heading being row 1. */
  row: number
  species: string
  count: number
  bags: number
  perBag: number | null
  tankId: string | null
}
export type ReadList = { ok: true; lines: ReadLine[]; notices: string[] } | { ok: false; errors: FieldError[] }

/**
 * Reads the rows of a packing list into lines, or says by row and column what stands in the way. Nothing is guessed:
 * a list with one bad cell gives no lines at all.
 * @param rows - cells by row as they stand in the file, heading first; rows without any content are passed over.
 * @param tankIds - id of every tank by its code, codes in upper case.
 */
export function readPackingList(rows: readonly (readonly string[])[], tankIds: ReadonlyMap<string, string>): ReadList {
  const heading = rows[0]?.map(normalise) ?? []
  const missing = (['species', 'bags'] as const).filter((column) => !heading.includes(column))
  const twice = listColumns.filter((column) => heading.filter((each) => each === column).length > 1)
  const headingErrors = [
    ...missing.map((column) => errorAt(1, column, `The heading has no column "${column}". The first row must name the columns: ${listColumns.join(', ')}`)),
    ...twice.map((column) => errorAt(1, column, `The heading names the column "${column}" twice`)),
  ]
  if (headingErrors.length > 0) return { ok: false, errors: headingErrors }

  const errors: FieldError[] = []
  const lines: ReadLine[] = []
  rows.slice(1).forEach((cells, index) => {
    if (cells.every((cell) => cell.trim() === '')) return
    const line = readRow(index + 2, heading, cells, tankIds, errors)
    if (line) lines.push(line)
  })
  if (lines.length === 0 && errors.length === 0) errors.push(errorAt(2, 'species', 'The list has a heading but no line'))
  if (lines.length > 200) errors.push(errorAt(202, 'species', `A list may have at most 200 lines; this one has ${lines.length}`))
  const bags = lines.reduce((sum, line) => sum + line.bags, 0)
  if (bags > bounds.bagsInCrate) errors.push(errorAt(1, 'bags', `A crate may have at most ${bounds.bagsInCrate} bags; this list has ${bags}`))
  if (errors.length > 0) return { ok: false, errors }
  const ignored = heading.filter((column) => column !== '' && !listColumns.includes(column as Column))
  return { ok: true, lines, notices: ignored.map((column) => `The column "${column}" was not read.`) }
}

const normalise = (cell: string): string => cell.trim().toLowerCase().replace(/[\s_-]+/g, ' ')
const errorAt = (row: number, column: Column, message: string): FieldError => ({ path: `row ${row}, ${column}`, row, column, message })

function readRow(row: number, heading: string[], cells: readonly string[], tankIds: ReadonlyMap<string, string>, errors: FieldError[]): ReadLine | null {
  const before = errors.length
  const complain = (column: Column, message: string): void => void errors.push(errorAt(row, column, message))
  const cell = (column: Column): string => cells[heading.indexOf(column)]?.trim() ?? ''
  if (cells.length > heading.length) complain('species', `Row ${row} has ${cells.length} cells under ${heading.length} headings; a comma inside a name needs quotes around it`)

  const species = cell('species')
  if (!species) complain('species', `Row ${row} names no species`)
  if (species.length > bounds.name) complain('species', `The name in row ${row} is longer than ${bounds.name} characters`)
  if (/[\u0000-\u001f\u007f]/.test(species)) complain('species', `The name in row ${row} holds a character that cannot be kept`)

  const bags = readCount(cell('bags'), bounds.bagsInCrate, (why) => complain('bags', `Bags in row ${row} ${why}`))
  const perBag = cell('per bag') === '' ? null : readCount(cell('per bag'), bounds.fishInBag, (why) => complain('per bag', `Per bag in row ${row} ${why}`))
  const listed = cell('count') === '' ? null : readCount(cell('count'), bounds.fishInLine, (why) => complain('count', `Count in row ${row} ${why}`))
  if (cell('count') === '' && cell('per bag') === '') complain('count', `Row ${row} needs a count, or fish per bag`)

  const code = cell('tank')
  const tankId = code === '' ? null : (tankIds.get(code.toUpperCase()) ?? null)
  if (code !== '' && tankId === null) complain('tank', `There is no tank ${code.slice(0, 40)} in this room (row ${row})`)
  if (errors.length > before || bags === null) return null

  const count = listed ?? (perBag ?? 0) * bags
  if (count > bounds.fishInLine) complain('count', `Row ${row} comes to ${count} fish; a line may have at most ${bounds.fishInLine}`)
  const split = splitIntoBags(count, bags, perBag)
  if (!split.ok) complain('per bag', `Row ${row}: ${split.reason}`)
  return errors.length > before ? null : { row, species, count, bags, perBag, tankId }
}

function readCount(cell: string, max: number, complain: (why: string) => void): number | null {
  const shown = cell.slice(0, 40)
  if (cell === '') complain('is empty')
  else if (/^-\d+$/.test(cell)) complain(`is below zero ("${shown}")`)
  else if (!/^\d{1,9}$/.test(cell)) complain(`must be a whole number, not "${shown}"`)
  else if (Number(cell) === 0) complain('is 0; leave the row out instead')
  else if (Number(cell) > max) complain(`is above ${max}`)
  else return Number(cell)
  return null
}
