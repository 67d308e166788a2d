import { integer, real, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import { staff } from '../staff/staff.table'

/** House limits that differ from their standard (core/limits/houseLimits.ts). */
export const houseLimit = sqliteTable('house_limit', {
  key: text('key').primaryKey(),
  value: real('value').notNull(),
  source: text('source').notNull(),
  version: integer('version').notNull(),
  changedById: text('changed_by_id').notNull().references(() => staff.id),
  changedAtMs: integer('changed_at_ms').notNull(),
})
