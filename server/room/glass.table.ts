import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import { staff } from '../staff/staff.table'
import { tank } from './room.table'

/** Who took it off, and when. */
const takenOff = () => ({ removedById: text('removed_by_id').references(() => staff.id), removedAtMs: integer('removed_at_ms') })

/** A note that hangs on the glass. */
export const tankPin = sqliteTable('tank_pin', { id: text('id').primaryKey(), tankId: text('tank_id').notNull().references(() => tank.id), words: text('words').notNull(), staffId: text('staff_id').notNull().references(() => staff.id), commandKey: text('command_key').notNull(), recordedAtMs: integer('recorded_at_ms').notNull(), ...takenOff() }, (table) => [index('tank_pin_tank').on(table.tankId)])

/** A picture of a tank. The file lies in the folder of photos under this id. */
export const tankPhoto = sqliteTable(
  'tank_photo',
  {
    id: text('id').primaryKey(),
    tankId: text('tank_id').notNull().references(() => tank.id),
    widthPx: integer('width_px').notNull(),
    heightPx: integer('height_px').notNull(),
    staffId: text('staff_id').notNull().references(() => staff.id),
    happenedAtMs: integer('happened_at_ms').notNull(),
    recordedAtMs: integer('recorded_at_ms').notNull(),
    ...takenOff(),
  },
  (table) => [index('tank_photo_tank').on(table.tankId, table.happenedAtMs)],
)
