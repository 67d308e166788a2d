import { integer, sqliteTable, text } from 'drizzle-orm/sqlite-core'

export const species = sqliteTable('species', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  /** The name in lower case and single spaces: what lists are matched by. */
  nameKey: text('name_key').notNull().unique(),
  createdAtMs: integer('created_at_ms').notNull(),
})
