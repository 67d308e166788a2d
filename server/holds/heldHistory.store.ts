import { sql, type SQL } from 'drizzle-orm'
import { minuteOf } from '../../core/contacts/contact'
import type { Exposure, Reading, Step } from '../../core/holds/holdEvents'
import type { LedgerRow, Learned, PoolPart } from '../../core/holds/ledgerEvents'
import type { DecisionRow, LookRow, SignRow } from '../../core/holds/lookEvents'
import type { CourseSpecies } from '../../core/rounds/expectedCourse'
import { isHabit } from '../../core/rounds/roundRules'
import type { Tolerance } from '../../core/setup/words'
import type { MovementKind, PlaceKind } from '../../core/ledger/movement'
import type { OwnAnswer } from '../../core/facts/facts'
import { listed } from '../db/listed'
import type { Database } from '../db/open'

/** Deaths that are a sign of the tank; those that jumped or were eaten say something else. */
const deathCauses = ['found dead', 'put down', 'unknown']

interface MovementRow {
  id: string
  kind: MovementKind
  lotId: string
  fromId: string
  fromKind: PlaceKind
  toId: string
  toKind: PlaceKind
  quantity: number
  eventId: string | null
  isSwap: number | null
  happenedAtMs: number
  recordedAtMs: number
}

