import { and, eq, gt, notExists, sql, type SQL } from 'drizzle-orm'
import { alias } from 'drizzle-orm/sqlite-core'
import type { Movement, MovementKind } from '../../core/ledger/movement'
import type { How } from '../../core/pools/attribute'
import type { Database } from '../db/open'
import { holdShortfall } from '../pools/pools.table'
import { strainOf } from '../pools/ofLot'
import { lot, lotName, movement, place, stock } from './ledger.table'

export type MovementInsert = Omit<typeof movement.$inferInsert, 'seq'>

/** A movement joined with the names of what it touches. */
export interface MovementRow extends Movement {
  seq: number
  kind: MovementKind
  lotCode: string
  species: string
  fromKind: string
  fromName: string
  toKind: string
  toName: string
  crateId: string | null
  crateNumber: number | null
  cause: string | null
  reason: string | null
  note: string | null
  staffName: string
  commandKey: string
  happenedAtMs: number
  recordedAtMs: number
  reversedById: string | null
  /** Number of the run that wrote it; null when none did. */
  run: number | null
  /** Number of the introduction that wrote it; null when none did. */
  introduction: number | null
  /** What happened to a pool, of which this is part; null for a movement that stands for itself. */
  eventId: string | null
  how: How | null
  /** 1 for a correction that only puts a fish to the lot it is of. */
  isSwap: number | null
  /** Where fish left before their hold was over: on which day of it, and why. */
  shortfall: string | null
  /** Fish of it that somebody chose one by one, in words. */
  chosen: string | null
}

/** Of these kinds, or of any. */
const ofKinds = (kinds: readonly MovementKind[] | null): SQL => (kinds === null ? sql`1` : sql`kind IN (SELECT value FROM json_each(${JSON.stringify(kinds)}))`)

const placeName = (name: string): string => `CASE ${name}.kind WHEN 'tank' THEN (SELECT code FROM tank WHERE id = ${name}.id)
  WHEN 'bag' THEN (SELECT 'bag ' || bag.number || ' of crate ' || crate.number FROM bag JOIN crate ON crate.id = bag.crate_id WHERE bag.id = ${name}.id)
  WHEN 'vessel' THEN coalesce((SELECT 'the vessel of run ' || run.number FROM run WHERE run.id = ${name}.id), (SELECT vessel.name FROM vessel WHERE vessel.id = ${name}.id))
  ELSE ${name}.kind END`

const movementSelect = sql.raw(`SELECT m.seq, m.id, m.kind, m.quantity, m.lot_id AS lotId, m.from_place_id AS fromPlaceId, m.to_place_id AS toPlaceId,
    m.reverses_id AS reversesId, m.cause, m.reason, m.note, m.happened_at_ms AS happenedAtMs, m.recorded_at_ms AS recordedAtMs,
    lot.code AS lotCode, species.name AS species, staff.name AS staffName, m.command_key AS commandKey, back.id AS reversedById,
    f.kind AS fromKind, ${placeName('f')} AS fromName, t.kind AS toKind, ${placeName('t')} AS toName,
    crate.id AS crateId, crate.number AS crateNumber, (SELECT run.number FROM run_movement rm JOIN run ON run.id = rm.run_id WHERE rm.movement_id = m.id) AS run,
    (SELECT i.number FROM introduction_event ie JOIN introduction i ON i.id = ie.introduction_id WHERE ie.command_key = m.command_key AND ie.undone_at_ms IS NULL LIMIT 1) AS introduction, pm.event_id AS eventId, pm.is_swap AS isSwap, event.how,
    (SELECT CASE WHEN h.day > h.of THEN h.of || ' days served' ELSE 'day ' || h.day || ' of ' || h.of END || coalesce(', without ' || h.gates, '') || ': ' || h.reason FROM hold_shortfall h WHERE h.movement_id = m.id ORDER BY h.day LIMIT 1) AS shortfall,
    (SELECT group_concat(coalesce(nullif(trim(coalesce(i.sex, '') || ' ' || coalesce(i.mark, '')), ''), 'one'), '; ') FROM moved_individual i WHERE i.command_key = m.command_key AND i.species_id = lot.species_id) AS chosen
  FROM movement m JOIN lot ON lot.id = m.lot_id JOIN species ON species.id = lot.species_id JOIN staff ON staff.id = m.staff_id
    JOIN place f ON f.id = m.from_place_id JOIN place t ON t.id = m.to_place_id
    LEFT JOIN movement back ON back.reverses_id = m.id
    LEFT JOIN pool_movement pm ON pm.movement_id = m.id LEFT JOIN pool_event event ON event.id = pm.event_id
    LEFT JOIN line ON line.lot_id = m.lot_id LEFT JOIN crate ON crate.id = line.crate_id`)

