import type { Database } from '../server/db/open'

/** Makes what writes a row into a table, column by column; what a bench needs of the past is not made by commands. */
export const insertInto =
  ({ raw }: Pick<Database, 'raw'>) =>
  (table: string, columns: string) => {
    const statement = raw.prepare(`INSERT INTO "${table}" (${columns}) VALUES (${columns.split(',').map(() => '?').join(', ')})`)
    return (...values: (string | number | null)[]) => void statement.run(values)
  }
