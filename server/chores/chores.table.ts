import { index, integer, real, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import type { AskedKind, ChoreKind } from '../../core/chores/chores.schema'
import { inUse } from '../db/columns'
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

/** Work that comes round by itself. */
export const chore = sqliteTable('chore', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  kind: text('kind').$type<ChoreKind>().notNull(),
  /** When it comes round, as JSON. */
  rule: text('rule').notNull(),
  startOn: text('start_on').notNull(),
  /** Where, with what it uses there, as JSON. */
  places: text('places').notNull(),
  note: text('note'),
  ...inUse(),
})

/** A chore was done at one place. */
export const choreDone = sqliteTable(
  'chore_done',
  {
    id: text('id').primaryKey(),
    choreId: text('chore_id').notNull().references(() => chore.id),
    placeId: text('place_id').notNull(),
    /** What the place was called then. */
    place: text('place').notNull(),
    doneOn: text('done_on').notNull(),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    happenedAtMs: integer('happened_at_ms').notNull(),
    /** The contact that its water made. */
    contactId: text('contact_id'),
    undoneAtMs: integer('undone_at_ms'),
    undoneById: text('undone_by_id').references(() => staff.id),
  },
  (table) => [index('chore_done_at').on(table.choreId, table.placeId, table.doneOn), index('chore_done_on').on(table.doneOn)],
)

/** Consumables in the store room: every change with how many there were after it. */
export const supplyStock = sqliteTable(
  'supply_stock',
  {
    seq: integer('seq').primaryKey({ autoIncrement: true }),
    item: text('item').notNull(),
    pieces: integer('pieces').notNull(),
    after: integer('after').notNull(),
    why: text('why').notNull(),
    doneId: text('done_id').references(() => choreDone.id),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    atMs: integer('at_ms').notNull(),
  },
  (table) => [index('supply_stock_of').on(table.item, table.seq), index('supply_stock_done').on(table.doneId)],
)
