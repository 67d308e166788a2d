import { index, integer, sqliteTable, text, type AnySQLiteColumn } from 'drizzle-orm/sqlite-core'
import type { Ate, Sign } from '../../core/rounds/rounds.schema'
import { tank } from '../room/room.table'
import { staff } from '../staff/staff.table'

/** One walk past all tanks: begun by its first check, left and gone on with, closed. */
export const round = sqliteTable(
  'round',
  {
    /** Day and number, so that every device knows it before anybody has begun. */
    id: text('id').primaryKey(),
    /** Calendar day in the room's time zone on which it began. */
    on: text('on').notNull(),
    number: integer('number').notNull(),
    startedAtMs: integer('started_at_ms').notNull(),
    startedById: text('started_by_id').notNull().references(() => staff.id),
    lastAtMs: integer('last_at_ms').notNull(),
    lastById: text('last_by_id').notNull().references(() => staff.id),
    leftAtMs: integer('left_at_ms'),
    leftById: text('left_by_id').references(() => staff.id),
    closedAtMs: integer('closed_at_ms'),
    closedById: text('closed_by_id').references(() => staff.id),
  },
  (table) => [index('round_last').on(table.lastAtMs)],
)

/** One look at one tank. A correction is a new check; the old one stays and points at it. */
export const check = sqliteTable(
  'check',
  {
    id: text('id').primaryKey(),
    tankId: text('tank_id').notNull().references(() => tank.id),
    /** Calendar day in the room's time zone. */
    roundOn: text('round_on').notNull(),
    roundNumber: integer('round_number').notNull(),
    ate: text('ate').$type<Ate>().notNull(),
    signs: text('signs', { mode: 'json' }).$type<Sign[]>().notNull(),
    seen: integer('seen'),
    /** Fish in the books when the check was recorded. */
    expected: integer('expected').notNull(),
    note: text('note'),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    happenedAtMs: integer('happened_at_ms').notNull(),
    recordedAtMs: integer('recorded_at_ms').notNull(),
    replacedById: text('replaced_by_id').references((): AnySQLiteColumn => check.id),
  },
  (table) => [index('check_tank').on(table.tankId, table.happenedAtMs, table.recordedAtMs), index('check_round').on(table.roundOn, table.roundNumber)],
)
