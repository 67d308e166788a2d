import BetterSqlite3 from 'better-sqlite3'

export type Raw = BetterSqlite3.Database
type Statement = BetterSqlite3.Statement

/** A value was about to be bound that the driver cannot take. The request that brought it is at fault, or our validation. */
export class UnbindableError extends TypeError {}

/**
 * Opens a connection that waits while others hold its file: a program that is just closing it does so for a moment, and
 * the driver by itself would refuse at once.
 * @param patienceMs - how long it waits, milliseconds.
 */
export const connect = (file: string, patienceMs = 5000): Raw => guardBinds(new BetterSqlite3(file, { timeout: patienceMs }))

/**
 * Wraps a driver connection so that no bound value can bring the process down. The driver aborts the whole process on
 * booleans, dates and objects, and turns NaN, Infinity and missing values into NULL without a word; here all of them
 * are refused with an ordinary error, and values go over as one array.
 */
function guardBinds(raw: Raw): Raw {
  const prepare = raw.prepare.bind(raw)
  return Object.assign(raw, { prepare: (sql: string) => guardStatement(prepare(sql) as Statement, sql) }) as Raw
}

function guardStatement(statement: Statement, sql: string): Statement {
  for (const method of ['run', 'get', 'all', 'iterate'] as const) {
    const original = (statement[method] as (...values: unknown[]) => unknown).bind(statement)
    const guarded = (...values: unknown[]): unknown => withoutMetadata(original(checked(values, sql)))
    Object.defineProperty(statement, method, { value: guarded })
  }
  return statement
}

function checked(values: unknown[], sql: string): unknown[] {
  const list = values.length === 1 && Array.isArray(values[0]) ? (values[0] as unknown[]) : values
  list.forEach((value, index) => {
    if (!isBindable(value)) throw new UnbindableError(`value ${index + 1} (${describe(value)}) cannot be bound in: ${sql.slice(0, 120)}`)
  })
  return list
}

function isBindable(value: unknown): boolean {
  if (value === null || typeof value === 'bigint' || value instanceof Uint8Array) return true
  if (typeof value === 'number') return Number.isFinite(value)
  return typeof value === 'string' && !value.includes('\0')
}

const describe = (value: unknown): string => (typeof value === 'string' ? 'text with a zero byte' : typeof value === 'number' ? String(value) : typeof value)

// The driver adds timing to single rows; it is no column of ours.
function withoutMetadata(row: unknown): unknown {
  if (row !== null && typeof row === 'object' && !Array.isArray(row) && '_metadata' in row) delete row._metadata
  return row
}
