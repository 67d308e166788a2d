import { integer, real, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import { inUse } from '../db/columns'

/** The species book. Columns are the fields of its register (core/setup/registers.ts). */
export const species = sqliteTable('species', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  /** The name in lower case and single spaces: what lists are matched by. */
  nameKey: text('name_key').notNull().unique(),
  scientificName: text('scientific_name'),
  strains: text('strains'),
  water: text('water'),
  animal: text('animal'),
  adultCm: real('adult_cm'),
  swallowsCm: real('swallows_cm'),
  minTankL: real('min_tank_l'),
  usualMassG: real('usual_mass_g'),
  tempCMin: real('temp_c_min'),
  tempCMax: real('temp_c_max'),
  phMin: real('ph_min'),
  phMax: real('ph_max'),
  salinityPptMin: real('salinity_ppt_min'),
  salinityPptMax: real('salinity_ppt_max'),
  groupMin: integer('group_min'),
  temperament: text('temperament'),
  tolerance: text('tolerance'),
  sensitivities: text('sensitivities', { mode: 'json' }).$type<string[]>().notNull().default([]),
  shareSeenPercent: integer('share_seen_percent'),
  firstMealDays: integer('first_meal_days'),
  firstFoods: text('first_foods'),
  basis: text('basis'),
  note: text('note'),
  createdAtMs: integer('created_at_ms').notNull(),
  ...inUse(),
})