/** What happened to held fish, from the books that stand already: the ledger, looks, readings, doses, decisions, breaches. What was taken back never happened. */
export function createHeldHistoryStore({ orm }: Database) {
  const isReal = sql`NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = m.id)`
  const observed = (kind: string, sinceMs: number): SQL => sql`FROM tank CROSS JOIN observation o ON o.tank_id = tank.id AND o.kind = ${kind} AND o.happened_at_ms >= ${sinceMs} WHERE o.replaced_by_seq IS NULL`

  return {
    movements: (sinceMs: number): LedgerRow[] =>
      orm
        .all<MovementRow>(
          sql`SELECT m.id, m.kind, m.lot_id AS lotId, m.from_place_id AS fromId, f.kind AS fromKind, m.to_place_id AS toId, t.kind AS toKind, m.quantity, pm.event_id AS eventId, pm.is_swap AS isSwap, m.happened_at_ms AS happenedAtMs, m.recorded_at_ms AS recordedAtMs
            FROM movement m JOIN place f ON f.id = m.from_place_id JOIN place t ON t.id = m.to_place_id LEFT JOIN pool_movement pm ON pm.movement_id = m.id
            WHERE m.happened_at_ms >= ${sinceMs} AND m.kind <> 'reversal' AND ${isReal}`,
        )
        .map(({ fromId, fromKind, toId, toKind, isSwap, ...row }) => ({ ...row, from: { id: fromId, kind: fromKind }, to: { id: toId, kind: toKind }, isSwap: isSwap === 1 })),

    poolParts: (sinceMs: number): PoolPart[] =>
      orm.all(sql`SELECT DISTINCT s.event_id AS eventId, s.place_id AS placeId, s.lot_id AS lotId, s.expected AS millionths
        FROM movement m JOIN pool_movement pm ON pm.movement_id = m.id JOIN pool_share s ON s.event_id = pm.event_id WHERE m.happened_at_ms >= ${sinceMs} AND m.kind <> 'reversal' AND ${isReal}`),

    /** What the books learned of a pool when somebody knew the lot: no fish went by it. */
    learned: (sinceMs: number): Learned[] =>
      orm
        .all<{ eventId: string; placeId: string; placeKind: PlaceKind; lotId: string; millionths: number; happenedAtMs: number }>(
          sql`SELECT DISTINCT s.event_id AS eventId, s.place_id AS placeId, p.kind AS placeKind, s.lot_id AS lotId, s.expected AS millionths, m.happened_at_ms AS happenedAtMs
            FROM movement m JOIN pool_event e ON e.command_key = m.command_key JOIN pool_share s ON s.event_id = e.id JOIN place p ON p.id = s.place_id
            WHERE m.happened_at_ms >= ${sinceMs} AND ${isReal} AND e.reverses_id IS NULL AND s.expected <> 0
              AND NOT EXISTS (SELECT 1 FROM pool_event back WHERE back.reverses_id = e.id) AND NOT EXISTS (SELECT 1 FROM pool_movement pm WHERE pm.event_id = e.id)`,
        )
        .map(({ placeId, placeKind, ...row }) => ({ ...row, place: { id: placeId, kind: placeKind } })),

    /** What the species book says of how each lot shows itself. */
    species: (): Map<string, CourseSpecies> =>
      new Map(
        orm
          .all<{ lotId: string; share: number | null; tolerance: Tolerance | null; habits: string }>(sql`SELECT lot.id AS lotId, species.share_seen_percent AS share, species.tolerance, species.habits FROM lot JOIN species ON species.id = lot.species_id`)
          .map(({ lotId, share, tolerance, habits }) => [lotId, { shareSeen: share === null ? null : share / 100, tolerance, habits: listed<string>(habits).filter(isHabit) }]),
      ),

    /** When each bag that fish came out of was opened. */
    openedBags: (sinceMs: number): Map<string, number> =>
      new Map(
        orm
          .all<{ bagId: string; atMs: number }>(sql`SELECT r.bag_id AS bagId, min(r.happened_at_ms) AS atMs FROM movement m JOIN bag_record r ON r.bag_id = m.from_place_id AND r.undone_at_ms IS NULL WHERE m.happened_at_ms >= ${sinceMs} AND m.kind = 'move' GROUP BY r.bag_id`)
          .map(({ bagId, atMs }) => [bagId, atMs]),
      ),

    looks: (sinceMs: number): LookRow[] =>
      orm
        .all<Omit<LookRow, 'answers'> & { answers: string | null }>(sql`SELECT c.id, c.tank_id AS tankId, c.ate, c.answers, c.happened_at_ms AS atMs, c.recorded_at_ms AS recordedAtMs FROM tank CROSS JOIN "check" c ON c.tank_id = tank.id AND c.happened_at_ms >= ${sinceMs} AND c.replaced_by_id IS NULL`)
        .map(({ answers, ...look }) => ({ ...look, answers: listed<OwnAnswer>(answers) })),

    signs: (sinceMs: number): SignRow[] =>
      orm.all(sql`SELECT 'o' || o.seq AS id, o.tank_id AS tankId, o.lot_id AS lotId, o.word AS sign, o.severity, o.happened_at_ms AS atMs, o.recorded_at_ms AS recordedAtMs ${observed('sign', sinceMs)}`),

    deaths: (sinceMs: number): SignRow[] =>
      orm.all(sql`SELECT m.id || ':death' AS id, m.from_place_id AS tankId, m.lot_id AS lotId, 'death' AS sign, 2 AS severity, m.happened_at_ms AS atMs, m.recorded_at_ms AS recordedAtMs
        FROM movement m WHERE m.kind = 'loss' AND m.happened_at_ms >= ${sinceMs} AND m.cause IN (SELECT value FROM json_each(${JSON.stringify(deathCauses)})) AND ${isReal}`),

    decisions: (sinceMs: number): DecisionRow[] =>
      orm.all(sql`SELECT tank_id AS tankId, lot_id AS lotId, sign, decision AS "as", severity, first_ms AS firstMs, last_ms AS lastMs, until_ms AS untilMs, happened_at_ms AS happenedAtMs FROM sign_decision WHERE last_ms >= ${sinceMs} AND undone_at_ms IS NULL`),

    readings: (sinceMs: number): Reading[] =>
      orm
        .all<{ seq: number; tankId: string; what: string; value: number; atMs: number }>(sql`SELECT o.seq, o.tank_id AS tankId, o.word AS what, o.value, o.happened_at_ms AS atMs ${observed('reading', sinceMs)}`)
        .map(({ seq, tankId, what, value, atMs }) => ({ kind: 'reading', id: `o${seq}`, at: minuteOf(atMs), tank: tankId, what, value })),

    doses: (sinceMs: number): Step[] =>
      orm
        .all<{ seq: number; tankId: string; agent: string; atMs: number }>(sql`SELECT o.seq, o.tank_id AS tankId, o.word AS agent, o.happened_at_ms AS atMs ${observed('dose', sinceMs)}`)
        .map(({ seq, tankId, agent, atMs }) => ({ kind: 'step', id: `o${seq}`, at: minuteOf(atMs), tank: tankId, of: 'dose', agent })),

    /** Breaches between waters that somebody wrote down. */
    breaches: (sinceMs: number): Exposure[] =>
      orm
        .all<{ id: string; fromNode: string; toNode: string; isBoth: number; atMs: number }>(sql`SELECT id, from_node AS fromNode, to_node AS toNode, is_both AS isBoth, at_ms AS atMs FROM contact WHERE at_ms >= ${sinceMs} AND is_planned = 0 AND undone_at_ms IS NULL`)
        .map(({ id, fromNode, toNode, isBoth, atMs }) => ({ kind: 'exposure', id, at: minuteOf(atMs), tanks: [], waters: [toNode, ...(isBoth === 1 ? [fromNode] : [])].flatMap((node) => (node.startsWith('water:') ? [node.slice('water:'.length)] : [])), decision: 'confirmed' })),
  }
}
export type HeldHistoryStore = ReturnType<typeof createHeldHistoryStore>
