import { sql } from 'drizzle-orm'
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import type { HoldPolicy } from '../../core/holds/policy'
import type { PolicyRule } from '../../core/holds/policyFor'
import { inUse } from '../db/columns'
import { lot, place } from '../ledger/ledger.table'
import { staff } from '../staff/staff.table'
import { tank } from '../room/room.table'

/** A policy of the house's own, or a shipped one that it changed. */
export const holdPolicy = sqliteTable('hold_policy', { id: text('id').primaryKey(), policy: text('policy', { mode: 'json' }).$type<HoldPolicy>().notNull(), ...inUse() })

/** Which fish begin which hold, in order; the newest row stands. */
export const holdRules = sqliteTable('hold_rules', {
  version: integer('version').primaryKey(),
  rules: text('rules', { mode: 'json' }).$type<PolicyRule[]>().notNull(),
  staffId: text('staff_id').notNull().references(() => staff.id),
  commandKey: text('command_key').notNull(),
  recordedAtMs: integer('recorded_at_ms').notNull(),
})

/** The hold that fish of a lot begin as they come; null without one. Kept, so that a rule that is changed moves no clock that runs. */
export const holdBegin = sqliteTable('hold_begin', {
  lotId: text('lot_id').primaryKey().references(() => lot.id),
  policyId: text('policy_id'),
  /** The rule that chose it, and the policies that it passed over, with why. */
  rule: integer('rule'),
  skipped: text('skipped', { mode: 'json' }).$type<{ policy: string; why: string[] }[]>().notNull(),
  commandKey: text('command_key').notNull(),
  recordedAtMs: integer('recorded_at_ms').notNull(),
})

export const holdEntryKinds = ['policy', 'lengthen', 'end', 'body', 'cleared', 'found', 'transfer', 'feed', 'cleaned'] as const
export type HoldEntryKind = (typeof holdEntryKinds)[number]

/** What people did to holds: another policy, longer, ended; and what they saw that holds ask for. */
export const holdEntry = sqliteTable(
  'hold_entry',
  {
    id: text('id').primaryKey(),
    kind: text('kind').$type<HoldEntryKind>().notNull(),
    placeId: text('place_id').notNull().references(() => place.id),
    /** Null where everything in the tank is meant. */
    lotId: text('lot_id').references(() => lot.id),
    policyId: text('policy_id'),
    phase: text('phase'),
    days: integer('days'),
    /** The state of a body, or the agent that is gone. */
    word: text('word'),
    reason: text('reason'),
    /** What an end was short of. */
    shortDays: integer('short_days'),
    shortGates: text('short_gates', { mode: 'json' }).$type<string[]>(),
    /** The regimen that it is a step of. */
    regimenId: text('regimen_id'),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    happenedAtMs: integer('happened_at_ms').notNull(),
    recordedAtMs: integer('recorded_at_ms').notNull(),
    undoneById: text('undone_by_id').references(() => staff.id),
    undoneAtMs: integer('undone_at_ms'),
  },
  (table) => [index('hold_entry_happened').on(table.happenedAtMs), index('hold_entry_lot').on(table.lotId, table.happenedAtMs), index('hold_entry_command').on(table.commandKey), index('hold_entry_undone').on(table.undoneAtMs), index('hold_entry_regimen').on(table.regimenId).where(sql`${table.regimenId} IS NOT NULL`)],
)

/** When this room's holds began to be kept; nothing that was recorded before is played. One row. */
export const holdStart = sqliteTable('hold_start', {
  id: integer('id').primaryKey(),
  atMs: integer('at_ms').notNull(),
  /** The moment from which fish that stood here then are played: some days before, so that looks at them count. */
  carriedAtMs: integer('carried_at_ms').notNull(),
})

/** Fish that stood here then, and the day their hold had begun by the rule of before; null for what was not held, or served. */
export const holdCarried = sqliteTable(
  'hold_carried',
  {
    placeId: text('place_id').notNull().references(() => place.id),
    lotId: text('lot_id').notNull().references(() => lot.id),
    millionths: integer('millionths').notNull(),
    policyId: text('policy_id'),
    beganMs: integer('began_ms'),
    isEnded: integer('is_ended').notNull(),
  },
  (table) => [primaryKey({ columns: [table.placeId, table.lotId] })],
)

/** The water a tank belongs to, since when. */
export const tankWater = sqliteTable(
  'tank_water',
  { seq: integer('seq').primaryKey(), tankId: text('tank_id').notNull().references(() => tank.id), waterId: text('water_id').notNull(), sinceMs: integer('since_ms').notNull() },
  (table) => [index('tank_water_tank').on(table.tankId, table.seq)],
)

/** What somebody decided of a breach: it begins holds again, or it does not. */
export const breachDecision = sqliteTable(
  'breach_decision',
  {
    id: text('id').primaryKey(),
    contactId: text('contact_id').notNull(),
    decision: text('decision').$type<'confirmed' | 'dismissed'>().notNull(),
    note: text('note'),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    recordedAtMs: integer('recorded_at_ms').notNull(),
    undoneById: text('undone_by_id').references(() => staff.id),
    undoneAtMs: integer('undone_at_ms'),
  },
  (table) => [index('breach_decision_contact').on(table.contactId), index('breach_decision_undone').on(table.undoneAtMs)],
)

/** A few fish of two groups that stand together in a tank apart, to be looked at. */
export const pairing = sqliteTable(
  'pairing',
  {
    id: text('id').primaryKey(),
    lotA: text('lot_a').notNull().references(() => lot.id),
    lotB: text('lot_b').notNull().references(() => lot.id),
    tankId: text('tank_id').notNull().references(() => tank.id),
    /** Fish of each group, and of each in the pairing. */
    fishA: integer('fish_a').notNull(),
    fishB: integer('fish_b').notNull(),
    pairedA: integer('paired_a').notNull(),
    pairedB: integer('paired_b').notNull(),
    /** Hours at which somebody is to look. */
    looksH: text('looks_h', { mode: 'json' }).$type<number[]>().notNull(),
    startedAtMs: integer('started_at_ms').notNull(),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    recordedAtMs: integer('recorded_at_ms').notNull(),
  },
  (table) => [index('pairing_started').on(table.startedAtMs), index('pairing_command').on(table.commandKey)],
)

export const pairingResults = ['running', 'passed', 'failed', 'given up'] as const
export type PairingResult = (typeof pairingResults)[number]

/** How a pairing came out: the newest row stands, since a sign that was dismissed later was none. */
export const pairingResult = sqliteTable(
  'pairing_result',
  {
    seq: integer('seq').primaryKey(),
    pairingId: text('pairing_id').notNull().references(() => pairing.id),
    result: text('result').$type<PairingResult>().notNull(),
    /** The look that decided it. */
    atMs: integer('at_ms').notNull(),
    reason: text('reason'),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    recordedAtMs: integer('recorded_at_ms').notNull(),
  },
  (table) => [index('pairing_result_of').on(table.pairingId, table.seq), index('pairing_result_at').on(table.atMs)],
)
