import { integer, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import type { NoticeFacts } from '../../core/keeping/notice'
import { staff } from '../staff/staff.table'

/** What went wrong with the room's own keeping; it stands on every screen until a lead has put it away. */
export const notice = sqliteTable('notice', {
  id: text('id').primaryKey(),
  atMs: integer('at_ms').notNull(),
  facts: text('facts', { mode: 'json' }).$type<NoticeFacts>().notNull(),
  seenById: text('seen_by_id').references(() => staff.id),
  seenAtMs: integer('seen_at_ms'),
})
