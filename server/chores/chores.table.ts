import { index, integer, real, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import type { AskedKind } from '../../core/chores/chores.schema'
import { tank } from '../room/room.table'
import { staff } from '../staff/staff.table'

/** Work at a tank that somebody asked for once. A later look or reading ends it by itself; a change of water ends by hand. */
export const askedChore = sqliteTable(
  'asked_chore',
  {
    id: text('id').primaryKey(),
    tankId: text('tank_id').notNull().references(() => tank.id),
    kind: text('kind').$type<AskedKind>().notNull(),
    litresEach: real('litres_each'),
    times: integer('times').notNull(),
    byMs: integer('by_ms').notNull(),
    askedById: text('asked_by_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    askedAtMs: integer('asked_at_ms').notNull(),
    /** Whether somebody did it, or nobody wants it any more; null while it is open. */
    endedAs: text('ended_as').$type<'done' | 'dropped'>(),
    endedById: text('ended_by_id').references(() => staff.id),
    endedAtMs: integer('ended_at_ms'),
  },
  (table) => [index('asked_chore_at').on(table.askedAtMs)],
)
