import { sql } from 'drizzle-orm'
import { index, integer, primaryKey, real, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core'
import type { LookAfter } from '../../core/bench/expectedCourse'
import type { RunPlan } from '../../core/bench/runPlan'
import type { RunEventKind } from '../../core/bench/runRecord'
import { line } from '../crates/crates.table'
import { inUse } from '../db/columns'
import { lot, movement, place } from '../ledger/ledger.table'
import { tank } from '../room/room.table'
import { staff } from '../staff/staff.table'

/** One acclimation, bath, dip or look: its plan as it was meant, and how it ended. Shares its id with its vessel's place. */
export const run = sqliteTable(
  'run',
  {
    id: text('id').primaryKey().references(() => place.id),
    number: integer('number').notNull().unique(),
    plan: text('plan', { mode: 'json' }).$type<RunPlan>().notNull(),
    lineId: text('line_id').references(() => line.id),
    tankId: text('tank_id').references(() => tank.id),
    toOutside: text('to_outside'),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    startedAtMs: integer('started_at_ms').notNull(),
    recordedAtMs: integer('recorded_at_ms').notNull(),
    outAtMs: integer('out_at_ms'),
    look: text('look').$type<LookAfter>(),
    countedAlive: integer('counted_alive'),
    countedDead: integer('counted_dead'),
    endedAtMs: integer('ended_at_ms'),
    endedById: text('ended_by_id').references(() => staff.id),
    outcome: text('outcome'),
  },
  (table) => [index('run_open').on(table.startedAtMs).where(sql`${table.endedAtMs} IS NULL`), index('run_ended').on(table.endedAtMs), index('run_tank').on(table.tankId)],
)

/** Which fish a run began with, and where they stood. */
export const runSource = sqliteTable(
  'run_source',
  {
    runId: text('run_id').notNull().references(() => run.id),
    placeId: text('place_id').notNull().references(() => place.id),
    lotId: text('lot_id').notNull().references(() => lot.id),
    quantity: integer('quantity').notNull(),
  },
  (table) => [primaryKey({ columns: [table.runId, table.placeId, table.lotId] }), index('run_source_place').on(table.placeId), index('run_source_lot').on(table.lotId)],
)

/** What happened on a run. Taken back by filling `undone…`, never by deleting. */
export const runEvent = sqliteTable(
  'run_event',
  {
    id: text('id').primaryKey(),
    runId: text('run_id').notNull().references(() => run.id),
    kind: text('kind').$type<RunEventKind>().notNull(),
    stepIndex: integer('step_index').notNull(),
    tempC: real('temp_c'),
    salinityPpt: real('salinity_ppt'),
    ph: real('ph'),
    /** Total ammonia as nitrogen. */
    tanMgL: real('tan_mg_l'),
    /** 1 when it was read off the simulated meter. */
    isSimulated: integer('is_simulated').notNull().default(0),
    mlPerMin: real('ml_per_min'),
    alarm: text('alarm'),
    untilMs: integer('until_ms'),
    isOn: integer('is_on'),
    note: text('note'),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    happenedAtMs: integer('happened_at_ms').notNull(),
    recordedAtMs: integer('recorded_at_ms').notNull(),
    undoneById: text('undone_by_id').references(() => staff.id),
    undoneAtMs: integer('undone_at_ms'),
  },
  // A step is done once, whichever device says so first.
  (table) => [index('run_event_run').on(table.runId, table.happenedAtMs), uniqueIndex('run_step_once').on(table.runId, table.stepIndex).where(sql`${table.kind} = 'step' AND ${table.undoneAtMs} IS NULL`)],
)

/** Movements that a run wrote, so that they can be found by it. */
export const runMovement = sqliteTable('run_movement', { movementId: text('movement_id').primaryKey().references(() => movement.id), runId: text('run_id').notNull().references(() => run.id) })

/** A look at fish some time after a run. */
export const recheck = sqliteTable(
  'recheck',
  {
    id: text('id').primaryKey(),
    runId: text('run_id').notNull().references(() => run.id),
    label: text('label').notNull(),
    usual: text('usual').notNull(),
    dueAtMs: integer('due_at_ms').notNull(),
    look: text('look').$type<LookAfter>(),
    note: text('note'),
    doneById: text('done_by_id').references(() => staff.id),
    doneAtMs: integer('done_at_ms'),
  },
  (table) => [index('recheck_due').on(table.dueAtMs).where(sql`${table.doneAtMs} IS NULL`), index('recheck_done').on(table.doneAtMs), index('recheck_run').on(table.runId)],
)

/** Bag water that went into a tank with its fish. */
export const waterLoad = sqliteTable('water_load', {
  id: text('id').primaryKey(),
  runId: text('run_id').notNull().references(() => run.id),
  tankId: text('tank_id').notNull().references(() => tank.id),
  litres: real('litres').notNull(),
  /** Total ammonia as nitrogen in it, estimated or measured. */
  tanMgL: real('tan_mg_l').notNull(),
  atMs: integer('at_ms').notNull(),
}, (table) => [index('water_load_run').on(table.runId), index('water_load_at').on(table.atMs)])

/** Drops in a millilitre of an airline, as somebody counted them. */
export const airline = sqliteTable('airline', {
  id: text('id').primaryKey(),
  name: text('name').notNull().unique(),
  dropsPerMl: real('drops_per_ml').notNull(),
  staffId: text('staff_id').notNull().references(() => staff.id),
  calibratedAtMs: integer('calibrated_at_ms').notNull(),
})

/** What baths and dips are made with; figures from the label of the house's own product. */
export const agent = sqliteTable('agent', {
  id: text('id').primaryKey(),
  name: text('name').notNull().unique(),
  /** Column of the species book that says who bears it, by its word. */
  substance: text('substance'),
  /** What it is of, as the table of refusals calls it; null for what only the bench uses. */
  agent: text('agent'),
  strengthMgPerMl: real('strength_mg_per_ml'),
  /** Of a powder: share of it that is the agent. */
  activePercent: real('active_percent'),
  /** What strength and target count: as product, as copper. */
  strengthBasis: text('strength_basis'),
  targetMgL: real('target_mg_l'),
  targetBasis: text('target_basis'),
  /** The range that its label allows. */
  loMgL: real('lo_mg_l'),
  hiMgL: real('hi_mg_l'),
  /** How it is stepped in and out; null as is usual. */
  partPercent: real('part_percent'),
  raiseAfterH: real('raise_after_h'),
  stepPercent: real('step_percent'),
  doneBelowMgL: real('done_below_mg_l'),
  bathMgL: real('bath_mg_l'),
  bathMinutes: real('bath_minutes'),
  dipMgL: real('dip_mg_l'),
  dipMinutes: real('dip_minutes'),
  cautions: text('cautions'),
  note: text('note'),
  ...inUse(),
})
