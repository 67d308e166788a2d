import { sql } from 'drizzle-orm'
import { index, integer, real, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import type { WaterContent } from '../../core/dosing/doseReasons'
import type { DoseReason } from '../../core/dosing/doseCheck'
import type { RegimenKind, RegimenPlan } from '../../core/regimens/regimens.schema'
import { agent } from '../bench/bench.table'
import { tank } from '../room/room.table'
import { observation } from '../rounds/rounds.table'
import { staff } from '../staff/staff.table'

/** Who wrote a row, when it happened, and who took it back. */
const written = () => ({
  staffId: text('staff_id').notNull().references(() => staff.id),
  commandKey: text('command_key').notNull(),
  happenedAtMs: integer('happened_at_ms').notNull(),
  recordedAtMs: integer('recorded_at_ms').notNull(),
  undoneById: text('undone_by_id').references(() => staff.id),
  undoneAtMs: integer('undone_at_ms'),
})

/** What stands in a water besides fish, as somebody said last; the newest row stands. */
export const waterContents = sqliteTable(
  'water_contents',
  {
    seq: integer('seq').primaryKey(),
    waterId: text('water_id').notNull(),
    contents: text('contents', { mode: 'json' }).$type<WaterContent[]>().notNull(),
    binderUntilMs: integer('binder_until_ms'),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    atMs: integer('at_ms').notNull(),
  },
  (table) => [index('water_contents_of').on(table.waterId, table.seq), index('water_contents_binder').on(table.binderUntilMs).where(sql`${table.binderUntilMs} IS NOT NULL`)],
)

/** What is done to fish or their water over days, with how it goes. */
export const regimen = sqliteTable(
  'regimen',
  {
    id: text('id').primaryKey(),
    kind: text('kind').$type<RegimenKind>().notNull(),
    /** Where it was begun; its water is the water of this tank. */
    tankId: text('tank_id').notNull().references(() => tank.id),
    plan: text('plan', { mode: 'json' }).$type<RegimenPlan>().notNull(),
    note: text('note'),
    ...written(),
    endedAtMs: integer('ended_at_ms'),
    endedById: text('ended_by_id').references(() => staff.id),
    endReason: text('end_reason'),
  },
  (table) => [index('regimen_ended').on(table.endedAtMs)],
)

/** A dose of a product, beside the observation that holds and facts go by. */
export const dose = sqliteTable(
  'dose',
  {
    id: text('id').primaryKey(),
    observationSeq: integer('observation_seq').notNull().references(() => observation.seq),
    productId: text('product_id').notNull().references(() => agent.id),
    /** What the product is of, as the table of refusals calls it. */
    agent: text('agent').notNull(),
    tankId: text('tank_id').notNull().references(() => tank.id),
    regimenId: text('regimen_id').references(() => regimen.id),
    /** Milliliters or grams of the product. */
    given: real('given').notNull(),
    mg: real('mg').notNull(),
    /** What the screen offered; null where it offered nothing. */
    offered: real('offered'),
    towardsMgL: real('towards_mg_l'),
    /** The limit, not the target, decided how much: the rest waits for a reading. */
    isCut: integer('is_cut').notNull(),
    /** What was said against it, what was ticked, and why a lead went on. */
    reasons: text('reasons', { mode: 'json' }).$type<DoseReason[]>().notNull(),
    ticked: text('ticked', { mode: 'json' }).$type<string[]>().notNull(),
    reason: text('reason'),
    ...written(),
  },
  (table) => [index('dose_of_tank').on(table.tankId, table.happenedAtMs), index('dose_regimen').on(table.regimenId), index('dose_observation').on(table.observationSeq)],
)

/** Part of a water was swapped: what was in it before fell by its share. */
export const waterChange = sqliteTable(
  'water_change',
  {
    id: text('id').primaryKey(),
    tankId: text('tank_id').notNull().references(() => tank.id),
    litres: real('litres').notNull(),
    /** What the new water was mixed with, and to which level. */
    agent: text('agent'),
    mixMgL: real('mix_mg_l'),
    salinityPpt: real('salinity_ppt'),
    regimenId: text('regimen_id').references(() => regimen.id),
    /** The step that it was for fish that are held: the first way down of a low salinity. */
    observationSeq: integer('observation_seq').references(() => observation.seq),
    /** The chore by which it was done. */
    choreDoneId: text('chore_done_id'),
    askedChoreId: text('asked_chore_id'),
    ...written(),
  },
  (table) => [index('water_change_of_tank').on(table.tankId, table.happenedAtMs), index('water_change_regimen').on(table.regimenId)],
)
