import { index, integer, real, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import type { ProbeFault, ProbeMeasure } from '../../core/probes/probe'
import { inUse } from '../db/columns'
import { tank } from '../room/room.table'
import { staff } from '../staff/staff.table'

/** A probe that hangs in a tank. */
export const probe = sqliteTable('probe', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  tankId: text('tank_id').notNull().references(() => tank.id),
  measure: text('measure').$type<ProbeMeasure>().notNull(),
  everyMin: integer('every_min').notNull(),
  fault: text('fault').$type<ProbeFault>().notNull(),
  addedAtMs: integer('added_at_ms').notNull(),
  addedById: text('added_by_id').notNull().references(() => staff.id),
  ...inUse(),
})

/** What a probe answered. Of what is older than some days only the readings are kept that came of it. */
export const probeSample = sqliteTable('probe_sample', { seq: integer('seq').primaryKey({ autoIncrement: true }), probeId: text('probe_id').notNull().references(() => probe.id), atMs: integer('at_ms').notNull(), value: real('value') }, (table) => [index('probe_sample_of').on(table.probeId, table.atMs)])
