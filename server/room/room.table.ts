import { index, integer, real, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core'
import type { TankKind, Water } from '../../core/room/room.schema'
import { place } from '../ledger/ledger.table'

/** The one room of this database. */
export const room = sqliteTable('room', {
  id: integer('id').primaryKey(),
  name: text('name').notNull(),
  timeZone: text('time_zone').notNull(),
})

/** One body of water. */
export const system = sqliteTable('system', {
  id: text('id').primaryKey(),
  name: text('name').notNull().unique(),
  water: text('water').$type<Water>().notNull(),
  sumpL: real('sump_l'),
})

export const tank = sqliteTable(
  'tank',
  {
    id: text('id').primaryKey().references(() => place.id),
    code: text('code').notNull().unique(),
    kind: text('kind').$type<TankKind>().notNull(),
    systemId: text('system_id').notNull().references(() => system.id),
    rack: text('rack').notNull(),
    shelf: integer('shelf').notNull(),
    position: integer('position').notNull(),
    netVolumeL: real('net_volume_l'),
  },
  (table) => [index('tank_system').on(table.systemId), uniqueIndex('tank_spot').on(table.rack, table.shelf, table.position)],
)
