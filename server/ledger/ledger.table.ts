import { sql } from 'drizzle-orm'
import { check, index, integer, primaryKey, sqliteTable, text, type AnySQLiteColumn } from 'drizzle-orm/sqlite-core'
import type { Water } from '../../core/room/room.schema'
import type { MovementKind, PlaceKind } from '../../core/ledger/movement'
import { species } from '../species/species.table'
import { staff } from '../staff/staff.table'

/** Whatever can hold fish; tanks and bags share their id with their place. */
export const place = sqliteTable('place', { id: text('id').primaryKey(), kind: text('kind').$type<PlaceKind>().notNull() }, (table) => [
  check('place_kind', sql`${table.kind} IN ('bag', 'vessel', 'tank', 'outside')`),
])

/** Fish of one species from one line, or from one birth, kept apart in the books for life. */
export const lot = sqliteTable('lot', {
  id: text('id').primaryKey(),
  code: text('code').notNull().unique(),
  speciesId: text('species_id').notNull().references(() => species.id),
  /** Water these fish live in, as somebody said where the species book does not. */
  water: text('water').$type<Water>(),
  origin: text('origin').notNull(),
  /** Of fish that came by no crate; a line says it of its own. */
  strain: text('strain'),
  /** 1 for fish that stood here before the books began: since when, nobody knows. */
  isBeforeBooks: integer('is_before_books').notNull().default(0),
  createdAtMs: integer('created_at_ms').notNull(),
})

/** What a lot was called since when: a correction changes its name, never what was counted. */
export const lotName = sqliteTable(
  'lot_name',
  {
    id: text('id').primaryKey(),
    lotId: text('lot_id').notNull().references(() => lot.id),
    speciesId: text('species_id').notNull().references(() => species.id),
    strain: text('strain'),
    note: text('note'),
    /** Null for the name it came with. */
    staffId: text('staff_id').references(() => staff.id),
    commandKey: text('command_key'),
    recordedAtMs: integer('recorded_at_ms').notNull(),
  },
  (table) => [index('lot_name_lot').on(table.lotId, table.recordedAtMs)],
)

/** The ledger. Triggers (db/triggers.ts) forbid changing it and keep `stock` in step. Add columns; never change a CHECK. */
export const movement = sqliteTable(
  'movement',
  {
    seq: integer('seq').primaryKey({ autoIncrement: true }),
    id: text('id').notNull().unique(),
    kind: text('kind').$type<MovementKind>().notNull(),
    lotId: text('lot_id').notNull().references(() => lot.id),
    fromPlaceId: text('from_place_id').notNull().references(() => place.id),
    toPlaceId: text('to_place_id').notNull().references(() => place.id),
    quantity: integer('quantity').notNull(),
    reversesId: text('reverses_id').unique().references((): AnySQLiteColumn => movement.id),
    cause: text('cause'),
    reason: text('reason'),
    note: text('note'),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    happenedAtMs: integer('happened_at_ms').notNull(),
    recordedAtMs: integer('recorded_at_ms').notNull(),
  },
  (table) => [
    index('movement_from').on(table.fromPlaceId, table.happenedAtMs),
    index('movement_to').on(table.toPlaceId, table.happenedAtMs),
    index('movement_command').on(table.commandKey),
    index('movement_lot').on(table.lotId, table.happenedAtMs),
    index('movement_kind').on(table.kind, table.happenedAtMs),
    index('movement_happened').on(table.happenedAtMs),
    index('movement_eaten').on(table.happenedAtMs).where(sql`${table.cause} = 'eaten'`),
    check('movement_quantity', sql`typeof(${table.quantity}) = 'integer' AND ${table.quantity} > 0`),
    check('movement_places', sql`${table.fromPlaceId} <> ${table.toPlaceId}`),
    check('movement_reversal', sql`(${table.kind} = 'reversal') = (${table.reversesId} IS NOT NULL)`),
    check(
      'movement_direction',
      sql`CASE ${table.kind}
        WHEN 'arrive' THEN ${table.fromPlaceId} = 'outside'
        WHEN 'born' THEN ${table.fromPlaceId} = 'outside'
        WHEN 'dead-in-bag' THEN ${table.toPlaceId} = 'outside'
        WHEN 'loss' THEN ${table.toPlaceId} = 'outside'
        WHEN 'release' THEN ${table.toPlaceId} = 'outside'
        WHEN 'move' THEN ${table.fromPlaceId} <> 'outside' AND ${table.toPlaceId} <> 'outside'
        WHEN 'count-correction' THEN (${table.fromPlaceId} = 'outside') <> (${table.toPlaceId} = 'outside') AND ${table.reason} IS NOT NULL
        WHEN 'reversal' THEN 1
        ELSE 0 END`,
    ),
  ],
)

/** Fish by place and lot, kept by trigger in the transaction of each movement. A lot that left has no row. */
export const stock = sqliteTable(
  'stock',
  {
    placeId: text('place_id').notNull().references(() => place.id),
    lotId: text('lot_id').notNull().references(() => lot.id),
    quantity: integer('quantity').notNull(),
    /** When the first of these fish came in: the beginning of their stay. */
    sinceMs: integer('since_ms').notNull(),
  },
  (table) => [primaryKey({ columns: [table.placeId, table.lotId] }), check('stock_quantity', sql`typeof(${table.quantity}) = 'integer' AND ${table.quantity} >= 0`)],
)

/**
 * Where fish of a lot stood, from when until when: a projection of the ledger, kept by trigger in the transaction of each
 * movement. By when things happened, so a move that is entered late or taken back changes what was.
 */
export const stay = sqliteTable(
  'stay',
  {
    placeId: text('place_id').notNull().references(() => place.id),
    lotId: text('lot_id').notNull().references(() => lot.id),
    fromMs: integer('from_ms').notNull(),
    /** The movement that brought the first of them. */
    openedById: text('opened_by_id').notNull().references(() => movement.id),
    /** When the last of them left, and by which movement; null while some stand there. */
    untilMs: integer('until_ms'),
    closedById: text('closed_by_id').references(() => movement.id),
    /** 1 for fish that may have gone along and nobody knows. */
    isPossible: integer('is_possible').notNull().default(0),
  },
  // The lot first, and (in the migration) without row numbers: one page of the file for every bag that is opened, not three.
  (table) => [primaryKey({ columns: [table.lotId, table.placeId, table.fromMs, table.openedById] })],
)
