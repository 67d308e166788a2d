import { integer, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import { staff } from '../staff/staff.table'

/** The lists behind the round, as far as the house has them otherwise; one row. */
export const roundList = sqliteTable('round_list', {
  id: integer('id').primaryKey(),
  changes: text('changes').notNull(),
  version: integer('version').notNull(),
  changedById: text('changed_by_id').notNull().references(() => staff.id),
  changedAtMs: integer('changed_at_ms').notNull(),
})
