import { sql } from 'drizzle-orm'
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import type { DecidedSign, SignDecisionAs } from '../../core/rounds/rounds.schema'
import { lot } from '../ledger/ledger.table'
import { tank } from '../room/room.table'
import { staff } from '../staff/staff.table'

/** What somebody decided of a sign that was seen in a tank. It stays as it was said; what was decided otherwise since, or taken back, is marked. */
export const signDecision = sqliteTable(
  'sign_decision',
  {
    id: text('id').primaryKey(),
    tankId: text('tank_id').notNull().references(() => tank.id),
    /** Null where the whole tank is meant. */
    lotId: text('lot_id').references(() => lot.id),
    sign: text('sign').$type<DecidedSign>().notNull(),
    decision: text('decision').$type<SignDecisionAs>().notNull(),
    severity: integer('severity').notNull(),
    /** Looks that it stands for; the last goes on while the sign is seen on. */
    firstMs: integer('first_ms').notNull(),
    lastMs: integer('last_ms').notNull(),
    /** The command by which it was seen last. */
    lastKey: text('last_key').notNull(),
    untilMs: integer('until_ms'),
    note: text('note'),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    happenedAtMs: integer('happened_at_ms').notNull(),
    recordedAtMs: integer('recorded_at_ms').notNull(),
    undoneById: text('undone_by_id').references(() => staff.id),
    undoneAtMs: integer('undone_at_ms'),
  },
  (table) => [index('sign_decision_tank').on(table.tankId, table.lastMs), index('sign_decision_last').on(table.lastKey), index('sign_decision_seen').on(table.lastMs), index('sign_decision_undone').on(table.undoneAtMs).where(sql`${table.undoneAtMs} IS NOT NULL`)],
)

/** Lots that stood on the water when a confirmed sign was seen: their hold begins again. */
export const signReach = sqliteTable('sign_reach', { lotId: text('lot_id').notNull().references(() => lot.id), decisionId: text('decision_id').notNull().references(() => signDecision.id) }, (table) => [primaryKey({ columns: [table.lotId, table.decisionId] })])
