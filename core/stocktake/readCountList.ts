import { bounds } from '../fields/fields.schema'
import type { FieldError } from '../problem/problem'
import type { CountTank } from './stocktake.schema'

type CountedTank = Omit<CountTank, 'happenedAtMs'>
export type ReadCounts = { ok: true; tanks: CountedTank[] } | { ok: false; errors: FieldError[] }

const columns = ['tank', 'species', 'count', 'strain', 'source'] as const
type Column = (typeof columns)[number]
/** Words that headings use for them. */
const alsoCalled: Record<Column, readonly string[]> = { tank: ['tank code'], species: ['fish', 'name', 'kind'], count: ['fish count', 'number', 'quantity', 'qty'], strain: ['variety'], source: ['supplier', 'from'] }
const mostRows = 4000

/**
 * Reads a list of what stands where, one row a kind of fish and tank, or says by row and column what stands in the way.
 * A tank with an empty species is empty. Nothing is guessed: with one bad cell nothing is taken in.
 * @param rows - cells by row, heading first; rows without content are passed over.
 * @param tankIds - id of every tank by its code in upper case.
 */
export function readCountList(rows: readonly (readonly string[])[], tankIds: ReadonlyMap<string, string>): ReadCounts {
  const heading = (rows[0] ?? []).map((cell) => cell.trim().toLowerCase().replace(/[\s_-]+/g, ' '))
  const at = (column: Column): number => heading.findIndex((word) => word === column || alsoCalled[column].includes(word))
  const missing = (['tank', 'species', 'count'] as const).filter((column) => at(column) < 0)
  if (missing.length > 0) return { ok: false, errors: missing.map((column) => errorAt(1, column, `The heading has no column "${column}". The first row must name the columns: ${columns.join(', ')}`)) }
  if (rows.length > mostRows) return { ok: false, errors: [errorAt(mostRows + 1, 'tank', `A list may have at most ${mostRows} rows`)] }

  const errors: FieldError[] = []
  const tanks = new Map<string, CountedTank>()
  rows.slice(1).forEach((cells, index) => {
    if (cells.every((cell) => cell.trim() === '')) return
    const row = index + 2
    const cell = (column: Column): string => (at(column) < 0 ? '' : (cells[at(column)] ?? '').trim())
    const complain = (column: Column, message: string): void => void errors.push(errorAt(row, column, message))
    const tankId = tankIds.get(cell('tank').toUpperCase())
    if (tankId === undefined) complain('tank', cell('tank') === '' ? `Row ${row} names no tank` : `There is no tank ${cell('tank').slice(0, 40)} in this room (row ${row})`)
    for (const column of ['species', 'strain', 'source'] as const) {
      if (cell(column).length > bounds.name) complain(column, `The ${column} in row ${row} is longer than ${bounds.name} characters`)
      if (/[\u0000-\u001f\u007f]/.test(cell(column))) complain(column, `The ${column} in row ${row} holds a character that cannot be kept`)
    }
    const isEmpty = cell('species') === '' && (cell('count') === '' || cell('count') === '0')
    if (cell('species') === '' && !isEmpty) complain('species', `Row ${row} names no species`)
    const counted = isEmpty ? 0 : readCount(cell('count'), (why) => complain('count', `Count in row ${row} ${why}`))
    if (tankId === undefined || counted === null) return
    const tank = tanks.get(tankId) ?? { tankId, kinds: [], source: cell('source') || null }
    tanks.set(tankId, { ...tank, source: tank.source ?? (cell('source') || null), kinds: isEmpty ? tank.kinds : [...tank.kinds, { species: cell('species'), strain: cell('strain') || null, counted }] })
  })
  if (tanks.size === 0 && errors.length === 0) errors.push(errorAt(2, 'tank', 'The list has a heading but no row'))
  return errors.length > 0 ? { ok: false, errors } : { ok: true, tanks: [...tanks.values()] }
}

const errorAt = (row: number, column: Column, message: string): FieldError => ({ path: `row ${row}, ${column}`, row, column, message })

function readCount(cell: string, complain: (why: string) => void): number | null {
  if (cell === '') complain('is empty')
  else if (!/^\d{1,9}$/.test(cell)) complain(`must be a whole number, not "${cell.slice(0, 40)}"`)
  else if (Number(cell) > bounds.fishInLine) complain(`is above ${bounds.fishInLine}`)
  else return Number(cell)
  return null
}
