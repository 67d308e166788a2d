import { index, integer, real, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import type { VesselKind } from '../../core/vessels/vessels.schema'
import { inUse } from '../db/columns'
import { place } from '../ledger/ledger.table'
import { tank } from '../room/room.table'

/** Buckets, and boxes that hang in a tank: places that fish stand in for a while. Vessels of runs are places of their own. */
export const vessel = sqliteTable('vessel', {
  id: text('id').primaryKey().references(() => place.id),
  name: text('name').notNull().unique(),
  kind: text('kind').$type<VesselKind>().notNull(),
  /** Water in it as it is filled. */
  litres: real('litres').notNull(),
  air: text('air').$type<'yes' | 'no'>(),
  note: text('note'),
  ...inUse(),
})

/** Whose water is in a vessel since when: it was filled there, or hangs there; null once fish of another water came in. */
export const vesselWater = sqliteTable(
  'vessel_water',
  {
    id: text('id').primaryKey(),
    vesselId: text('vessel_id').notNull().references(() => vessel.id),
    tankId: text('tank_id').references(() => tank.id),
    atMs: integer('at_ms').notNull(),
    commandKey: text('command_key').notNull(),
  },
  (table) => [index('vessel_water_vessel').on(table.vesselId, table.atMs)],
)
