import { and, eq, isNull, sql } from 'drizzle-orm'
import type { Behaviour, BodyCondition } from '../../core/crates/crates.schema'
import type { LossMovement } from '../../core/outcomes/riskSets'
import type { Database } from '../db/open'
import { strainOf } from '../pools/ofLot'
import { waterId } from '../room/waterOf'
import { alarmAnswer, outbreak } from './outcomes.table'

/** A movement as it is read: of what counts, nothing else. */
export interface MovementRow {
  seq: number
  id: string
  kind: LossMovement['kind']
  lotId: string
  fromId: string
  toId: string
  quantity: number
  atMs: number
  cause: string | null
  reversesId: string | null
}

/** A lot with what it is told by. */
export interface LotRow {
  lotId: string
  code: string
  species: string
  strain: string | null
  origin: string
  isBeforeBooks: number
  lineId: string | null
  lineOrigin: string | null
  crateId: string | null
  crateNumber: number | null
  supplier: string | null
  packedAtMs: number | null
  poisons: string | null
  /** The policy its fish began with. */
  policyId: string | null
}

export interface BagRow {
  lotId: string
  alive: number
  dead: number
  concerns: string
  body: BodyCondition | null
  behaviour: Behaviour | null
  waterTempC: number | null
  hasBinder: number | null
  atMs: number
}

