import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import type { SaleMapping } from '../../core/sales/readSales'
import { species } from '../species/species.table'
import { staff } from '../staff/staff.table'

/** A list of sales that was taken in, all of it by one command. */
export const saleList = sqliteTable('sale_list', {
  id: text('id').primaryKey(),
  commandKey: text('command_key').notNull(),
  rows: integer('rows').notNull(),
  fish: integer('fish').notNull(),
  bookedAtMs: integer('booked_at_ms').notNull(),
  bookedById: text('booked_by_id').notNull().references(() => staff.id),
  takenBackAtMs: integer('taken_back_at_ms'),
})

/** Rows that were booked, so that none is booked twice; gone with a list that was taken back. */
export const saleRow = sqliteTable('sale_row', { listId: text('list_id').notNull().references(() => saleList.id), rowKey: text('row_key').notNull() }, (table) => [primaryKey({ columns: [table.listId, table.rowKey] }), index('sale_row_key').on(table.rowKey)])

/** What a till's word means: a kind of fish, or no fish at all. */
export const saleWord = sqliteTable('sale_word', { wordKey: text('word_key').primaryKey(), speciesId: text('species_id').references(() => species.id), strain: text('strain') })

/** How the columns of a till's list were read, by its heading. */
export const saleMapping = sqliteTable('sale_mapping', { heading: text('heading').primaryKey(), mapping: text('mapping', { mode: 'json' }).$type<SaleMapping>().notNull() })
