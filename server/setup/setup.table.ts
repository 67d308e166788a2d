import { integer, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import { inUse } from '../db/columns'

/** What is fed here. */
export const food = sqliteTable('food', { id: text('id').primaryKey(), name: text('name').notNull().unique(), kind: text('kind').notNull(), thawMinutes: integer('thaw_minutes'), servesAs: text('serves_as', { mode: 'json' }).$type<string[]>().notNull().default([]), note: text('note'), ...inUse() })
