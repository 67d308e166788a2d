import { sql } from 'drizzle-orm'
import { check as holds, index, integer, real, sqliteTable, text, type AnySQLiteColumn } from 'drizzle-orm/sqlite-core'
import type { ObservationKind } from '../../core/facts/observation'
import type { Ate, Sign } from '../../core/rounds/rounds.schema'
import { lot } from '../ledger/ledger.table'
import { tank } from '../room/room.table'
import { species } from '../species/species.table'
import { staff } from '../staff/staff.table'

/** One walk past all tanks: begun by its first check, left and gone on with, closed. */
export const round = sqliteTable(
  'round',
  {
    /** Day and number, so that every device knows it before anybody has begun. */
    id: text('id').primaryKey(),
    /** Calendar day in the room's time zone on which it began. */
    on: text('on').notNull(),
    number: integer('number').notNull(),
    startedAtMs: integer('started_at_ms').notNull(),
    startedById: text('started_by_id').notNull().references(() => staff.id),
    lastAtMs: integer('last_at_ms').notNull(),
    lastById: text('last_by_id').notNull().references(() => staff.id),
    leftAtMs: integer('left_at_ms'),
    leftById: text('left_by_id').references(() => staff.id),
    closedAtMs: integer('closed_at_ms'),
    closedById: text('closed_by_id').references(() => staff.id),
    /** Who walks which tanks, where several walk it: lists of tanks, as JSON. */
    parts: text('parts'),
  },
  (table) => [index('round_last').on(table.lastAtMs)],
)

/** One look at one tank, the header of what was seen at it. A correction is a new check; the old one stays and points at it. */
export const check = sqliteTable(
  'check',
  {
    id: text('id').primaryKey(),
    tankId: text('tank_id').notNull().references(() => tank.id),
    /** Calendar day in the room's time zone. */
    roundOn: text('round_on').notNull(),
    roundNumber: integer('round_number').notNull(),
    ate: text('ate').$type<Ate>().notNull(),
    signs: text('signs', { mode: 'json' }).$type<Sign[]>().notNull(),
    /** How single lots ate, and how many of single kinds were seen, as JSON; null where nobody said. */
    answers: text('answers'),
    counts: text('counts'),
    seen: integer('seen'),
    /** Fish in the books when the check was recorded. */
    expected: integer('expected').notNull(),
    note: text('note'),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    happenedAtMs: integer('happened_at_ms').notNull(),
    recordedAtMs: integer('recorded_at_ms').notNull(),
    replacedById: text('replaced_by_id').references((): AnySQLiteColumn => check.id),
  },
  (table) => [index('check_tank').on(table.tankId, table.happenedAtMs, table.recordedAtMs), index('check_round').on(table.roundOn, table.roundNumber), index('check_at').on(table.happenedAtMs), index('check_replaced').on(table.replacedById).where(sql`${table.replacedById} IS NOT NULL`)],
)

/**
 * What somebody saw, read or did, one thing a row; only ever added to. What is said of a tank holds for every lot that stood
 * in it at that moment (`stay`): it is not copied to each, so a move that is entered late or taken back takes its fish
 * along.
 */
export const observation = sqliteTable(
  'observation',
  {
    seq: integer('seq').primaryKey(),
    kind: text('kind').$type<ObservationKind>().notNull(),
    tankId: text('tank_id').references(() => tank.id),
    /** Only where one lot or kind of the tank was meant. */
    lotId: text('lot_id').references(() => lot.id),
    speciesId: text('species_id').references(() => species.id),
    /** The answer, the sign, what was read, the agent. */
    word: text('word'),
    /** Of a sign: 1 slight or one fish, 2 clear or several. */
    severity: integer('severity'),
    /** Fish seen, the figure read, milligrams dosed. */
    value: real('value'),
    instrument: text('instrument'),
    note: text('note'),
    /** The observation that this one decides about. */
    aboutSeq: integer('about_seq').references((): AnySQLiteColumn => observation.seq),
    checkId: text('check_id').references(() => check.id),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    happenedAtMs: integer('happened_at_ms').notNull(),
    recordedAtMs: integer('recorded_at_ms').notNull(),
    /** The first observation of the touch that corrected this one. */
    replacedBySeq: integer('replaced_by_seq').references((): AnySQLiteColumn => observation.seq),
    /** When it was taken back; then it replaces itself. */
    undoneAtMs: integer('undone_at_ms'),
  },
  (table) => [
    index('observation_tank').on(table.tankId, table.kind, table.happenedAtMs),
    index('observation_lot').on(table.lotId, table.happenedAtMs).where(sql`${table.lotId} IS NOT NULL`),
    index('observation_at').on(table.kind, table.happenedAtMs),
    index('observation_replaced').on(table.replacedBySeq).where(sql`${table.replacedBySeq} IS NOT NULL`),
    index('observation_undone').on(table.undoneAtMs).where(sql`${table.undoneAtMs} IS NOT NULL`),
    index('observation_sign').on(table.word, table.happenedAtMs).where(sql`${table.kind} = 'sign'`),
    holds('observation_kind', sql`${table.kind} IN ('ate', 'sign', 'seen', 'reading', 'dose', 'restart', 'note')`),
    holds('observation_severity', sql`(${table.kind} = 'sign') = (${table.severity} IS NOT NULL) AND coalesce(${table.severity}, 1) IN (1, 2)`),
  ],
)
