import { integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import type { Role } from '../../core/staff/staff.schema'
import { inUse } from '../db/columns'

export const staff = sqliteTable('staff', {
  id: text('id').primaryKey(),
  name: text('name').notNull().unique(),
  role: text('role').$type<Role>().notNull(),
  /** Argon2; only people who open devices have one. */
  passphraseHash: text('passphrase_hash'),
  pinHash: text('pin_hash').notNull(),
  createdAtMs: integer('created_at_ms').notNull(),
  ...inUse(),
})

/** A device that somebody opened with a passphrase. The token itself is only in the device's cookie. */
export const session = sqliteTable('session', {
  id: text('id').primaryKey(),
  tokenHash: text('token_hash').notNull().unique(),
  openedById: text('opened_by_id').notNull().references(() => staff.id),
  createdAtMs: integer('created_at_ms').notNull(),
  expiresAtMs: integer('expires_at_ms').notNull(),
  /** What the device said it is, in a few words. */
  device: text('device'),
  lastSeenAtMs: integer('last_seen_at_ms'),
})

/** People whose PIN was entered in a session: they may record on that device. */
export const sessionRecorder = sqliteTable(
  'session_recorder',
  {
    sessionId: text('session_id').notNull().references(() => session.id),
    staffId: text('staff_id').notNull().references(() => staff.id),
    identifiedAtMs: integer('identified_at_ms').notNull(),
  },
  (table) => [primaryKey({ columns: [table.sessionId, table.staffId] })],
)
