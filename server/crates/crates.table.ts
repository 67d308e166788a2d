import { sql } from 'drizzle-orm'
import { index, integer, real, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core'
import type { BodyCondition, Look } from '../../core/crates/crates.schema'
import { lot, place } from '../ledger/ledger.table'
import { tank } from '../room/room.table'
import { staff } from '../staff/staff.table'

export const supplier = sqliteTable('supplier', { id: text('id').primaryKey(), name: text('name').notNull().unique() })

export const crate = sqliteTable('crate', {
  id: text('id').primaryKey(),
  /** Short number for people: 1 and up, in the order the crates were entered. */
  number: integer('number').notNull().unique(),
  supplierId: text('supplier_id').notNull().references(() => supplier.id),
  expectedAtMs: integer('expected_at_ms'),
  packedAtMs: integer('packed_at_ms'),
  createdAtMs: integer('created_at_ms').notNull(),
})

export const line = sqliteTable(
  'line',
  {
    id: text('id').primaryKey(),
    crateId: text('crate_id').notNull().references(() => crate.id),
    position: integer('position').notNull(),
    count: integer('count').notNull(),
    lotId: text('lot_id').notNull().unique().references(() => lot.id),
    tankId: text('tank_id').references(() => tank.id),
    version: integer('version').notNull(),
  },
  (table) => [uniqueIndex('line_position').on(table.crateId, table.position)],
)

export const bag = sqliteTable(
  'bag',
  {
    id: text('id').primaryKey().references(() => place.id),
    lineId: text('line_id').notNull().references(() => line.id),
    crateId: text('crate_id').notNull().references(() => crate.id),
    number: integer('number').notNull(),
    listed: integer('listed').notNull(),
  },
  (table) => [uniqueIndex('bag_number').on(table.crateId, table.number), index('bag_line').on(table.lineId)],
)

/** What was found in a bag. Taken back by filling `undone…`, never by deleting; at most one per bag stands. */
export const bagRecord = sqliteTable(
  'bag_record',
  {
    id: text('id').primaryKey(),
    bagId: text('bag_id').notNull().references(() => bag.id),
    alive: integer('alive').notNull(),
    dead: integer('dead').notNull(),
    concerns: text('concerns', { mode: 'json' }).$type<Look[]>().notNull(),
    body: text('body').$type<BodyCondition>(),
    skinTempC: real('skin_temp_c'),
    waterTempC: real('water_temp_c'),
    salinityPpt: real('salinity_ppt'),
    note: text('note'),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    happenedAtMs: integer('happened_at_ms').notNull(),
    recordedAtMs: integer('recorded_at_ms').notNull(),
    undoneById: text('undone_by_id').references(() => staff.id),
    undoneAtMs: integer('undone_at_ms'),
    undoneCommandKey: text('undone_command_key'),
  },
  (table) => [uniqueIndex('bag_record_stands').on(table.bagId).where(sql`${table.undoneAtMs} IS NULL`), index('bag_record_bag').on(table.bagId)],
)
