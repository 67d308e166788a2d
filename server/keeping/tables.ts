import type { Raw } from '../db/guard'

/**
 * Tables of a full export, each after those it refers to. Left out: `stock`, `stay` and `expected_stock`, which are
 * made anew from the movements and shares, and open devices and calendars, which are let in again wherever the room stands next.
 */
export const exportedTables = [
  ...['room', 'staff', 'place', 'zone', 'tool_set', 'system', 'tank', 'species', 'food', 'feed', 'agent', 'supplier', 'source', 'list_mapping', 'lot'],
  ...['crate', 'line', 'bag', 'command', 'bag_record', 'bag_photo', 'claim', 'prepared', 'tank_override', 'movement', 'pool_event', 'pool_movement', 'pool_share', 'run', 'run_source', 'run_event', 'run_movement', 'recheck', 'water_load', 'airline', 'check', 'observation', 'round', 'sign_decision', 'sign_reach', 'asked_chore', 'chore', 'chore_done', 'supply_stock', 'handover_word', 'handover_read', 'probe', 'probe_sample', 'kitchen_tick', 'food_stock', 'feeding_order', 'given', 'round_list', 'stocktake', 'stocktake_tank', 'stocktake_count', 'found', 'hold_shortfall', 'sale_list', 'sale_row', 'sale_word', 'sale_mapping', 'contact', 'water_clear', 'tool_bath', 'hold_policy', 'hold_rules', 'hold_begin', 'hold_entry', 'hold_start', 'hold_carried', 'tank_water', 'breach_decision', 'pairing', 'pairing_result', 'regimen', 'dose', 'water_change', 'water_contents', 'alarm_answer', 'outbreak', 'trial', 'trial_crate', 'trial_look', 'monthly_sheet', 'lot_name', 'vessel', 'vessel_water', 'lift', 'fight', 'moved_individual', 'introduction', 'introduction_event', 'move_rule', 'plan', 'thing', 'lot_length', 'rack', 'sink', 'tank_pin', 'tank_photo', 'house_limit', 'house_school', 'house_default', 'audit_entry', 'notice'],
] as const
/** Tables that came later: an export of before has none of them, and its room none of what they hold. */
export const laterTables: readonly string[] = ['notice', 'round', 'observation', 'pool_event', 'pool_movement', 'pool_share', 'stocktake', 'stocktake_tank', 'stocktake_count', 'found', 'hold_shortfall', 'sale_list', 'sale_row', 'sale_word', 'sale_mapping', 'contact', 'water_clear', 'tool_bath', 'lot_name', 'vessel', 'vessel_water', 'lift', 'fight', 'moved_individual', 'introduction', 'introduction_event', 'move_rule', 'plan', 'thing', 'lot_length', 'rack', 'sink', 'tank_pin', 'tank_photo', 'sign_decision', 'sign_reach', 'asked_chore', 'round_list', 'handover_word', 'handover_read', 'probe', 'probe_sample', 'feed', 'chore', 'chore_done', 'supply_stock', 'kitchen_tick', 'food_stock', 'feeding_order', 'given', 'hold_policy', 'hold_rules', 'hold_begin', 'hold_entry', 'hold_start', 'hold_carried', 'tank_water', 'breach_decision', 'pairing', 'pairing_result', 'regimen', 'dose', 'water_change', 'water_contents', 'alarm_answer', 'outbreak', 'trial', 'trial_crate', 'trial_look', 'monthly_sheet']
export const leftOutTables = ['stock', 'stay', 'expected_stock', 'calendar_address', 'session', 'session_recorder'] as const

export interface Column {
  name: string
  type: 'INTEGER' | 'REAL' | 'TEXT'
  isRequired: boolean
}

/** Columns of a table as the database declares them. */
export function columnsOf(raw: Raw, table: string): Column[] {
  const rows = raw.prepare(`PRAGMA table_info("${table}")`).all() as { name: string; type: string; notnull: number; dflt_value: string | null; pk: number }[]
  return rows.map((row) => ({ name: row.name, type: row.type.toUpperCase() as Column['type'], isRequired: row.notnull === 1 && row.dflt_value === null }))
}

/** Rows of all exported tables. */
export const countRows = (raw: Raw): number => exportedTables.reduce((sum, table) => sum + (raw.prepare(`SELECT count(*) AS n FROM "${table}"`).get() as { n: number }).n, 0)
