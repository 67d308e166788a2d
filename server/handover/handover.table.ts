import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import { staff } from '../staff/staff.table'

/** Words that somebody left for those who come after. */
export const handoverWord = sqliteTable(
  'handover_word',
  {
    id: text('id').primaryKey(),
    words: text('words').notNull(),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    atMs: integer('at_ms').notNull(),
    removedById: text('removed_by_id').references(() => staff.id),
    removedAtMs: integer('removed_at_ms'),
  },
  (table) => [index('handover_word_at').on(table.atMs)],
)

/** Until when somebody has read what happened. */
export const handoverRead = sqliteTable(
  'handover_read',
  {
    id: text('id').primaryKey(),
    staffId: text('staff_id').notNull().references(() => staff.id),
    untilMs: integer('until_ms').notNull(),
    commandKey: text('command_key').notNull(),
    atMs: integer('at_ms').notNull(),
  },
  (table) => [index('handover_read_of').on(table.staffId, table.untilMs)],
)
