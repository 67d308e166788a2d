import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import { staff } from '../staff/staff.table'

/** What the books of commands do not say: what an edit changed, and who opened or closed a device. */
export const auditEntry = sqliteTable(
  'audit_entry',
  {
    seq: integer('seq').primaryKey({ autoIncrement: true }),
    atMs: integer('at_ms').notNull(),
    staffId: text('staff_id').references(() => staff.id),
    action: text('action').notNull(),
    subject: text('subject').notNull(),
    /** What changed, as `{ field: [before, after] }`. Never a secret. */
    changes: text('changes', { mode: 'json' }).$type<Record<string, [unknown, unknown]>>(),
    /** The command that did it; null for what is no command, such as signing in. */
    commandKey: text('command_key'),
  },
  (table) => [index('audit_entry_at').on(table.atMs), index('audit_entry_command').on(table.commandKey)],
)
