import { integer, real, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import { inUse } from '../db/columns'

/** What is fed here. A figure that is left out is that of the shipped food it serves as. */
export const food = sqliteTable('food', {
  id: text('id').primaryKey(),
  name: text('name').notNull().unique(),
  kind: text('kind').notNull(),
  thawMinutes: integer('thaw_minutes'),
  pieceG: real('piece_g'),
  dryPercent: real('dry_percent'),
  proteinPercent: real('protein_percent'),
  mouths: text('mouths', { mode: 'json' }).$type<string[]>().notNull().default([]),
  outMinutes: integer('out_minutes'),
  servesAs: text('serves_as', { mode: 'json' }).$type<string[]>().notNull().default([]),
  note: text('note'),
  ...inUse(),
})

/** When fish are fed, and how much of the day’s food with it. */
export const feed = sqliteTable('feed', { id: text('id').primaryKey(), name: text('name').notNull().unique(), hour: integer('hour').notNull(), minute: integer('minute'), dayPercent: integer('day_percent').notNull(), ...inUse() })