/** Queries about lots, stock and movements. */
export function createLedgerStore({ orm }: Database) {
  const values = Object.fromEntries(
    ['id', 'kind', 'lotId', 'fromPlaceId', 'toPlaceId', 'quantity', 'reversesId', 'cause', 'reason', 'note', 'staffId', 'commandKey', 'happenedAtMs', 'recordedAtMs'].map((field) => [field, sql.placeholder(field)]),
  ) as unknown as MovementInsert
  const insert = orm.insert(movement).values(values).prepare()
  const available = orm
    .select({ quantity: stock.quantity })
    .from(stock)
    .where(and(eq(stock.placeId, sql.placeholder('placeId')), eq(stock.lotId, sql.placeholder('lotId'))))
    .prepare()
  const back = alias(movement, 'back')
  const standing = (where: SQL | undefined) =>
    orm.select().from(movement).where(and(where, notExists(orm.select({ id: back.id }).from(back).where(eq(back.reversesId, movement.id)))))

  return {
    insert: (row: MovementInsert) => void insert.run(row),
    available: (placeId: string, lotId: string): number => available.get({ placeId, lotId })?.quantity ?? 0,
    insertPlace: (id: string, kind: 'bag' | 'tank' | 'vessel') => void orm.insert(place).values({ id, kind }).run(),
    insertShortfall: (row: typeof holdShortfall.$inferInsert) => void orm.insert(holdShortfall).values(row).run(),
    isPlace: (id: string): boolean => orm.select({ id: place.id }).from(place).where(eq(place.id, id)).get() !== undefined,
    insertLot: (row: typeof lot.$inferInsert) => void orm.insert(lot).values(row).run(),
    updateLot: (id: string, values: Partial<typeof lot.$inferInsert>) => void orm.update(lot).set(values).where(eq(lot.id, id)).run(),
    /** A lot as it is called now; null where there is none. */
    lotNamed: (id: string): { id: string; code: string; species: string; speciesId: string; strain: string | null; lineId: string | null; createdAtMs: number } | null =>
      orm.get(sql`SELECT lot.id, lot.code, species.name AS species, lot.species_id AS speciesId, ${sql.raw(strainOf)} AS strain, line.id AS lineId, lot.created_at_ms AS createdAtMs FROM lot JOIN species ON species.id = lot.species_id LEFT JOIN line ON line.lot_id = lot.id WHERE lot.id = ${id}`) ?? null,
    hasNames: (lotId: string): boolean => orm.select({ id: lotName.id }).from(lotName).where(eq(lotName.lotId, lotId)).limit(1).get() !== undefined,
    insertName: (row: typeof lotName.$inferInsert) => void orm.insert(lotName).values(row).run(),
    /** Where fish of a lot stand now, bags aside. */
    placesOfLot: (lotId: string): { placeId: string; kind: 'tank' | 'vessel'; quantity: number }[] => orm.all(sql`SELECT stock.place_id AS placeId, place.kind, stock.quantity FROM stock JOIN place ON place.id = stock.place_id WHERE stock.lot_id = ${lotId} AND stock.quantity > 0 AND place.kind IN ('tank', 'vessel')`),
    /** What was said of the water of lots, and whether the species book names one. */
    waterSaid: (lotIds: readonly string[]): { id: string; code: string; species: string; said: string | null; isInBook: number }[] =>
      orm.all(sql`SELECT lot.id, lot.code, species.name AS species, lot.water AS said, (species.water IS NOT NULL OR species.waters <> '[]') AS isInBook FROM lot JOIN species ON species.id = lot.species_id WHERE lot.id IN (SELECT value FROM json_each(${JSON.stringify(lotIds)})) ORDER BY lot.code`),
    countLots: (codePrefix: string): number => orm.select({ n: sql<number>`count(*)` }).from(lot).where(sql`${lot.code} LIKE ${codePrefix + '%'}`).get()?.n ?? 0,
    isLot: (id: string): boolean => orm.select({ id: lot.id }).from(lot).where(eq(lot.id, id)).get() !== undefined,
    movementById: (id: string) => orm.select().from(movement).where(eq(movement.id, id)).get() ?? null,
    isReversed: (id: string): boolean => orm.select({ id: movement.id }).from(movement).where(eq(movement.reversesId, id)).get() !== undefined,
    /** Movements of one command at one place that were not taken back, newest first. */
    standingOfCommand: (commandKey: string, placeId: string) =>
      standing(and(eq(movement.commandKey, commandKey), sql`${placeId} IN (${movement.fromPlaceId}, ${movement.toPlaceId})`)).orderBy(sql`${movement.seq} DESC`).all(),
    /** Movements of one command that were not taken back, newest first. */
    ofCommand: (commandKey: string) => standing(and(eq(movement.commandKey, commandKey), sql`${movement.kind} <> 'reversal'`)).orderBy(sql`${movement.seq} DESC`).all(),
    /** The newest movement that took fish of a lot on from a place after another movement brought them. */
    inTheWay: (placeId: string, lotId: string, afterSeq: number) =>
      standing(and(eq(movement.fromPlaceId, placeId), eq(movement.lotId, lotId), gt(movement.seq, afterSeq), sql`${movement.kind} <> 'reversal'`)).orderBy(sql`${movement.seq} DESC`).limit(1).get() ?? null,
    rowById: (id: string): MovementRow | null => orm.get<MovementRow | undefined>(sql`${movementSelect} WHERE m.id = ${id}`) ?? null,
    /** The newest movements in or out of a place, newest first. */
    rowsAt: (placeId: string, limit: number, kinds: readonly MovementKind[] | null = null): MovementRow[] =>
      orm.all<MovementRow>(sql`${movementSelect} WHERE m.seq IN (
          SELECT seq FROM (SELECT seq, happened_at_ms FROM movement WHERE from_place_id = ${placeId} AND ${ofKinds(kinds)} ORDER BY happened_at_ms DESC LIMIT ${limit})
          UNION ALL SELECT seq FROM (SELECT seq, happened_at_ms FROM movement WHERE to_place_id = ${placeId} AND ${ofKinds(kinds)} ORDER BY happened_at_ms DESC LIMIT ${limit}))
        ORDER BY m.happened_at_ms DESC, m.seq DESC LIMIT ${limit}`),
  }
}
export type LedgerStore = ReturnType<typeof createLedgerStore>
