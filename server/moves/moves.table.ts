import { index, integer, real, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import type { FightHarm } from '../../core/moves/fightWeight'
import type { IntroductionPlan } from '../../core/moves/introductionPlan'
import type { IntroductionEventKind, LookLevel } from '../../core/moves/introductionState'
import type { MoveRuleChanges } from '../../core/moves/houseMoveRules'
import type { Newcomers } from '../../core/moves/introductions.schema'
import { tank } from '../room/room.table'
import { species } from '../species/species.table'
import { staff } from '../staff/staff.table'

/** Who wrote it, and when; taken back, it never was. */
const written = () => ({
  staffId: text('staff_id').notNull().references(() => staff.id),
  commandKey: text('command_key').notNull(),
  recordedAtMs: integer('recorded_at_ms').notNull(),
  undoneById: text('undone_by_id').references(() => staff.id),
  undoneAtMs: integer('undone_at_ms'),
})

/** A net, cup or bag was lifted in a tank: the tank has learned. */
export const lift = sqliteTable('lift', { id: text('id').primaryKey(), tankId: text('tank_id').notNull().references(() => tank.id), atMs: integer('at_ms').notNull(), ...written() }, (table) => [index('lift_tank').on(table.tankId, table.atMs)])

/** Two kinds fought in a tank of a certain size. */
export const fight = sqliteTable(
  'fight',
  {
    id: text('id').primaryKey(),
    tankId: text('tank_id').notNull().references(() => tank.id),
    /** As it was then; null where nobody knew. */
    volumeL: real('volume_l'),
    speciesAId: text('species_a_id').notNull().references(() => species.id),
    speciesBId: text('species_b_id').notNull().references(() => species.id),
    harm: text('harm').$type<FightHarm>().notNull(),
    atMs: integer('at_ms').notNull(),
    ...written(),
  },
  (table) => [index('fight_at').on(table.atMs), index('fight_tank').on(table.tankId, table.atMs)],
)

/** Fish that were chosen one by one, by sex and mark; the ledger counts them with the others of their move. */
export const movedIndividual = sqliteTable('moved_individual', { id: text('id').primaryKey(), commandKey: text('command_key').notNull(), speciesId: text('species_id').notNull().references(() => species.id), sex: text('sex'), mark: text('mark') }, (table) => [index('moved_individual_command').on(table.commandKey)])

/** Newcomers on their way into a tank whose residents defend it. */
export const introduction = sqliteTable(
  'introduction',
  {
    id: text('id').primaryKey(),
    number: integer('number').notNull().unique(),
    tankId: text('tank_id').notNull().references(() => tank.id),
    fromTankId: text('from_tank_id').notNull().references(() => tank.id),
    newcomers: text('newcomers', { mode: 'json' }).$type<Newcomers>().notNull(),
    plan: text('plan', { mode: 'json' }).$type<IntroductionPlan>().notNull(),
    startedAtMs: integer('started_at_ms').notNull(),
    /** When somebody closed it; how it ended stands in its events. */
    endedAtMs: integer('ended_at_ms'),
    ...written(),
  },
  (table) => [index('introduction_tank').on(table.tankId)],
)

export const introductionEvent = sqliteTable(
  'introduction_event',
  {
    id: text('id').primaryKey(),
    introductionId: text('introduction_id').notNull().references(() => introduction.id),
    /** *step* is a step of its plan that was done; the others are those its state goes by. */
    kind: text('kind').$type<IntroductionEventKind | 'step'>().notNull(),
    stepIndex: integer('step_index'),
    who: text('who'),
    level: text('level').$type<LookLevel>(),
    note: text('note'),
    atMs: integer('at_ms').notNull(),
    ...written(),
  },
  (table) => [index('introduction_event_of').on(table.introductionId, table.atMs), index('introduction_event_command').on(table.commandKey)],
)

/** What the house changed of the rules of moves: one row. */
export const moveRule = sqliteTable('move_rule', {
  id: integer('id').primaryKey(),
  changes: text('changes', { mode: 'json' }).$type<MoveRuleChanges>().notNull(),
  version: integer('version').notNull(),
  changedById: text('changed_by_id').notNull().references(() => staff.id),
  changedAtMs: integer('changed_at_ms').notNull(),
})
