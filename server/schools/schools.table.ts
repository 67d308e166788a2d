import { integer, real, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import type { KeptStep } from '../../core/acclimation/schools.schema'
import { inUse } from '../db/columns'

/** Schools of acclimation of the house's own; those of the trade stand in core/acclimation/schools.ts. */
export const houseSchool = sqliteTable('house_school', {
  id: text('id').primaryKey(),
  name: text('name').notNull().unique(),
  handsPerBagMin: real('hands_per_bag_min').notNull(),
  handsPerLotMin: real('hands_per_lot_min').notNull(),
  steps: text('steps', { mode: 'json' }).$type<KeptStep[]>().notNull(),
  ...inUse(),
})

/** Which school the house takes first in a situation, where it chose another than the usual one. */
export const houseDefault = sqliteTable('house_default', { situation: text('situation').primaryKey(), schoolKey: text('school_key'), version: integer('version').notNull() })
