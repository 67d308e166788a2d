import { eq, sql, type SQL } from 'drizzle-orm'
import { mayComeBack, type WrittenOff } from '../../core/pools/foundAgain'
import type { LotArrival } from '../../core/pools/lotAge'
import type { Database } from '../db/open'
import { movement } from '../ledger/ledger.table'
import { arrivedAt, strainOf } from './ofLot'
import { found, poolEvent, poolMovement, poolShare } from './pools.table'

/** Fish that cannot be told apart: of one species and strain. */
export interface Kind {
  speciesId: string
  strain: string | null
}

/** A lot in a place, in both books. */
export interface LotInPool extends Kind, LotArrival {
  lotId: string
  code: string
  species: string
  booked: number
  /** Fish to be expected, in millionths. */
  expected: number
}

type LotRow = Omit<LotInPool, 'isBeforeBooks'> & { isBeforeBooks: number }
export type ShareRow = typeof poolShare.$inferInsert

/** Queries about lots that stand together, and what happened to them. */
export function createPoolsStore({ orm }: Database) {
  const lots = (placeId: string, where: SQL): LotInPool[] =>
    orm
      .all<LotRow>(
        sql`SELECT lot.id AS lotId, lot.code, lot.species_id AS speciesId, species.name AS species, ${sql.raw(strainOf)} AS strain, coalesce(stock.quantity, 0) AS booked, coalesce(e.millionths, 0) AS expected,
            ${sql.raw(arrivedAt)} AS arrivedAtMs, lot.is_before_books AS isBeforeBooks
          FROM (SELECT lot_id FROM stock WHERE place_id = ${placeId} UNION SELECT lot_id FROM expected_stock WHERE place_id = ${placeId}) AS here
            JOIN lot ON lot.id = here.lot_id JOIN species ON species.id = lot.species_id LEFT JOIN line ON line.lot_id = lot.id
            LEFT JOIN stock ON stock.place_id = ${placeId} AND stock.lot_id = lot.id LEFT JOIN expected_stock e ON e.place_id = ${placeId} AND e.lot_id = lot.id
          WHERE ${where} ORDER BY lot.code`,
      )
      .map(({ isBeforeBooks, ...lot }) => ({ ...lot, isBeforeBooks: isBeforeBooks === 1 }))

  return {
    /** All lots of a kind in a place, also those of which only something is to be expected. */
    lotsOf: (placeId: string, { speciesId, strain }: Kind): LotInPool[] => lots(placeId, sql`lot.species_id = ${speciesId} AND ${sql.raw(strainOf)} IS ${strain}`),

    /** What kind of fish a lot is; null for one that is not in the books. */
    kindOf: (lotId: string): Kind | null => orm.get<Kind | undefined>(sql`SELECT lot.species_id AS speciesId, ${sql.raw(strainOf)} AS strain FROM lot LEFT JOIN line ON line.lot_id = lot.id WHERE lot.id = ${lotId}`) ?? null,

    codeOf: (lotId: string): string => orm.get<{ code: string } | undefined>(sql`SELECT code FROM lot WHERE id = ${lotId}`)?.code ?? '',

    /** Places where something is to be expected of a lot, with what is booked there. */
    placesOf: (lotId: string): { placeId: string; booked: number }[] =>
      orm.all(sql`SELECT e.place_id AS placeId, coalesce(stock.quantity, 0) AS booked FROM expected_stock e LEFT JOIN stock ON stock.place_id = e.place_id AND stock.lot_id = e.lot_id WHERE e.lot_id = ${lotId}
        UNION SELECT stock.place_id, stock.quantity FROM stock JOIN place ON place.id = stock.place_id AND place.kind IN ('tank', 'vessel') WHERE stock.lot_id = ${lotId}`),

    /** Whether it is kept of a place how many fish of a lot are to be expected there. */
    isKept: (placeId: string): boolean => orm.get(sql`SELECT 1 FROM place WHERE id = ${placeId} AND kind IN ('tank', 'vessel')`) !== undefined,

    /** Fish to be expected of a lot in a place, in millionths. */
    expected: (placeId: string, lotId: string): number => orm.get<{ millionths: number } | undefined>(sql`SELECT millionths FROM expected_stock WHERE place_id = ${placeId} AND lot_id = ${lotId}`)?.millionths ?? 0,

    insertEvent: (row: typeof poolEvent.$inferInsert) => void orm.insert(poolEvent).values(row).run(),
    insertMovement: (eventId: string, movementId: string, isSwap: boolean) => void orm.insert(poolMovement).values({ eventId, movementId, isSwap: Number(isSwap) }).run(),
    insertShare: (row: ShareRow) => void orm.insert(poolShare).values(row).run(),

    /** The event that wrote a movement; null for a movement that stands for itself. */
    eventOf: (movementId: string) => orm.select({ id: poolEvent.id, how: poolEvent.how, reversesId: poolEvent.reversesId }).from(poolMovement).innerJoin(poolEvent, eq(poolEvent.id, poolMovement.eventId)).where(eq(poolMovement.movementId, movementId)).get() ?? null,
    isReversed: (eventId: string): boolean => orm.select({ id: poolEvent.id }).from(poolEvent).where(eq(poolEvent.reversesId, eventId)).get() !== undefined,
    /** Its movements in the order of recording. */
    movementsOf: (eventId: string) => orm.select({ movement, isSwap: poolMovement.isSwap }).from(poolMovement).innerJoin(movement, eq(movement.id, poolMovement.movementId)).where(eq(poolMovement.eventId, eventId)).orderBy(movement.seq).all(),
    sharesOf: (eventId: string): ShareRow[] => orm.select().from(poolShare).where(eq(poolShare.eventId, eventId)).all(),

    /** What events count for in each lot at a place, in millionths. */
    sharesAt: (placeId: string, eventIds: readonly string[]): { eventId: string; lotCode: string; share: number }[] =>
      orm.all(sql`SELECT s.event_id AS eventId, lot.code AS lotCode, abs(s.share) AS share FROM pool_share s JOIN lot ON lot.id = s.lot_id WHERE s.place_id = ${placeId} AND s.share <> 0 AND s.event_id IN (SELECT value FROM json_each(${JSON.stringify(eventIds)})) ORDER BY abs(s.share) DESC, lot.code`),

    /** Losses of a kind in a place of which fish may come to light, with how many did. */
    writtenOff: (placeId: string, { speciesId, strain }: Kind): (WrittenOff & { lotId: string; eventId: string | null })[] =>
      orm.all(sql`SELECT m.id, 'kind' AS lot, m.lot_id AS lotId, m.quantity AS n, m.from_place_id AS place, m.cause, m.happened_at_ms AS at, coalesce((SELECT sum(f.quantity) FROM found f WHERE f.loss_id = m.id AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = f.movement_id)), 0) AS found, pm.event_id AS eventId
        FROM movement m JOIN lot ON lot.id = m.lot_id LEFT JOIN line ON line.lot_id = lot.id LEFT JOIN pool_movement pm ON pm.movement_id = m.id
        WHERE m.from_place_id = ${placeId} AND m.kind = 'loss' AND m.cause IN (SELECT value FROM json_each(${JSON.stringify(mayComeBack)})) AND lot.species_id = ${speciesId} AND ${sql.raw(strainOf)} IS ${strain}
          AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = m.id)`),
    /** Fish that were written off in a place since a moment without being seen dead, and were not found since, by kind. */
    missingAt: (placeId: string, sinceMs: number): { speciesId: string; species: string; strain: string | null; quantity: number }[] =>
      orm.all(sql`SELECT speciesId, species, strain, sum(quantity) AS quantity FROM (
          SELECT lot.species_id AS speciesId, species.name AS species, ${sql.raw(strainOf)} AS strain, m.quantity - coalesce((SELECT sum(f.quantity) FROM found f WHERE f.loss_id = m.id AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = f.movement_id)), 0) AS quantity
          FROM movement m JOIN lot ON lot.id = m.lot_id JOIN species ON species.id = lot.species_id LEFT JOIN line ON line.lot_id = lot.id
          WHERE m.from_place_id = ${placeId} AND m.happened_at_ms >= ${sinceMs} AND m.kind = 'loss' AND m.cause IN (SELECT value FROM json_each(${JSON.stringify(mayComeBack)})) AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = m.id))
        GROUP BY 1, 2, 3 HAVING sum(quantity) > 0 ORDER BY species`),
    insertFound: (row: typeof found.$inferInsert) => void orm.insert(found).values(row).run(),

    /** The newest event that counted for a lot in a place, and was not taken back: by a movement of it. */
    newestOut: (placeId: string, lotId: string): string | null =>
      orm.get<{ id: string } | undefined>(
        sql`SELECT m.id FROM pool_share s JOIN pool_event e ON e.id = s.event_id JOIN pool_movement pm ON pm.event_id = e.id JOIN movement m ON m.id = pm.movement_id
          WHERE s.place_id = ${placeId} AND s.lot_id = ${lotId} AND s.expected < 0 AND e.reverses_id IS NULL AND pm.is_swap = 0 AND NOT EXISTS (SELECT 1 FROM pool_event back WHERE back.reverses_id = e.id) ORDER BY m.seq DESC LIMIT 1`,
      )?.id ?? null,
  }
}
export type PoolsStore = ReturnType<typeof createPoolsStore>
