import { sql } from 'drizzle-orm'
import { index, integer, real, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import type { WrittenKind } from '../../core/contacts/contact'
import { toolSet } from '../room/room.table'
import { staff } from '../staff/staff.table'

/** Who wrote it down, and who took it back. */
const written = () => ({
  note: text('note'),
  staffId: text('staff_id').notNull().references(() => staff.id),
  commandKey: text('command_key').notNull(),
  recordedAtMs: integer('recorded_at_ms').notNull(),
  undoneById: text('undone_by_id').references(() => staff.id),
  undoneAtMs: integer('undone_at_ms'),
})

/** Something touched two waters, or a water and a tool set, beside the fish that moved: those stand in the ledger. Nodes as in core/contacts. */
export const contact = sqliteTable(
  'contact',
  {
    id: text('id').primaryKey(),
    kind: text('kind').$type<WrittenKind>().notNull(),
    fromNode: text('from_node').notNull(),
    toNode: text('to_node').notNull(),
    isBoth: integer('is_both').notNull(),
    /** 0 for a breach, and for what was done against a rule. */
    isPlanned: integer('is_planned').notNull(),
    litres: real('litres'),
    atMs: integer('at_ms').notNull(),
    /** When it ended, where it lasted; null in `joined` while it does. */
    untilMs: integer('until_ms'),
    ...written(),
  },
  (table) => [index('contact_at').on(table.atMs), index('contact_from').on(table.fromNode, table.atMs), index('contact_to').on(table.toNode, table.atMs), index('contact_command').on(table.commandKey), index('contact_undone').on(table.undoneAtMs).where(sql`${table.undoneAtMs} IS NOT NULL`)],
)

/** An emptied water was sterilised and filled anew. */
export const waterClear = sqliteTable('water_clear', { id: text('id').primaryKey(), node: text('node').notNull(), atMs: integer('at_ms').notNull(), ...written() }, (table) => [index('water_clear_node').on(table.node, table.atMs)])

/** A tool set lay in disinfectant. */
export const toolBath = sqliteTable(
  'tool_bath',
  {
    id: text('id').primaryKey(),
    toolSetId: text('tool_set_id').notNull().references(() => toolSet.id),
    inAtMs: integer('in_at_ms').notNull(),
    /** When it was taken out; null while it lies there. */
    outAtMs: integer('out_at_ms'),
    /** Contact time by the label of the product. */
    needMinutes: integer('need_minutes').notNull(),
    agent: text('agent'),
    ...written(),
  },
  (table) => [index('tool_bath_set').on(table.toolSetId, table.inAtMs)],
)
