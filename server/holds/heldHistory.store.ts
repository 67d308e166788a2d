import { sql } from 'drizzle-orm'
import { minuteOf } from '../../core/contacts/contact'
import { agentId } from '../../core/dosing/agents'
import type { Decision, Exposure, HoldEvent, Pairing, Plumb, Reading, Step } from '../../core/holds/holdEvents'
import { heldPlace, type LedgerRow, type Learned, type PoolPart } from '../../core/holds/ledgerEvents'
import type { DecisionRow, LookRow, SignRow } from '../../core/holds/lookEvents'
import type { CourseSpecies } from '../../core/rounds/expectedCourse'
import { levelNames } from '../../core/holds/levelNames'
import type { ReadingKind } from '../../core/room/glass.schema'
import { isHabit } from '../../core/rounds/roundRules'
import type { Tolerance } from '../../core/setup/words'
import type { MovementKind, PlaceKind } from '../../core/ledger/movement'
import type { OwnAnswer } from '../../core/facts/facts'
import { listed } from '../db/listed'
import type { Database } from '../db/open'
import { entryEvents, type EntryRow } from './entryEvents'

/** Of fish that had served their hold nothing is asked any more. */
const servedPolicy = 'none'
/** Deaths that are a sign of the tank; those that jumped or were eaten say something else. */
const deathCauses = `'found dead', 'put down', 'unknown'`

