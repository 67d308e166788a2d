import { eq, sql } from 'drizzle-orm'
import type { StockRow, StoredPlan } from '../../core/plans/pooledPlans'
import { nameKey } from '../../core/words/nameKey'
import type { Database } from '../db/open'
import { newId } from '../newId'
import { strainOf } from '../pools/ofLot'
import { tank } from '../room/room.table'
import { lotLength, plan, thing } from './plans.table'

/** A plan with who made it and how it ended. */
export interface PlanRow extends StoredPlan {
  fromCode: string
  toCode: string
  note: string | null
  madeBy: string
  endedBy: string | null
  endedAtMs: number | null
}

export interface KindRow extends StockRow {
  speciesId: string
  species: string
  strain: string | null
  adultCm: number | null
  /** Length that was noted when the lot was entered, and when; null where nobody did. */
  notedCm: number | null
  notedAtMs: number
}

/** Queries about moves that wait. */
export function createPlansStore({ orm, version }: Database) {
  const asRow = ({ endedAs, isMovedBack, fish, when, ...row }: Omit<PlanRow, 'state' | 'fish' | 'when'> & { fish: string; when: string; endedAs: 'moved' | 'done' | 'dropped' | null; isMovedBack: number }): PlanRow => {
    const isOpen = endedAs === null || (endedAs === 'moved' && isMovedBack === 1)
    const ended = isOpen ? { endedBy: null, endedAtMs: null } : {}
    return { ...row, ...ended, fish: JSON.parse(fish) as StoredPlan['fish'], when: JSON.parse(when) as StoredPlan['when'], state: isOpen ? 'open' : endedAs === 'dropped' ? 'dropped' : 'done' }
  }
  return {
    version,

    /** Open plans, those that ended since a moment, and of older ones these. */
    plans: (sinceMs: number, ids: readonly string[] = []): PlanRow[] =>
      orm
        .all<Parameters<typeof asRow>[0]>(
          sql`SELECT p.id, p.number, p.from_tank_id AS fromTankId, p.to_tank_id AS toTankId, p.fish, p."when" AS "when", p.takes, p.until_on AS untilOn, p.note, p.made_at_ms AS madeAtMs, p.ended_as AS endedAs, p.ended_at_ms AS endedAtMs,
              f.code AS fromCode, t.code AS toCode, m.name AS madeBy, e.name AS endedBy,
              CASE WHEN p.ended_as = 'moved' THEN NOT EXISTS (SELECT 1 FROM movement v WHERE v.command_key = p.ended_key AND v.kind <> 'reversal' AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = v.id)) ELSE 0 END AS isMovedBack
            FROM plan p JOIN tank f ON f.id = p.from_tank_id JOIN tank t ON t.id = p.to_tank_id JOIN staff m ON m.id = p.staff_id LEFT JOIN staff e ON e.id = p.ended_by_id
            WHERE p.ended_at_ms IS NULL OR p.ended_at_ms >= ${sinceMs} OR p.id IN (SELECT value FROM json_each(${JSON.stringify(ids)})) ORDER BY p.number`,
        )
        .map(asRow),
    nextNumber: (): number => (orm.get<{ number: number | null }>(sql`SELECT max(number) AS number FROM plan`).number ?? 0) + 1,
    insert: (row: Omit<typeof plan.$inferInsert, 'id'>): string => {
      const id = newId()
      orm.insert(plan).values({ id, ...row }).run()
      return id
    },
    keepNote: (id: string, note: string): void => void orm.update(plan).set({ note }).where(eq(plan.id, id)).run(),
    end: (id: string, ended: Pick<typeof plan.$inferInsert, 'endedAs' | 'endedKey' | 'endedById' | 'endedAtMs'>): void => void orm.update(plan).set(ended).where(eq(plan.id, id)).run(),

    /** Every fish that is in the house, wherever it stands. */
    stock: (): KindRow[] =>
      orm
        .all<Omit<KindRow, 'kind'>>(
          sql`SELECT stock.place_id AS place, stock.lot_id AS lot, stock.quantity AS n, lot.species_id AS speciesId, species.name AS species, species.adult_cm AS adultCm, ${sql.raw(strainOf)} AS strain, line.size_cm AS notedCm, lot.created_at_ms AS notedAtMs
            FROM stock JOIN lot ON lot.id = stock.lot_id JOIN species ON species.id = lot.species_id LEFT JOIN line ON line.lot_id = lot.id WHERE stock.quantity > 0 AND stock.place_id <> 'outside' ORDER BY lot.code`,
        )
        .map((row) => ({ ...row, kind: JSON.stringify([row.speciesId, row.strain]) })),
    /** Lengths of these lots, the oldest first. */
    lengths: (lotIds: readonly string[]): { lotId: string; cm: number; atMs: number }[] =>
      orm.all(sql`SELECT lot_id AS lotId, cm, at_ms AS atMs FROM lot_length WHERE lot_id IN (SELECT value FROM json_each(${JSON.stringify(lotIds)})) ORDER BY at_ms, id`),
    insertLength: (row: Omit<typeof lotLength.$inferInsert, 'id'>): void => void orm.insert(lotLength).values({ id: newId(), ...row }).run(),

    things: () => orm.select({ key: thing.key, name: thing.name, have: thing.have }).from(thing).orderBy(thing.name).all(),
    keepThing: (row: Omit<typeof thing.$inferInsert, 'key'>): void => void orm.insert(thing).values({ key: nameKey(row.name), ...row }).onConflictDoUpdate({ target: thing.key, set: { have: row.have, countedById: row.countedById, countedAtMs: row.countedAtMs } }).run(),

    /** How far open crates have come, and these: *arrived* once a bag is open, *cancelled* when closed before. */
    crates: (ids: readonly string[]): { id: string; number: number; supplier: string; state: 'expected' | 'arrived' | 'cancelled' }[] =>
      orm.all(sql`SELECT crate.id, crate.number, supplier.name AS supplier, CASE WHEN EXISTS (SELECT 1 FROM bag JOIN bag_record r ON r.bag_id = bag.id AND r.undone_at_ms IS NULL WHERE bag.crate_id = crate.id) THEN 'arrived' WHEN crate.closed_at_ms IS NOT NULL THEN 'cancelled' ELSE 'expected' END AS state
        FROM crate JOIN supplier ON supplier.id = crate.supplier_id WHERE crate.id IN (SELECT id FROM crate WHERE closed_at_ms IS NULL UNION SELECT value FROM json_each(${JSON.stringify(ids)})) ORDER BY crate.number`),
    tankCodes: (): Map<string, string> => new Map(orm.select({ id: tank.id, code: tank.code }).from(tank).all().map(({ id, code }) => [id, code])),
  }
}
export type PlansStore = ReturnType<typeof createPlansStore>
