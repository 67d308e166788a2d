import { and, desc, eq, isNull, sql } from 'drizzle-orm'
import { agentId } from '../../core/dosing/agents'
import type { WaterContent } from '../../core/dosing/doseReasons'
import type { ReadingKind } from '../../core/room/glass.schema'
import { agent as product } from '../bench/bench.table'
import { listed } from '../db/listed'
import type { Database } from '../db/open'
import { everInWater, inWaterThen } from '../room/waterThen'
import { dose, regimen, waterChange, waterContents } from './regimens.table'

export interface Undone {
  undoneById: string
  undoneAtMs: number
}
/** A dose as it is told. */
export interface DoseTold {
  id: string
  regimenId: string | null
  agent: string
  product: string
  tankId: string
  given: number
  mg: number
  offered: number | null
  towardsMgL: number | null
  isCut: boolean
  reasons: string
  reason: string | null
  by: string
  staffId: string
  atMs: number
  recordedAtMs: number
}
/** A change of water as it is told. */
export interface ChangeTold {
  id: string
  regimenId: string | null
  tankId: string
  litres: number
  agent: string | null
  mixMgL: number | null
  salinityPpt: number | null
  by: string
  staffId: string
  atMs: number
  recordedAtMs: number
}

/** Queries of what is put into waters and done to them. */
export function createRegimensStore({ orm }: Database) {
  return {
    products: () => orm.select().from(product).where(isNull(product.retiredAtMs)).orderBy(product.name).all().map(withId),
    product(id: string) {
      const row = orm.select().from(product).where(eq(product.id, id)).get()
      return row ? withId(row) : null
    },

    insertContents: (row: typeof waterContents.$inferInsert): void => void orm.insert(waterContents).values(row).run(),
    /** What stands in a water besides fish; null until somebody said. */
    contents: (waterId: string): { contents: WaterContent[]; binderUntilMs: number | null; atMs: number } | null => orm.select({ contents: waterContents.contents, binderUntilMs: waterContents.binderUntilMs, atMs: waterContents.atMs }).from(waterContents).where(eq(waterContents.waterId, waterId)).orderBy(desc(waterContents.seq)).limit(1).get() ?? null,
    /** Waters in which a binder is at work at a moment, and until when. */
    binders: (nowMs: number): { waterId: string; untilMs: number }[] => orm.all(sql`SELECT c.water_id AS waterId, c.binder_until_ms AS untilMs FROM water_contents c WHERE c.binder_until_ms > ${nowMs} AND c.seq = (SELECT max(seq) FROM water_contents later WHERE later.water_id = c.water_id)`),

    insertDose: (row: typeof dose.$inferInsert): void => void orm.insert(dose).values(row).run(),
    dose: (id: string) => orm.select().from(dose).where(eq(dose.id, id)).get() ?? null,
    undoDose: (id: string, by: Undone): void => void orm.update(dose).set(by).where(eq(dose.id, id)).run(),
    /** Doses into a water since a moment, oldest first. */
    doses: (waterId: string, sinceMs: number): DoseTold[] =>
      orm
        .all<Omit<DoseTold, 'isCut'> & { isCut: number }>(
          sql`SELECT d.id, d.regimen_id AS regimenId, d.agent, p.name AS product, d.tank_id AS tankId, d.given, d.mg, d.offered, d.towards_mg_l AS towardsMgL, d.is_cut AS isCut, d.reasons, d.reason, staff.name AS "by", d.staff_id AS staffId, d.happened_at_ms AS atMs, d.recorded_at_ms AS recordedAtMs
            FROM ${everInWater(waterId)} t CROSS JOIN dose d ON d.tank_id = t.id AND d.happened_at_ms >= ${sinceMs} JOIN agent p ON p.id = d.product_id JOIN staff ON staff.id = d.staff_id
            WHERE d.undone_at_ms IS NULL AND ${inWaterThen(waterId, sql`d.tank_id`, sql`d.happened_at_ms`)} ORDER BY d.happened_at_ms, d.recorded_at_ms, d.id`,
        )
        .map(({ isCut, ...row }) => ({ ...row, isCut: isCut === 1 })),

    /** Doses since a moment, into whichever water; newest first. */
    dosesSince: (sinceMs: number): { id: string; product: string; isPowder: number; given: number; tankCode: string; regimenId: string | null; reason: string | null; by: string; atMs: number }[] =>
      orm.all(sql`SELECT d.id, p.name AS product, p.strength_mg_per_ml IS NULL AS isPowder, d.given, tank.code AS tankCode, d.regimen_id AS regimenId, d.reason, staff.name AS "by", d.happened_at_ms AS atMs
          FROM observation o CROSS JOIN dose d ON d.observation_seq = o.seq JOIN agent p ON p.id = d.product_id JOIN tank ON tank.id = d.tank_id JOIN staff ON staff.id = d.staff_id
          WHERE o.kind = 'dose' AND o.happened_at_ms >= ${sinceMs} AND o.replaced_by_seq IS NULL ORDER BY d.happened_at_ms DESC`),
    /** Baths and dips of the bench that are under way, or ended since a moment. */
    bathsSince: (sinceMs: number): { id: string; number: number; kind: string; fish: string; by: string; atMs: number }[] =>
      orm.all(sql`SELECT r.id, r.number, json_extract(r.plan, '$.kind') AS kind, staff.name AS "by", r.started_at_ms AS atMs,
            (SELECT group_concat(named.fish, ', ') FROM (SELECT sum(s.quantity) || ' ' || species.name AS fish FROM run_source s JOIN lot ON lot.id = s.lot_id JOIN species ON species.id = lot.species_id WHERE s.run_id = r.id GROUP BY species.name) named) AS fish
          FROM (SELECT id FROM run WHERE ended_at_ms IS NULL UNION ALL SELECT id FROM run WHERE ended_at_ms >= ${sinceMs}) each CROSS JOIN run r ON r.id = each.id JOIN staff ON staff.id = r.staff_id
          WHERE json_extract(r.plan, '$.kind') IN ('bath', 'dip')`),
    insertChange: (row: typeof waterChange.$inferInsert): void => void orm.insert(waterChange).values(row).run(),
    change: (id: string) => orm.select().from(waterChange).where(eq(waterChange.id, id)).get() ?? null,
    undoChange: (id: string, by: Undone): void => void orm.update(waterChange).set(by).where(eq(waterChange.id, id)).run(),
    /** The changes that a chore made are undone with it. */
    undoChangesOf: ({ choreDoneId, askedChoreId }: { choreDoneId?: string; askedChoreId?: string }, by: Undone): void =>
      void orm.update(waterChange).set(by).where(and(isNull(waterChange.undoneAtMs), choreDoneId === undefined ? eq(waterChange.askedChoreId, askedChoreId ?? '') : eq(waterChange.choreDoneId, choreDoneId))).run(),
    /** Changes of a water since a moment, oldest first. */
    changes: (waterId: string, sinceMs: number): ChangeTold[] =>
      orm.all(sql`SELECT c.id, c.regimen_id AS regimenId, c.tank_id AS tankId, c.litres, c.agent, c.mix_mg_l AS mixMgL, c.salinity_ppt AS salinityPpt, staff.name AS "by", c.staff_id AS staffId, c.happened_at_ms AS atMs, c.recorded_at_ms AS recordedAtMs
          FROM ${everInWater(waterId)} t CROSS JOIN water_change c ON c.tank_id = t.id AND c.happened_at_ms >= ${sinceMs} JOIN staff ON staff.id = c.staff_id
          WHERE c.undone_at_ms IS NULL AND ${inWaterThen(waterId, sql`c.tank_id`, sql`c.happened_at_ms`)} ORDER BY c.happened_at_ms, c.recorded_at_ms, c.id`),

    /** Readings of one kind in a water since a moment, oldest first. */
    readings: (waterId: string, what: ReadingKind, sinceMs: number): { atMs: number; value: number; instrument: string | null }[] =>
      orm.all(sql`SELECT o.happened_at_ms AS atMs, o.value, o.instrument FROM ${everInWater(waterId)} t CROSS JOIN observation o ON o.tank_id = t.id AND o.kind = 'reading' AND o.happened_at_ms >= ${sinceMs}
          WHERE o.word = ${what} AND o.replaced_by_seq IS NULL AND ${inWaterThen(waterId, sql`o.tank_id`, sql`o.happened_at_ms`)} ORDER BY o.happened_at_ms, o.seq`),

    /** When an agent was found in a water that nobody here dosed; null if never. The agent as the table of refusals calls it. */
    foundAt: (waterId: string, agent: string): number | null =>
      orm.get<{ atMs: number | null }>(sql`SELECT min(e.happened_at_ms) AS atMs FROM ${everInWater(waterId)} t CROSS JOIN hold_entry e ON e.place_id = t.id AND e.kind = 'found' AND e.word = ${agent} WHERE e.undone_at_ms IS NULL AND ${inWaterThen(waterId, sql`e.place_id`, sql`e.happened_at_ms`)}`).atMs,

    /** The litres that somebody wrote down of the tanks of a water. */
    litres: (tankIds: readonly string[]): { id: string; netL: number | null; grossL: number | null }[] => orm.all(sql`SELECT tank.id, net_volume_l AS netL, gross_volume_l AS grossL FROM json_each(${JSON.stringify(tankIds)}) t CROSS JOIN tank ON tank.id = t.value`),
    sump: (systemId: string): { sumpL: number | null; filter: string | null } => orm.get(sql`SELECT sump_l AS sumpL, filter FROM system WHERE id = ${systemId}`) ?? { sumpL: null, filter: null },
    /** Hold groups and the book's word for every agent, of the kinds of some lots. */
    kinds: (lotIds: readonly string[]): { lotId: string; groups: string[]; animal: string | null; isKnown: boolean; isWeak: boolean; book: Record<string, string | null>; sensitivities: string[] }[] =>
      orm
        .all<{ lotId: string; groups: string | null; animal: string | null; sensitivities: string; identity: string | null; isWeak: number; book: string }>(
          sql`SELECT lot.id AS lotId, species.agent_groups AS groups, species.animal, species.sensitivities, line.identity,
              json_object('copper', species.copper, 'formalin', species.formalin, 'methylene blue', species.methylene_blue, 'malachite green', species.malachite_green, 'salt', species.salt, 'praziquantel', species.praziquantel, 'chloroquine', species.chloroquine) AS book,
              EXISTS (SELECT 1 FROM feeding_order f WHERE f.lot_id = lot.id AND f.kind = 'conditioning' AND f.ended_at_ms IS NULL) OR coalesce((SELECT e.word = 'thin' FROM hold_entry e WHERE e.lot_id = lot.id AND e.kind = 'body' AND e.undone_at_ms IS NULL ORDER BY e.happened_at_ms DESC LIMIT 1), 0) AS isWeak
            FROM json_each(${JSON.stringify(lotIds)}) l CROSS JOIN lot ON lot.id = l.value JOIN species ON species.id = lot.species_id LEFT JOIN line ON line.lot_id = lot.id`,
        )
        .map(({ groups, sensitivities, identity, isWeak, book, ...row }) => ({ ...row, groups: listed<string>(groups), sensitivities: listed<string>(sensitivities), isKnown: identity !== 'doubtful', isWeak: isWeak === 1, book: JSON.parse(book) as Record<string, string | null> })),

    insertRegimen: (row: typeof regimen.$inferInsert): void => void orm.insert(regimen).values(row).run(),
    regimen: (id: string) => orm.select().from(regimen).where(eq(regimen.id, id)).get() ?? null,
    endRegimen: (id: string, by: { endedAtMs: number; endedById: string; endReason: string }): void => void orm.update(regimen).set(by).where(eq(regimen.id, id)).run(),
    running: () => orm.select().from(regimen).where(and(isNull(regimen.undoneAtMs), isNull(regimen.endedAtMs))).all(),
    /** Those that run, and those that ended since a moment; newest first. */
    regimens: (endedSinceMs: number) => orm.select().from(regimen).where(and(isNull(regimen.undoneAtMs), sql`(${regimen.endedAtMs} IS NULL OR ${regimen.endedAtMs} >= ${endedSinceMs})`)).orderBy(desc(regimen.happenedAtMs), regimen.id).all(),
    /** Moments since one at which a lot was given medicated food. */
    feedsOf: (lotId: string, sinceMs: number): number[] => orm.all<{ atMs: number }>(sql`SELECT happened_at_ms AS atMs FROM hold_entry WHERE lot_id = ${lotId} AND happened_at_ms >= ${sinceMs} AND kind = 'feed' AND undone_at_ms IS NULL`).map(({ atMs }) => atMs),
    /** Takes back the steps that were kept beside some commands; answers whether there were any. */
    undoStepsOf: (commandKeys: readonly string[], { undoneById, undoneAtMs }: Undone): boolean =>
      orm.all(sql`UPDATE hold_entry SET undone_by_id = ${undoneById}, undone_at_ms = ${undoneAtMs} WHERE command_key IN (SELECT value FROM json_each(${JSON.stringify(commandKeys)})) AND kind IN ('transfer', 'cleared', 'feed') AND undone_at_ms IS NULL RETURNING id`).length > 0,
    /** Steps of a regimen that are kept beside holds, oldest first. */
    steps: (regimenId: string): { id: string; kind: string; placeId: string; word: string | null; by: string; staffId: string; atMs: number; recordedAtMs: number }[] =>
      orm.all(sql`SELECT e.id, e.kind, e.place_id AS placeId, e.word, staff.name AS "by", e.staff_id AS staffId, e.happened_at_ms AS atMs, e.recorded_at_ms AS recordedAtMs FROM hold_entry e JOIN staff ON staff.id = e.staff_id
          WHERE e.regimen_id = ${regimenId} AND e.undone_at_ms IS NULL ORDER BY e.happened_at_ms, e.recorded_at_ms, e.id`),
  }
}
export type RegimensStore = ReturnType<typeof createRegimensStore>


/** The register says what a product is as people do. */
const withId = <Row extends { agent: string | null }>(row: Row): Row => ({ ...row, agent: row.agent === null ? null : agentId(row.agent) })
