import { index, integer, real, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import type { When } from '../../core/plans/planFacts'
import type { PlannedKind } from '../../core/plans/pooledPlans'
import { lot } from '../ledger/ledger.table'
import { tank } from '../room/room.table'
import { staff } from '../staff/staff.table'

/** A move that waits. Nothing of it changes but how it ended. */
export const plan = sqliteTable(
  'plan',
  {
    id: text('id').primaryKey(),
    number: integer('number').notNull().unique(),
    fromTankId: text('from_tank_id').notNull().references(() => tank.id),
    toTankId: text('to_tank_id').notNull().references(() => tank.id),
    fish: text('fish', { mode: 'json' }).$type<PlannedKind[]>().notNull(),
    when: text('when', { mode: 'json' }).$type<When>().notNull(),
    takes: text('takes').$type<'whole' | 'share'>().notNull(),
    untilOn: text('until_on'),
    note: text('note'),
    /** *moved*: a command moved its fish, and the plan is open again once that was taken back; the others somebody said. */
    endedAs: text('ended_as').$type<'moved' | 'done' | 'dropped'>(),
    endedKey: text('ended_key'),
    endedById: text('ended_by_id').references(() => staff.id),
    endedAtMs: integer('ended_at_ms'),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    madeAtMs: integer('made_at_ms').notNull(),
  },
  (table) => [index('plan_ended').on(table.endedAtMs)],
)

/** Things that plans wait for, such as caves: how many there are. */
export const thing = sqliteTable('thing', {
  /** Its name as names are compared. */
  key: text('key').primaryKey(),
  name: text('name').notNull(),
  have: integer('have').notNull(),
  countedById: text('counted_by_id').notNull().references(() => staff.id),
  countedAtMs: integer('counted_at_ms').notNull(),
})

/** Somebody held a ruler to fish of a lot. */
export const lotLength = sqliteTable(
  'lot_length',
  {
    id: text('id').primaryKey(),
    lotId: text('lot_id').notNull().references(() => lot.id),
    cm: real('cm').notNull(),
    atMs: integer('at_ms').notNull(),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    recordedAtMs: integer('recorded_at_ms').notNull(),
  },
  (table) => [index('lot_length_lot').on(table.lotId, table.atMs)],
)
