import Papa from 'papaparse'
import type { FieldError } from '../../core/problem/problem'
import { Problem } from '../http/problem'

/** Rows that are looked at; no list of ours is allowed so many, and what is longer is refused by its count. */
const mostRows = 5000
const mostCells = 100

/**
 * Reads the bytes of a CSV file into rows of cells. Takes UTF-8 with or without byte-order mark, and Windows-1252 as
 * office programs write it; the separator may be a comma, a semicolon or a tab.
 * @throws Problem `invalid-input` with row and remedy when the file is empty, is no text, or its quotes do not close.
 */
export function readCsv(bytes: Uint8Array): string[][] {
  const text = decode(bytes)
  if (text.trim() === '') throw listProblem([{ path: 'row 1, species', row: 1, column: 'species', message: 'The list is empty' }])
  if (text.includes('\0')) throw listProblem([{ path: 'row 1, species', row: 1, column: 'species', message: 'This is not a text file; save the list as CSV' }])
  const { data, errors } = Papa.parse<string[]>(text, { delimiter: separatorOf(text), skipEmptyLines: false, preview: mostRows })
  const broken = errors.filter((error) => error.type === 'Quotes')
  if (broken.length > 0) throw listProblem(broken.slice(0, 20).map(({ row }) => brokenQuotes((row ?? 0) + 1)))
  const wide = data.findIndex((row) => row.length > mostCells)
  if (wide >= 0) throw listProblem([{ path: `row ${wide + 1}, species`, row: wide + 1, column: 'species', message: `Row ${wide + 1} has ${data[wide]?.length} cells; a list has at most ${mostCells} columns` }])
  return data
}

/** A problem with a list, each error told by row and column. */
export const listProblem = (errors: FieldError[], current?: unknown): Problem => new Problem('invalid-input', errors.length === 1 ? (errors[0]?.message ?? '') : `${errors.length} things in this list need a look; nothing was taken in`, { errors, current })

const brokenQuotes = (row: number): FieldError => ({ path: `row ${row}, species`, row, column: 'species', message: `A quote that opens in or after row ${row} does not close; write quotes inside a cell twice ("")` })

function decode(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return new TextDecoder('windows-1252').decode(bytes)
  }
}

/** The separator that the heading uses most. */
function separatorOf(text: string): string {
  const heading = text.slice(0, text.search(/[\r\n]|$/))
  const count = (separator: string): number => heading.split(separator).length
  return [',', ';', '\t'].sort((a, b) => count(b) - count(a))[0] ?? ','
}