/** Queries about what figures of Outcomes are made of. */
export function createOutcomesStore({ orm, version }: Database) {
  return {
    version,
    /** Names what counting time goes by: movements, and what lots, places and registers are called. Looks and readings leave it as it is. */
    counted: (): string =>
      JSON.stringify(orm.get(sql`SELECT (SELECT max(seq) FROM movement) AS m, (SELECT count(*) FROM lot_name) AS n, (SELECT count(*) FROM hold_begin) AS h, (SELECT total(version) FROM crate) AS c, (SELECT total(version) + count(*) FROM line) AS l,
        (SELECT total(version) + count(*) FROM species) AS s, (SELECT total(version) + count(*) FROM supplier) AS u, (SELECT total(version) + count(*) FROM system) AS y, (SELECT total(version) + count(*) FROM tank) AS t, (SELECT time_zone FROM room) AS z`)),
    /** Movements from one on, in the order of the books; fish that were put right between lots are no movement of any. */
    movementsAfter: (seq: number, most: number): MovementRow[] =>
      orm.all(sql`SELECT m.seq, m.id, m.kind, m.lot_id AS lotId, m.from_place_id AS fromId, m.to_place_id AS toId, m.quantity, m.happened_at_ms AS atMs, m.cause, m.reverses_id AS reversesId
        FROM movement m WHERE m.seq > ${seq} AND coalesce(m.reason, '') <> 're-attributed' ORDER BY m.seq LIMIT ${most}`),
    /** Whose fish losses were taken to be, where nobody knew: by movement, each lot's part in millionths. */
    shares: (): { movementId: string; lotId: string; millionths: number }[] =>
      orm.all(sql`SELECT m.id AS movementId, s.lot_id AS lotId, abs(s.share) AS millionths FROM pool_event e JOIN pool_movement pm ON pm.event_id = e.id JOIN movement m ON m.id = pm.movement_id AND m.kind = 'loss'
        JOIN pool_share s ON s.event_id = e.id AND s.place_id = m.from_place_id WHERE e.how = 'attributed' AND s.share <> 0`),
    /** Fish that came to light again: of which loss, by which correction. */
    found: (): { movementId: string; lossId: string; quantity: number }[] =>
      orm.all(sql`SELECT f.movement_id AS movementId, f.loss_id AS lossId, f.quantity FROM found f WHERE NOT EXISTS (SELECT 1 FROM movement r WHERE r.reverses_id = f.movement_id)`),
    lots: (): LotRow[] =>
      orm.all(sql`SELECT lot.id AS lotId, lot.code, species.name AS species, ${sql.raw(strainOf)} AS strain, lot.origin, lot.is_before_books AS isBeforeBooks, line.id AS lineId, line.origin AS lineOrigin,
          crate.id AS crateId, crate.number AS crateNumber, supplier.name AS supplier, crate.packed_at_ms AS packedAtMs, species.poisons, b.policy_id AS policyId
        FROM lot JOIN species ON species.id = lot.species_id LEFT JOIN line ON line.lot_id = lot.id LEFT JOIN crate ON crate.id = line.crate_id LEFT JOIN supplier ON supplier.id = crate.supplier_id LEFT JOIN hold_begin b ON b.lot_id = lot.id`),
    /** Policies that were chosen for fish, the first first. */
    policiesChosen: (): { lotId: string; policyId: string | null; atMs: number }[] =>
      orm.all(sql`SELECT lot_id AS lotId, policy_id AS policyId, happened_at_ms AS atMs FROM hold_entry WHERE kind = 'policy' AND lot_id IS NOT NULL AND undone_at_ms IS NULL ORDER BY happened_at_ms`),
    /** The house's own policies, by what they are called. */
    policyNames: (): { id: string; name: string }[] => orm.all(sql`SELECT id, policy ->> '$.name' AS name FROM hold_policy`),
    /** What was found in the bags of lots. */
    bags: (): BagRow[] =>
      orm.all(sql`SELECT line.lot_id AS lotId, r.alive, r.dead, r.concerns, r.body, r.behaviour, r.water_temp_c AS waterTempC, r.has_binder AS hasBinder, r.happened_at_ms AS atMs
        FROM bag_record r JOIN bag ON bag.id = r.bag_id JOIN line ON line.id = bag.line_id WHERE r.undone_at_ms IS NULL`),
    /** Acclimations that fish began in out of their bags, with the school as it was. */
    begun: (): { lotId: string; placeId: string; runId: string; fish: number; key: string | null; name: string | null; variant: string | null; hasBinder: number; predicted: number | null; startedAtMs: number }[] =>
      orm.all(sql`SELECT s.lot_id AS lotId, s.place_id AS placeId, run.id AS runId, s.quantity AS fish, run.plan ->> '$.school.key' AS key, run.plan ->> '$.school.name' AS name, run.plan ->> '$.school.variant' AS variant, run.plan ->> '$.hasBinder' AS hasBinder, run.plan ->> '$.predicted.worst' AS predicted, run.started_at_ms AS startedAtMs
        FROM run_source s JOIN run ON run.id = s.run_id JOIN bag ON bag.id = s.place_id WHERE run.plan ->> '$.kind' = 'acclimation' ORDER BY run.started_at_ms, run.number`),
    /** Tanks with the water they are in. */
    tanks: (): { tankId: string; code: string; systemId: string; system: string; waterId: string; isUnwatched: number }[] =>
      orm.all(sql`SELECT tank.id AS tankId, tank.code, system.id AS systemId, system.name AS system, ${waterId} AS waterId, coalesce(tank.purpose, '') = 'customer' AS isUnwatched FROM tank JOIN system ON system.id = tank.system_id`),
    /** The runs that lots began in, with what was predicted of them. */
    begunOf: (lotIds: readonly string[]): { lotId: string; predicted: number | null; binds: string | null; hasBinder: number }[] =>
      orm.all(sql`SELECT s.lot_id AS lotId, run.plan ->> '$.predicted.worst' AS predicted, run.plan ->> '$.predicted.binds' AS binds, coalesce(run.plan ->> '$.hasBinder', 0) AS hasBinder
        FROM json_each(${JSON.stringify(lotIds)}) AS asked JOIN run_source s ON s.lot_id = asked.value JOIN run ON run.id = s.run_id WHERE run.plan ->> '$.kind' = 'acclimation' ORDER BY run.started_at_ms DESC`),
    /** Looks at some tanks since a moment, and signs seen in them. */
    looksAt: (tankIds: readonly string[], sinceMs: number): { atMs: number; ate: string }[] =>
      orm.all(sql`SELECT c.happened_at_ms AS atMs, c.ate FROM json_each(${JSON.stringify(tankIds)}) AS asked JOIN "check" c ON c.tank_id = asked.value WHERE c.happened_at_ms >= ${sinceMs} AND c.replaced_by_id IS NULL`),
    signsAt: (tankIds: readonly string[], sinceMs: number): { atMs: number; sign: string }[] =>
      orm.all(sql`SELECT o.happened_at_ms AS atMs, o.word AS sign FROM json_each(${JSON.stringify(tankIds)}) AS asked JOIN observation o ON o.tank_id = asked.value WHERE o.kind = 'sign' AND o.happened_at_ms >= ${sinceMs} AND o.replaced_by_seq IS NULL`),
    /** Whether a water touched another in a window, beside fish that moved. */
    hadContact: (waterId: string, fromMs: number, toMs: number): boolean =>
      orm.get(sql`SELECT 1 FROM contact WHERE ${`water:${waterId}`} IN (from_node, to_node) AND undone_at_ms IS NULL AND at_ms BETWEEN ${fromMs} AND ${toMs} LIMIT 1`) !== undefined,
    /** Alarms that a lead answered for, the first first. */
    answers: (): { stream: string; on: string; found: string; by: string }[] =>
      orm.all(sql`SELECT a.stream, a."on", a.found, staff.name AS by FROM alarm_answer a JOIN staff ON staff.id = a.staff_id ORDER BY a.recorded_at_ms`),
    outbreaks: (): { id: string; waterId: string; name: string; from: string; to: string }[] => orm.all(sql`SELECT id, water_id AS waterId, name, from_on AS "from", to_on AS "to" FROM outbreak WHERE undone_at_ms IS NULL ORDER BY recorded_at_ms`),
    insertAnswer: (row: typeof alarmAnswer.$inferInsert): void => void orm.insert(alarmAnswer).values(row).run(),
    undoOutbreak: (id: string, by: { undoneById: string; undoneAtMs: number }): boolean => orm.update(outbreak).set(by).where(and(eq(outbreak.id, id), isNull(outbreak.undoneAtMs))).returning({ id: outbreak.id }).get() !== undefined,
    insertOutbreak: (row: typeof outbreak.$inferInsert): void => void orm.insert(outbreak).values(row).run(),
    /** Looks at tanks since a moment: when, and how the fish ate. */
    looks: (sinceMs: number): { tankId: string; atMs: number; ate: string }[] => orm.all(sql`SELECT tank_id AS tankId, happened_at_ms AS atMs, ate FROM "check" WHERE happened_at_ms >= ${sinceMs} AND replaced_by_id IS NULL ORDER BY happened_at_ms`),
    /** Signs seen in tanks since a moment. */
    signs: (sinceMs: number): { tankId: string; lotId: string | null; atMs: number; sign: string }[] =>
      orm.all(sql`SELECT tank_id AS tankId, lot_id AS lotId, happened_at_ms AS atMs, word AS sign FROM observation WHERE kind = 'sign' AND happened_at_ms >= ${sinceMs} AND replaced_by_seq IS NULL AND tank_id IS NOT NULL ORDER BY happened_at_ms`),
  }
}
export type OutcomesStore = ReturnType<typeof createOutcomesStore>
