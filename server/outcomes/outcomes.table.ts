import { index, integer, primaryKey, real, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core'
import type { ScheduledBlock } from '../../core/outcomes/designSchedule'
import type { SheetFigure } from '../../core/outcomes/monthlyFigures'
import { crate } from '../crates/crates.table'
import { staff } from '../staff/staff.table'

/** Who wrote it down. */
const written = () => ({ staffId: text('staff_id').notNull().references(() => staff.id), commandKey: text('command_key').notNull(), recordedAtMs: integer('recorded_at_ms').notNull() })

/** An alarm on losses that a lead answered for: which stream, which day, what was found. */
export const alarmAnswer = sqliteTable('alarm_answer', { id: text('id').primaryKey(), stream: text('stream').notNull(), on: text('on').notNull(), found: text('found').notNull(), ...written() }, (table) => [index('alarm_answer_stream').on(table.stream, table.on)])

/** Deaths of one water, from a day to a day, that were one event and no more. */
export const outbreak = sqliteTable(
  'outbreak',
  {
    id: text('id').primaryKey(),
    waterId: text('water_id').notNull(),
    name: text('name').notNull(),
    fromOn: text('from_on').notNull(),
    toOn: text('to_on').notNull(),
    ...written(),
    undoneById: text('undone_by_id').references(() => staff.id),
    undoneAtMs: integer('undone_at_ms'),
  },
  (table) => [index('outbreak_water').on(table.waterId)],
)

/** Two schools that are shared out over the crates of some suppliers by a schedule that was drawn once. */
export const trial = sqliteTable('trial', {
  id: text('id').primaryKey(),
  number: integer('number').notNull().unique(),
  schoolA: text('school_a').notNull(),
  schoolB: text('school_b').notNull(),
  /** Crates are followed to this day. */
  day: integer('day').notNull(),
  cratesPerSchool: integer('crates_per_school').notNull(),
  looks: integer('looks').notNull(),
  /** What it was sized for. */
  lossA: real('loss_a').notNull(),
  lossB: real('loss_b').notNull(),
  seed: integer('seed').notNull(),
  schedule: text('schedule', { mode: 'json' }).$type<ScheduledBlock[]>().notNull(),
  note: text('note'),
  startedAtMs: integer('started_at_ms').notNull(),
  ...written(),
  endedAtMs: integer('ended_at_ms'),
  endedById: text('ended_by_id').references(() => staff.id),
  /** Why it ended: its finding, or a lead's word. */
  endedBecause: text('ended_because'),
})

/** A crate that takes part: its place in the schedule of its supplier, and the school it was given. */
export const trialCrate = sqliteTable(
  'trial_crate',
  {
    trialId: text('trial_id').notNull().references(() => trial.id),
    crateId: text('crate_id').notNull().references(() => crate.id),
    block: text('block').notNull(),
    place: integer('place').notNull(),
    school: text('school').notNull(),
    ...written(),
  },
  (table) => [primaryKey({ columns: [table.trialId, table.crateId] }), uniqueIndex('trial_crate_place').on(table.trialId, table.block, table.place)],
)

/** A look at a trial at its time, or what a lead said to a pause: figures and words as they were. */
export const trialLookTaken = sqliteTable(
  'trial_look',
  {
    id: text('id').primaryKey(),
    trialId: text('trial_id').notNull().references(() => trial.id),
    /** Null for an answer to a pause. */
    look: integer('look'),
    /** The crate whose losses paused it, where it is an answer to that. */
    crateId: text('crate_id').references(() => crate.id),
    decision: text('decision').notNull(),
    finding: text('finding'),
    sentence: text('sentence').notNull(),
    ...written(),
  },
  (table) => [index('trial_look_trial').on(table.trialId)],
)

/** The words of a monthly sheet as they were when it was kept. */
export const monthlySheet = sqliteTable('monthly_sheet', { month: text('month').primaryKey(), figures: text('figures', { mode: 'json' }).$type<SheetFigure[]>().notNull(), ...written() })
