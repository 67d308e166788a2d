import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import { staff } from '../staff/staff.table'

/** Every write that was ever accepted, by the key its device made; the same key again gets the same answer. */
export const command = sqliteTable(
  'command',
  {
    key: text('key').primaryKey(),
    name: text('name').notNull(),
    /** SHA-256 of the name, path parameters and body, secrets left out. */
    bodyHash: text('body_hash').notNull(),
    status: integer('status').notNull(),
    answer: text('answer').notNull(),
    staffId: text('staff_id').notNull().references(() => staff.id),
    recordedAtMs: integer('recorded_at_ms').notNull(),
  },
  (table) => [index('command_recorded').on(table.recordedAtMs), index('command_staff').on(table.staffId, table.recordedAtMs)],
)
