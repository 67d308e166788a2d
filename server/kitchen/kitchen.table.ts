import { sql } from 'drizzle-orm'
import { index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core'
import type { KitchenStep, OrderKind, StockWhy } from '../../core/kitchen/kitchen.schema'
import { lot } from '../ledger/ledger.table'
import { tank } from '../room/room.table'
import { food } from '../setup/setup.table'
import { staff } from '../staff/staff.table'

/** What was done of one feed, and what was taken back of it. */
export const kitchenTick = sqliteTable(
  'kitchen_tick',
  {
    id: text('id').primaryKey(),
    feedOn: text('feed_on').notNull(),
    /** The feed of the register; *day* where there is none. */
    feedId: text('feed_id').notNull(),
    step: text('step').$type<KitchenStep>().notNull(),
    /** A food, a rack, minutes after the feed; empty for soaking. */
    what: text('what').notNull(),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    happenedAtMs: integer('happened_at_ms').notNull(),
    undoneAtMs: integer('undone_at_ms'),
    undoneById: text('undone_by_id').references(() => staff.id),
  },
  (table) => [uniqueIndex('kitchen_tick_of').on(table.feedOn, table.feedId, table.step, table.what).where(sql`${table.undoneAtMs} IS NULL`)],
)

/** Pieces of food in the house: every change with how many there were after it. */
export const foodStock = sqliteTable(
  'food_stock',
  {
    seq: integer('seq').primaryKey({ autoIncrement: true }),
    foodId: text('food_id').notNull().references(() => food.id),
    pieces: integer('pieces').notNull(),
    after: integer('after').notNull(),
    why: text('why').$type<StockWhy>().notNull(),
    tickId: text('tick_id').references(() => kitchenTick.id),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    atMs: integer('at_ms').notNull(),
  },
  (table) => [index('food_stock_of').on(table.foodId, table.seq), index('food_stock_at').on(table.atMs)],
)

/** Fish that are fed otherwise for some days: a lot, wherever it stands, or a tank. */
export const feedingOrder = sqliteTable(
  'feeding_order',
  {
    id: text('id').primaryKey(),
    kind: text('kind').$type<OrderKind>().notNull(),
    lotId: text('lot_id').references(() => lot.id),
    tankId: text('tank_id').references(() => tank.id),
    foodId: text('food_id').references(() => food.id),
    fromOn: text('from_on').notNull(),
    /** The last day of it; null for as long as nobody ends it. */
    untilOn: text('until_on'),
    note: text('note'),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    atMs: integer('at_ms').notNull(),
    endedAtMs: integer('ended_at_ms'),
    endedById: text('ended_by_id').references(() => staff.id),
  },
  (table) => [index('feeding_order_open').on(table.endedAtMs, table.untilOn)],
)

/** Foods that were given to a lot in its tank. */
export const given = sqliteTable(
  'given',
  {
    id: text('id').primaryKey(),
    tickId: text('tick_id').notNull().references(() => kitchenTick.id),
    tankId: text('tank_id').notNull().references(() => tank.id),
    lotId: text('lot_id').notNull().references(() => lot.id),
    /** Names of the foods, as JSON. */
    foods: text('foods').notNull(),
    atMs: integer('at_ms').notNull(),
  },
  (table) => [index('given_at').on(table.atMs), index('given_of_tick').on(table.tickId)],
)