interface MovementRow {
  id: string
  policyId: string | null
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

/**
 * What happened to held fish, from the books: the ledger, looks, readings, doses, decisions, breaches, and what people did to
 * holds themselves. What was taken back never happened. Of a room that is older than its holds only what was recorded
 * since they are kept, and the fish as they stood then.
 */
export function createHeldHistoryStore({ orm, raw }: Database) {
  const begun = orm.get<{ atMs: number; carriedAtMs: number } | undefined>(sql`SELECT at_ms AS atMs, carried_at_ms AS carriedAtMs FROM hold_start WHERE id = 1`) ?? { atMs: 0, carriedAtMs: 0 }
  const { atMs: startMs, carriedAtMs } = begun
  const speciesOf = raw.prepare('SELECT species.share_seen_percent AS share, species.tolerance, species.habits FROM lot JOIN species ON species.id = lot.species_id WHERE lot.id = ?')
  const isStanding = `NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = m.id)`
  // What was recorded before stands in the fish that were carried over; taken back since, it goes the other way.
  const isReal = startMs === 0 ? `m.kind <> 'reversal' AND ${isStanding}` : `m.recorded_at_ms >= ${startMs} AND CASE m.kind WHEN 'reversal' THEN (SELECT old.recorded_at_ms FROM movement old WHERE old.id = m.reverses_id) < ${startMs} ELSE ${isStanding} END`
  const observed = (kind: string): string => `FROM observation o INDEXED BY observation_at WHERE o.kind = '${kind}' AND o.happened_at_ms >= ?1 AND o.tank_id IS NOT NULL AND o.replaced_by_seq IS NULL`
  /** Asked after every write: prepared once, each of them. */
  const since = <Row>(text: string): ((sinceMs: number) => Row[]) => {
    const asked = raw.prepare(text)
    return (sinceMs) => asked.all([sinceMs]) as Row[]
  }

  const ask = {
    movements: since<MovementRow>(
      `SELECT m.id, m.kind, m.lot_id AS lotId, b.policy_id AS policyId, m.from_place_id AS fromId, f.kind AS fromKind, m.to_place_id AS toId, t.kind AS toKind, m.quantity, pm.event_id AS eventId, pm.is_swap AS isSwap, m.happened_at_ms AS happenedAtMs, m.recorded_at_ms AS recordedAtMs
            FROM movement m JOIN place f ON f.id = m.from_place_id JOIN place t ON t.id = m.to_place_id LEFT JOIN pool_movement pm ON pm.movement_id = m.id LEFT JOIN hold_begin b ON b.lot_id = m.lot_id
            WHERE m.happened_at_ms >= ?1 AND ${isReal}`,
    ),
    poolParts: since<PoolPart>(
      `SELECT DISTINCT s.event_id AS eventId, s.place_id AS placeId, s.lot_id AS lotId, s.expected AS millionths
        FROM movement m JOIN pool_movement pm ON pm.movement_id = m.id JOIN pool_share s ON s.event_id = pm.event_id WHERE m.happened_at_ms >= ?1 AND ${isReal}`,
    ),
    learned: since<{ eventId: string; placeId: string; placeKind: PlaceKind; lotId: string; millionths: number; happenedAtMs: number }>(
      `SELECT DISTINCT s.event_id AS eventId, s.place_id AS placeId, p.kind AS placeKind, s.lot_id AS lotId, s.expected AS millionths, m.happened_at_ms AS happenedAtMs
            FROM movement m CROSS JOIN pool_event e ON e.command_key = m.command_key JOIN pool_share s ON s.event_id = e.id JOIN place p ON p.id = s.place_id
            WHERE m.happened_at_ms >= ?1 AND ${isReal} AND e.recorded_at_ms >= ${startMs} AND +e.reverses_id IS NULL AND s.expected <> 0
              AND NOT EXISTS (SELECT 1 FROM pool_event back WHERE back.reverses_id = e.id) AND NOT EXISTS (SELECT 1 FROM pool_movement pm WHERE pm.event_id = e.id)`,
    ),
    openedBags: since<{ bagId: string; atMs: number }>(
      `SELECT r.bag_id AS bagId, min(r.happened_at_ms) AS atMs FROM movement m JOIN bag_record r ON r.bag_id = m.from_place_id AND r.undone_at_ms IS NULL WHERE m.happened_at_ms >= ?1 AND m.kind = 'move' GROUP BY r.bag_id`,
    ),
    looks: since<Omit<LookRow, 'answers'> & { answers: string | null }>(
      `SELECT c.id, c.tank_id AS tankId, c.ate, c.answers, c.happened_at_ms AS atMs, c.recorded_at_ms AS recordedAtMs FROM "check" c WHERE c.happened_at_ms >= ?1 AND c.replaced_by_id IS NULL AND (c.recorded_at_ms >= ${startMs} OR +c.happened_at_ms >= ${carriedAtMs})`,
    ),
    signs: since<SignRow>(
      `SELECT 'o' || o.seq AS id, o.tank_id AS tankId, o.lot_id AS lotId, o.word AS sign, o.severity, o.happened_at_ms AS atMs, o.recorded_at_ms AS recordedAtMs ${observed('sign')} AND o.recorded_at_ms >= ${startMs}`,
    ),
    deaths: since<SignRow>(
      `SELECT m.id || ':death' AS id, m.from_place_id AS tankId, m.lot_id AS lotId, 'death' AS sign, 2 AS severity, m.happened_at_ms AS atMs, m.recorded_at_ms AS recordedAtMs
        FROM movement m WHERE m.kind = 'loss' AND m.happened_at_ms >= ?1 AND m.cause IN (${deathCauses}) AND ${isReal}`,
    ),
    decisions: since<DecisionRow>(
      `SELECT tank_id AS tankId, lot_id AS lotId, sign, decision AS "as", severity, first_ms AS firstMs, last_ms AS lastMs, until_ms AS untilMs, happened_at_ms AS happenedAtMs FROM sign_decision WHERE last_ms >= ?1 AND undone_at_ms IS NULL`,
    ),
    readings: since<{ seq: number; tankId: string; what: string; value: number; atMs: number }>(
      `SELECT o.seq, o.tank_id AS tankId, o.word AS what, o.value, o.happened_at_ms AS atMs ${observed('reading')}`,
    ),
    doses: since<{ seq: number; tankId: string; agent: string; atMs: number }>(
      `SELECT o.seq, o.tank_id AS tankId, o.word AS agent, o.happened_at_ms AS atMs ${observed('dose')}`,
    ),
    breaches: since<{ id: string; fromNode: string; toNode: string; isBoth: number; atMs: number; decision: Decision | null }>(
      `SELECT c.id, c.from_node AS fromNode, c.to_node AS toNode, c.is_both AS isBoth, c.at_ms AS atMs, (SELECT d.decision FROM breach_decision d WHERE d.contact_id = c.id AND d.undone_at_ms IS NULL) AS decision
            FROM contact c WHERE c.at_ms >= ?1 AND c.recorded_at_ms >= ${startMs} AND c.is_planned = 0 AND c.kind <> 'tool' AND c.undone_at_ms IS NULL`,
    ),
    entries: since<EntryRow>(
      `SELECT e.id, e.kind, e.place_id AS placeId, p.kind AS placeKind, e.lot_id AS lotId, e.policy_id AS policyId, e.phase, e.days, e.word, e.reason, e.happened_at_ms AS atMs, e.recorded_at_ms AS recordedAtMs
            FROM hold_entry e JOIN place p ON p.id = e.place_id WHERE e.happened_at_ms >= ?1 AND +e.undone_at_ms IS NULL`,
    ),
    plumbs: since<{ seq: number; tankId: string; waterId: string; atMs: number }>(
      `SELECT seq, tank_id AS tankId, water_id AS waterId, since_ms AS atMs FROM tank_water w WHERE since_ms >= ?1 AND seq > (SELECT min(seq) FROM tank_water first WHERE first.tank_id = w.tank_id)`,
    ),
    pairings: since<{ id: string; lotA: string; lotB: string; startedAtMs: number; endedAtMs: number; result: 'passed' | 'failed' }>(
      `SELECT p.id, p.lot_a AS lotA, p.lot_b AS lotB, p.started_at_ms AS startedAtMs, r.at_ms AS endedAtMs, r.result FROM pairing_result r CROSS JOIN pairing p ON p.id = r.pairing_id WHERE r.at_ms >= ?1 AND r.seq = (SELECT max(seq) FROM pairing_result s WHERE s.pairing_id = r.pairing_id) AND r.result IN ('passed', 'failed')`,
    ),
  }

  return {
    movements: (sinceMs: number): LedgerRow[] => ask.movements(sinceMs).map(({ fromId, fromKind, toId, toKind, isSwap, ...row }) => ({ ...row, from: { id: fromId, kind: fromKind }, to: { id: toId, kind: toKind }, isSwap: isSwap === 1 })),

    poolParts: (sinceMs: number): PoolPart[] => ask.poolParts(sinceMs),

    /** What the books learned of a pool when somebody knew the lot: no fish went by it. */
    learned: (sinceMs: number): Learned[] => ask.learned(sinceMs).map(({ placeId, placeKind, ...row }) => ({ ...row, place: { id: placeId, kind: placeKind } })),

    /** What the species book says of how a lot shows itself. */
    species: (lotId: string): CourseSpecies | undefined => {
      const row = speciesOf.get(lotId) as { share: number | null; tolerance: Tolerance | null; habits: string } | undefined
      return row && { shareSeen: row.share === null ? null : row.share / 100, tolerance: row.tolerance, habits: listed<string>(row.habits).filter(isHabit) }
    },

    /** When each bag that fish came out of was opened. */
    openedBags: (sinceMs: number): Map<string, number> =>
      new Map(
        ask.openedBags(sinceMs)
          .map(({ bagId, atMs }) => [bagId, atMs]),
      ),

    looks: (sinceMs: number): LookRow[] => ask.looks(sinceMs).map(({ answers, ...look }) => ({ ...look, answers: listed<OwnAnswer>(answers) })),

    signs: (sinceMs: number): SignRow[] => ask.signs(sinceMs),

    deaths: (sinceMs: number): SignRow[] => ask.deaths(sinceMs),

    decisions: (sinceMs: number): DecisionRow[] => ask.decisions(sinceMs),

    readings: (sinceMs: number): Reading[] => ask.readings(sinceMs).map(({ seq, tankId, what, value, atMs }) => ({ kind: 'reading', id: `o${seq}`, at: minuteOf(atMs), tank: tankId, what: levelNames[what as ReadingKind] ?? what, value })),

    doses: (sinceMs: number): Step[] => ask.doses(sinceMs).map(({ seq, tankId, agent, atMs }) => ({ kind: 'step', id: `o${seq}`, at: minuteOf(atMs), tank: tankId, of: 'dose', agent: agentId(agent) })),

    /** Breaches between waters that somebody wrote down: they wait for a decision. */
    breaches: (sinceMs: number): Exposure[] => ask.breaches(sinceMs).map(({ id, fromNode, toNode, isBoth, atMs, decision }) => ({ kind: 'exposure', id, at: minuteOf(atMs), tanks: [], waters: [toNode, ...(isBoth === 1 ? [fromNode] : [])].flatMap((node) => (node.startsWith('water:') ? [node.slice('water:'.length)] : [])), decision: decision ?? 'open' })),

    /** What people did to holds, and saw for them. */
    entries: (sinceMs: number): HoldEvent[] => ask.entries(sinceMs).flatMap(entryEvents),

    /** Fish that stood here when holds began to be kept; those whose hold was served have none to serve. */
    carried: (sinceMs: number): HoldEvent[] => {
      if (startMs === 0 || carriedAtMs < sinceMs) return []
      const rows = orm.all<{ placeId: string; placeKind: PlaceKind; lotId: string; millionths: number; policyId: string | null; beganMs: number | null; isEnded: number }>(
        sql`SELECT c.place_id AS placeId, p.kind AS placeKind, c.lot_id AS lotId, c.millionths, c.policy_id AS policyId, c.began_ms AS beganMs, c.is_ended AS isEnded FROM hold_carried c JOIN place p ON p.id = c.place_id`,
      )
      const at = minuteOf(carriedAtMs)
      return rows.flatMap(({ placeId, placeKind, lotId: lot, millionths, policyId, beganMs, isEnded }): HoldEvent[] => {
        const [tank, id] = [heldPlace({ id: placeId, kind: placeKind }), `carried:${placeId}:${lot}`]
        const came: HoldEvent = { kind: 'arrive', id, at, lot, tank, n: millionths / 1e6, policy: isEnded === 1 ? servedPolicy : policyId, ...(beganMs === null ? {} : { openedAt: minuteOf(beganMs) }) }
        return isEnded === 1 ? [came, { kind: 'end', id: `${id}:end`, at, lot, tank }] : [came]
      })
    },

    /** Tanks that came to belong to another water. */
    plumbs: (sinceMs: number): Plumb[] => ask.plumbs(sinceMs).map(({ seq, tankId, waterId, atMs }) => ({ kind: 'plumb', id: `w${seq}`, at: minuteOf(atMs), tank: tankId, water: waterId })),

    /** Pairings that are over. */
    pairings: (sinceMs: number): Pairing[] => ask.pairings(sinceMs).map(({ id, lotA, lotB, startedAtMs, endedAtMs, result }) => ({ kind: 'pairing', id, at: minuteOf(endedAtMs), lots: [lotA, lotB], startedAt: minuteOf(startedAtMs), result })),
  }
}
export type HeldHistoryStore = ReturnType<typeof createHeldHistoryStore>
