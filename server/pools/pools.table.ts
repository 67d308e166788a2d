import { sql } from 'drizzle-orm'
import { check, index, integer, primaryKey, sqliteTable, text, type AnySQLiteColumn } from 'drizzle-orm/sqlite-core'
import type { How } from '../../core/pools/attribute'
import { lot, movement, place } from '../ledger/ledger.table'

/**
 * The second book beside `stock`: the fish to be expected of a lot in a tank or vessel, in millionths. Kept by trigger in the
 * transaction of each movement, as many as are booked, and of each row of `pool_share`, where an event says otherwise.
 */
export const expectedStock = sqliteTable(
  'expected_stock',
  { placeId: text('place_id').notNull().references(() => place.id), lotId: text('lot_id').notNull().references(() => lot.id), millionths: integer('millionths').notNull() },
  (table) => [primaryKey({ columns: [table.placeId, table.lotId] }), check('expected_stock_millionths', sql`typeof(${table.millionths}) = 'integer' AND ${table.millionths} >= 0`)],
)

/** What happened to fish of several lots that stood together and cannot be told apart. Never changed once written. */
export const poolEvent = sqliteTable(
  'pool_event',
  {
    id: text('id').primaryKey(),
    how: text('how').$type<How>().notNull(),
    reversesId: text('reverses_id').unique().references((): AnySQLiteColumn => poolEvent.id),
    commandKey: text('command_key').notNull(),
    recordedAtMs: integer('recorded_at_ms').notNull(),
  },
  (table) => [index('pool_event_command').on(table.commandKey), check('pool_event_how', sql`${table.how} IN ('seen', 'attributed')`)],
)

/** The movements of an event; a swap puts a fish right that the books had with the wrong lot. */
export const poolMovement = sqliteTable(
  'pool_movement',
  { movementId: text('movement_id').primaryKey().references(() => movement.id), eventId: text('event_id').notNull().references(() => poolEvent.id), isSwap: integer('is_swap').notNull() },
  (table) => [index('pool_movement_event').on(table.eventId)],
)

/** What an event changes of a lot in a place: below zero where fish go, above where they come. */
export const poolShare = sqliteTable(
  'pool_share',
  {
    eventId: text('event_id').notNull().references(() => poolEvent.id),
    placeId: text('place_id').notNull().references(() => place.id),
    lotId: text('lot_id').notNull().references(() => lot.id),
    /** Whole fish by its movements. */
    booked: integer('booked').notNull(),
    /** What the event counts for in this lot, in millionths. */
    share: integer('share').notNull(),
    /** The change of the fish to be expected, in millionths: the share, and what was wrongly expected of this lot or of others. */
    expected: integer('expected').notNull(),
  },
  (table) => [primaryKey({ columns: [table.eventId, table.placeId, table.lotId] }), index('pool_share_place').on(table.placeId, table.lotId)],
)

/** Fish that came to light after they were written off: of which loss, by which correction. */
export const found = sqliteTable(
  'found',
  { movementId: text('movement_id').primaryKey().references(() => movement.id), lossId: text('loss_id').notNull().references(() => movement.id), quantity: integer('quantity').notNull() },
  (table) => [index('found_loss').on(table.lossId)],
)

/** Fish that left before their hold was over: which day of how many it was, and why all the same. */
export const holdShortfall = sqliteTable(
  'hold_shortfall',
  {
    movementId: text('movement_id').notNull().references(() => movement.id),
    lotId: text('lot_id').notNull().references(() => lot.id),
    day: integer('day').notNull(),
    of: integer('of').notNull(),
    /** What it waited for besides its days, in words. */
    gates: text('gates'),
    reason: text('reason').notNull(),
  },
  (table) => [primaryKey({ columns: [table.movementId, table.lotId] })],
)
