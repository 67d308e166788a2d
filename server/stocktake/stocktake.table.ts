import { integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import type { StocktakeKind } from '../../core/stocktake/stocktake.schema'
import { tank } from '../room/room.table'
import { species } from '../species/species.table'
import { staff } from '../staff/staff.table'

/** The room counted as a whole: a draft until it is booked, and what was booked then. */
export const stocktake = sqliteTable('stocktake', {
  id: text('id').primaryKey(),
  kind: text('kind').$type<StocktakeKind>().notNull(),
  begunAtMs: integer('begun_at_ms').notNull(),
  begunById: text('begun_by_id').notNull().references(() => staff.id),
  /** The command that booked it; its movements are taken back together. */
  bookedKey: text('booked_key'),
  bookedAtMs: integer('booked_at_ms'),
  bookedById: text('booked_by_id').references(() => staff.id),
  /** The differences as they were booked, as JSON. */
  bookedParts: text('booked_parts'),
  droppedAtMs: integer('dropped_at_ms'),
})

/** A tank that was counted, also one in which there was nothing. */
export const stocktakeTank = sqliteTable(
  'stocktake_tank',
  {
    stocktakeId: text('stocktake_id').notNull().references(() => stocktake.id),
    tankId: text('tank_id').notNull().references(() => tank.id),
    /** Where its fish came from, as far as somebody said; for fish that were here before the books. */
    source: text('source'),
    countedAtMs: integer('counted_at_ms').notNull(),
    countedById: text('counted_by_id').notNull().references(() => staff.id),
  },
  (table) => [primaryKey({ columns: [table.stocktakeId, table.tankId] })],
)

/** What was counted of one kind in one tank. */
export const stocktakeCount = sqliteTable(
  'stocktake_count',
  {
    stocktakeId: text('stocktake_id').notNull().references(() => stocktake.id),
    tankId: text('tank_id').notNull().references(() => tank.id),
    speciesId: text('species_id').notNull().references(() => species.id),
    /** Empty where nobody said. */
    strain: text('strain').notNull(),
    counted: integer('counted').notNull(),
  },
  (table) => [primaryKey({ columns: [table.stocktakeId, table.tankId, table.speciesId, table.strain] })],
)
