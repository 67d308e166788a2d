import { desc, eq, isNull, sql } from 'drizzle-orm'
import type { PutInto } from '../../core/dosing/agentsMet'
import type { HoldPolicy } from '../../core/holds/policy'
import { usualPolicy, type PolicyRule } from '../../core/holds/policyFor'
import { listed } from '../db/listed'
import type { Database } from '../db/open'
import { waterId } from '../room/waterOf'
import { everInWater, inWaterThen } from '../room/waterThen'
import { breachDecision, holdBegin, holdEntry, holdPolicy, holdRules, tankWater } from './holds.table'

/** What a policy is chosen by for fish that came. */
export interface NewLotRow {
  lotId: string
  /** Whether they came out of a bag: others begin no hold by themselves. */
  isFromBag: boolean
  water: string
  groups: string[]
  /** What it is, by the species book. */
  animal: string | null
  isKnown: boolean
  supplier: string
  origin: string | null
  isWeak: boolean
  /** The tank they came into; null for a vessel. */
  tankId: string | null
  alkalinityMeqL: number | null
  salinityPpt: number | null
}

/** Queries of what is kept for holds themselves; what happened to fish is in the other books. */
export function createHoldBooksStore({ orm }: Database) {
  /** The water that a tank belongs to, as was kept last; its own where nothing was. */
  const waterOf = (tankId: string): string => orm.get<{ id: string } | undefined>(sql`SELECT water_id AS id FROM tank_water WHERE tank_id = ${tankId} ORDER BY seq DESC LIMIT 1`)?.id ?? tankId
  return {
    waterOf,
    policies: (): { id: string; policy: HoldPolicy; version: number; retiredAtMs: number | null }[] => orm.select().from(holdPolicy).orderBy(holdPolicy.id).all(),
    policy: (id: string) => orm.select().from(holdPolicy).where(eq(holdPolicy.id, id)).get() ?? null,
    writePolicy: (row: { id: string; policy: HoldPolicy; version: number; retiredAtMs: number | null }): void =>
      void orm.insert(holdPolicy).values(row).onConflictDoUpdate({ target: holdPolicy.id, set: { policy: row.policy, version: row.version, retiredAtMs: row.retiredAtMs } }).run(),

    rules: (): { version: number; rules: PolicyRule[] } => orm.select({ version: holdRules.version, rules: holdRules.rules }).from(holdRules).orderBy(desc(holdRules.version)).limit(1).get() ?? { version: 0, rules: [] },
    writeRules: (row: typeof holdRules.$inferInsert): void => void orm.insert(holdRules).values(row).run(),

    /** Lots of which a command brought the first fish into a tank or a vessel, with what their hold is chosen by. */
    cameBy: (commandKey: string): NewLotRow[] =>
      orm
        .all<Omit<NewLotRow, 'groups' | 'isFromBag' | 'isKnown' | 'isWeak'> & { groups: string; isFromBag: number; isWeak: number; identity: string | null }>(
          sql`SELECT lot.id AS lotId, max(f.kind = 'bag') AS isFromBag, coalesce(system.water, '') AS water, coalesce(species.agent_groups, '[]') AS groups, species.animal, line.identity, lot.origin AS supplier, line.origin,
              EXISTS (SELECT 1 FROM bag JOIN bag_record r ON r.bag_id = bag.id AND r.undone_at_ms IS NULL WHERE bag.line_id = line.id AND (r.body = 'thin' OR r.behaviour IN ('distressed', 'on its side') OR r.concerns LIKE '%"fish"%')) AS isWeak,
              tank.id AS tankId, system.alkalinity_meq_l AS alkalinityMeqL, system.salinity_ppt AS salinityPpt
            FROM movement m JOIN place f ON f.id = m.from_place_id JOIN place t ON t.id = m.to_place_id AND t.kind IN ('tank', 'vessel') JOIN lot ON lot.id = m.lot_id JOIN species ON species.id = lot.species_id
              LEFT JOIN line ON line.lot_id = lot.id LEFT JOIN tank ON tank.id = t.id LEFT JOIN system ON system.id = tank.system_id
            WHERE m.command_key = ${commandKey} AND m.kind <> 'reversal' AND f.kind NOT IN ('tank', 'vessel') AND NOT EXISTS (SELECT 1 FROM hold_begin b WHERE b.lot_id = lot.id) GROUP BY lot.id`,
        )
        .map(({ groups, isFromBag, isWeak, identity, ...row }) => ({ ...row, groups: listed<string>(groups), isFromBag: isFromBag === 1, isWeak: isWeak === 1, isKnown: identity !== 'doubtful' })),
    /** What was put into the water of a tank, found there or out of it again, oldest first. */
    putInto: (tankId: string): PutInto[] => {
      const water = waterOf(tankId)
      return orm.all(sql`SELECT 'dose' AS "of", o.word AS agent, o.happened_at_ms AS atMs FROM ${everInWater(water)} t CROSS JOIN observation o ON o.tank_id = t.id AND o.kind = 'dose' WHERE o.replaced_by_seq IS NULL AND ${inWaterThen(water, sql`o.tank_id`, sql`o.happened_at_ms`)}
          UNION ALL SELECT e.kind, e.word, e.happened_at_ms FROM ${everInWater(water)} t CROSS JOIN hold_entry e ON e.place_id = t.id AND e.kind IN ('found', 'cleared') WHERE e.undone_at_ms IS NULL AND ${inWaterThen(water, sql`e.place_id`, sql`e.happened_at_ms`)} ORDER BY 3`)
    },
    /** What stands in the water of a tank besides fish, as far as somebody said; a binder while it works. */
    contentsAt: (tankId: string, nowMs: number): string[] => {
      const row = orm.get<{ contents: string; untilMs: number | null } | undefined>(
        sql`SELECT c.contents, c.binder_until_ms AS untilMs FROM water_contents c WHERE c.water_id = ${waterOf(tankId)} ORDER BY c.seq DESC LIMIT 1`,
      )
      return listed<string>(row?.contents ?? null).filter((each) => each !== 'binder' || (row?.untilMs ?? 0) > nowMs)
    },
    /** Tanks in which fish of some lots stood, and from when to when. */
    staysOf: (lotIds: readonly string[]): { tankId: string; fromMs: number; toMs: number | null }[] =>
      orm.all(sql`SELECT s.place_id AS tankId, s.from_ms AS fromMs, s.until_ms AS toMs FROM json_each(${JSON.stringify(lotIds)}) l CROSS JOIN stay s ON s.lot_id = l.value JOIN tank ON tank.id = s.place_id`),
    begin: (row: typeof holdBegin.$inferInsert): void => void orm.insert(holdBegin).values(row).run(),

    /** The policy that fish of a lot were held by last: the one they began, or were put under. */
    policyOfLot: (lotId: string): string | null =>
      orm.get<{ policyId: string | null }>(sql`SELECT coalesce((SELECT policy_id FROM hold_entry WHERE lot_id = ${lotId} AND kind = 'policy' AND undone_at_ms IS NULL ORDER BY happened_at_ms DESC LIMIT 1), (SELECT policy_id FROM hold_begin WHERE lot_id = ${lotId}), (SELECT ${usualPolicy} FROM hold_carried WHERE lot_id = ${lotId} AND (policy_id IS NOT NULL OR is_ended = 1))) AS policyId`).policyId,

    /** Tanks whose water is another than was last kept, with what it is now. */
    newWaters: (): { tankId: string; waterId: string; isFirst: number }[] =>
      orm.all(sql`SELECT now.id AS tankId, now.water AS waterId, kept.water_id IS NULL AS isFirst FROM (SELECT tank.id, ${waterId} AS water FROM tank JOIN system ON system.id = tank.system_id) AS now
          LEFT JOIN tank_water kept ON kept.seq = (SELECT max(seq) FROM tank_water w WHERE w.tank_id = now.id) WHERE kept.water_id IS NOT now.water`),
    keepWater: (row: { tankId: string; waterId: string; sinceMs: number }): void => void orm.insert(tankWater).values(row).run(),
    /** The first water of every tank; what changed later happened. */
    firstWaters: (): Record<string, string> => Object.fromEntries(orm.all<{ tankId: string; waterId: string }>(sql`SELECT tank_id AS tankId, water_id AS waterId FROM tank_water WHERE seq IN (SELECT min(seq) FROM tank_water GROUP BY tank_id)`).map((row) => [row.tankId, row.waterId])),

    insertEntry: (row: typeof holdEntry.$inferInsert): void => void orm.insert(holdEntry).values(row).run(),
    entry: (id: string) => orm.select().from(holdEntry).where(eq(holdEntry.id, id)).get() ?? null,
    undoEntry: (id: string, by: { undoneById: string; undoneAtMs: number }): void => void orm.update(holdEntry).set(by).where(eq(holdEntry.id, id)).run(),

    decideBreach: (row: typeof breachDecision.$inferInsert): void => void orm.insert(breachDecision).values(row).run(),
    /** What was decided of a breach before is so no more. */
    undoBreach: (contactId: string, by: { undoneById: string; undoneAtMs: number }): void =>
      void orm.update(breachDecision).set(by).where(sql`${breachDecision.contactId} = ${contactId} AND ${isNull(breachDecision.undoneAtMs)}`).run(),
  }
}
export type HoldBooksStore = ReturnType<typeof createHoldBooksStore>
