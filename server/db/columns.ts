import { integer } from 'drizzle-orm/sqlite-core'

/** Columns of every row that people edit: its version, and when it was taken out of use (null while in use). */
export const inUse = () => ({ version: integer('version').notNull().default(1), retiredAtMs: integer('retired_at_ms') })
