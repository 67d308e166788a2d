import { bounds } from '../fields/fields.schema'
import type { FieldError } from '../problem/problem'
import type { ToldOfLine } from './told.schema'
import type { LineDetails } from './lineDetails'
import { guessMapping, identityOf, listFields, normaliseHeading, originOf, type ListField, type ListMapping } from './listMapping'
import { splitIntoBags } from './splitIntoBags'

export interface ReadLine extends LineDetails {
  /** Row in the file, the heading being row 1. */
  row: number
  species: string
  count: number
  bags: number
  perBag: number | null
  tankId: string | null
  /** What the sender did with them; null where the list says nothing. */
  told: ToldOfLine | null
}
export type ReadList = { ok: true; lines: ReadLine[]; notices: string[] } | { ok: false; errors: FieldError[] }

/** Lines that a list may have. */
const mostLines = 200

/**
 * Reads the rows of a packing list into lines, or says by row and column what stands in the way. Nothing is guessed
 * about the content: a list with one bad cell gives no lines at all.
 * @param rows - cells by row as they stand in the file, heading first; rows without any content are passed over.
 * @param tankIds - id of every tank by its code, codes in upper case.
 * @param mapping - which column holds what; null takes it from the words in the heading.
 */
export function readPackingList(rows: readonly (readonly string[])[], tankIds: ReadonlyMap<string, string>, mapping: ListMapping | null = null): ReadList {
  const filled = rows.slice(1).filter((cells) => cells.some((cell) => cell.trim() !== '')).length
  if (filled > mostLines) return { ok: false, errors: [errorAt(mostLines + 2, 'species', `A list may have at most ${mostLines} lines; this one has ${filled}`)] }
  const heading = rows[0]?.map(normaliseHeading) ?? []
  const columns = mapping ?? guessMapping(heading)
  const headingErrors = [...missingColumns(columns), ...(mapping ? [] : doubledColumns(heading))]
  if (headingErrors.length > 0) return { ok: false, errors: headingErrors }

  const errors: FieldError[] = []
  const lines: ReadLine[] = []
  rows.slice(1).forEach((cells, index) => {
    if (cells.every((cell) => cell.trim() === '')) return
    const line = readRow({ row: index + 2, width: heading.length, cells, columns, tankIds, errors })
    if (line) lines.push(line)
  })
  if (lines.length === 0 && errors.length === 0) errors.push(errorAt(2, 'species', 'The list has a heading but no line'))
  const bags = lines.reduce((sum, line) => sum + line.bags, 0)
  if (bags > bounds.bagsInCrate) errors.push(errorAt(1, 'bags', `A crate may have at most ${bounds.bagsInCrate} bags; this list has ${bags}`))
  if (errors.length > 0) return { ok: false, errors }
  const used = Object.values(columns)
  const ignored = heading.filter((column, index) => column !== '' && !used.includes(index))
  return { ok: true, lines, notices: ignored.map((column) => `The column "${column}" was not read.`) }
}

const missingColumns = (columns: ListMapping): FieldError[] =>
  (['species', 'bags'] as const)
    .filter((column) => columns[column] === undefined)
    .map((column) => errorAt(1, column, `The heading has no column "${column}". The first row must name the columns (${listFields.join(', ')}), or say below which column it is`))

const doubledColumns = (heading: string[]): FieldError[] =>
  listFields.filter((column) => heading.filter((each) => each === column).length > 1).map((column) => errorAt(1, column, `The heading names the column "${column}" twice`))

const errorAt = (row: number, column: ListField, message: string): FieldError => ({ path: `row ${row}, ${column}`, row, column, message })

interface Row {
  row: number
  /** Cells that the heading has. */
  width: number
  cells: readonly string[]
  columns: ListMapping
  tankIds: ReadonlyMap<string, string>
  errors: FieldError[]
}

function readRow({ row, width, cells, columns, tankIds, errors }: Row): ReadLine | null {
  const before = errors.length
  const complain = (column: ListField, message: string): void => void errors.push(errorAt(row, column, message))
  const cell = (column: ListField): string => cells[columns[column] ?? -1]?.trim() ?? ''
  if (cells.length > width) complain('species', `Row ${row} has ${cells.length} cells under ${width} headings; a comma inside a name needs quotes around it`)

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
  const details = readDetails(row, cell, complain)
  if (errors.length > before || bags === null) return null

  const count = listed ?? (perBag ?? 0) * bags
  if (count > bounds.fishInLine) complain('count', `Row ${row} comes to ${count} fish; a line may have at most ${bounds.fishInLine}`)
  const split = splitIntoBags(count, bags, perBag)
  if (!split.ok) complain('per bag', `Row ${row}: ${split.reason}`)
  return errors.length > before ? null : { row, species, count, bags, perBag, tankId, ...details, told: null }
}

function readDetails(row: number, cell: (column: ListField) => string, complain: (column: ListField, message: string) => void) {
  const words = (column: 'strain' | 'promised to' | 'capture' | 'seen eating' | 'note', max: number): string | null => {
    if (cell(column).length > max) complain(column, `The ${column} in row ${row} is longer than ${max} characters`)
    if (/[\u0000-\u001f\u007f]/.test(cell(column))) complain(column, `The ${column} in row ${row} holds a character that cannot be kept`)
    return cell(column) || null
  }
  const [origin, identity] = [originOf(cell('origin')), identityOf(cell('identity'))]
  if (cell('origin') !== '' && !origin) complain('origin', `Origin in row ${row} must be wild, captive bred, pond raised or unknown, not "${cell('origin').slice(0, 40)}"`)
  if (cell('identity') !== '' && !identity) complain('identity', `Identity in row ${row} must be sure, likely or doubtful, not "${cell('identity').slice(0, 40)}"`)
  const billed = cell('billed') === '' ? null : readCount(cell('billed'), bounds.fishInLine, (why) => complain('billed', `Billed in row ${row} ${why}`))
  const measure = (column: 'size cm' | 'price', min: number, max: number): number | null => readMeasure(cell(column), min, max, (why) => complain(column, `${column === 'price' ? 'Price' : 'Size'} in row ${row} ${why}`))
  return {
    ...{ origin: origin ?? null, identity: identity ?? null, strain: words('strain', bounds.name), promisedTo: words('promised to', bounds.name), billed, sizeCm: measure('size cm', 0.2, 200), priceEach: measure('price', 0, 1_000_000) },
    ...{ capture: words('capture', bounds.name), ateBefore: words('seen eating', bounds.name), note: words('note', bounds.note) },
  }
}

// A decimal comma is read only where nothing else could be meant; a unit in the cell is refused, because lists mix them.
function readMeasure(cell: string, min: number, max: number, complain: (why: string) => void): number | null {
  if (cell === '') return null
  const value = /^\d{1,9}([.,]\d{1,4})?$/.test(cell) ? Number(cell.replace(',', '.')) : null
  if (value === null) complain(`must be a plain number without its unit, not "${cell.slice(0, 40)}"`)
  else if (value < min) complain(`is below ${min}`)
  else if (value > max) complain(`is above ${max}`)
  else return value
  return null
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
