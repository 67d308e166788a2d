import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import { staff } from '../staff/staff.table'

/** Secret addresses under which people's calendars read what is due. Taken back by filling `revokedAtMs`, never by deleting. */
export const calendarAddress = sqliteTable(
  'calendar_address',
  {
    id: text('id').primaryKey(),
    staffId: text('staff_id').notNull().references(() => staff.id),
    /** The secret itself is with the person alone. */
    secretHash: text('secret_hash').notNull().unique(),
    createdAtMs: integer('created_at_ms').notNull(),
    revokedAtMs: integer('revoked_at_ms'),
    revokedById: text('revoked_by_id').references(() => staff.id),
  },
  (table) => [index('calendar_address_staff').on(table.staffId)],
)
