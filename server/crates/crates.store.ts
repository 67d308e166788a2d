import { and, asc, eq, inArray, isNull, or, sql } from 'drizzle-orm'
import { groupBy } from '../../core/collections/groupBy'
import type { ListMapping } from '../../core/crates/listMapping'
import type { BagView, CrateView, LineView, PlacementView, WentView } from '../../core/crates/crateView'
import type { CrateSummary } from '../../core/crates/crateSummary'
import { openRunOf } from '../bench/onBench'
import { handlingOf } from '../../core/species/readEntry'
import type { TankFigures } from '../../core/species/keptIn'
import { splitNames } from '../../core/species/speciesBook'
import { findNamed } from '../../core/words/nameKey'
import type { Database } from '../db/open'
import { lot, lotName, movement, place, stock } from '../ledger/ledger.table'
import { newId } from '../newId'
import { system, tank } from '../room/room.table'
import { species } from '../species/species.table'
import { staff } from '../staff/staff.table'
import { bag, bagPhoto, bagRecord, crate, line, listMapping, supplier, tankOverride } from './crates.table'

export interface OpenedBag {
  id: string
  crateId: string
  lotId: string
  number: number
}

/** Fish in a bag whose line has a planned tank. */
export interface PlaceableBag {
  bagId: string
  lotId: string
  quantity: number
  tankId: string
}

const standing = isNull(bagRecord.undoneAtMs)

const keptColumns = { tempCMin: species.tempCMin, tempCMax: species.tempCMax, phMin: species.phMin, phMax: species.phMax, salinityPptMin: species.salinityPptMin, salinityPptMax: species.salinityPptMax, hardness: species.hardness }
const tankWaterColumns = { tempC: system.tempC, salinityPpt: system.salinityPpt, ph: system.ph, alkalinityMeqL: system.alkalinityMeqL }
/** Figures that somebody entered; the others are left out. */
const known = (figures: Record<string, number | null>): TankFigures => Object.fromEntries(Object.entries(figures).filter(([, value]) => value !== null))

/** Queries about crates, their lines and bags. */
export function createCratesStore({ orm }: Database) {
  const crateById = orm.select({ closedAtMs: crate.closedAtMs }).from(crate).where(eq(crate.id, sql.placeholder('id'))).prepare()
  const bagOfCrate = orm
    .select({ id: bag.id, crateId: bag.crateId, lotId: line.lotId, number: bag.number })
    .from(bag)
    .innerJoin(line, eq(line.id, bag.lineId))
    .where(and(eq(bag.id, sql.placeholder('bagId')), eq(bag.crateId, sql.placeholder('crateId'))))
    .prepare()
  const supplierOf = (name: string) => findNamed(orm.select({ id: supplier.id, name: supplier.name }).from(supplier).all(), name.trim())
  const standingRecord = orm
    .select({ id: bagRecord.id, alive: bagRecord.alive, dead: bagRecord.dead, commandKey: bagRecord.commandKey, staffName: staff.name })
    .from(bagRecord)
    .innerJoin(staff, eq(staff.id, bagRecord.staffId))
    .where(and(eq(bagRecord.bagId, sql.placeholder('bagId')), standing))
    .prepare()
  const recordFields = ['id', 'bagId', 'alive', 'dead', 'concerns', 'body', 'skinTempC', 'waterTempC', 'salinityPpt', 'salinityBy', 'ph', 'phBy', 'ammoniaMgL', 'hasBinder', 'behaviour', 'mishap', 'note', 'staffId', 'commandKey', 'happenedAtMs', 'recordedAtMs']
  const insertRecord = orm
    .insert(bagRecord)
    .values(Object.fromEntries(recordFields.map((field) => [field, sql.placeholder(field)])) as unknown as typeof bagRecord.$inferInsert)
    .prepare()

  const lines = (crateId: string): LineView[] =>
    orm
      .select({ id: line.id, position: line.position, species: species.name, count: line.count, lotId: line.lotId, lotCode: lot.code, tankId: tank.id, tankCode: tank.code, version: line.version, origin: line.origin, strain: line.strain, identity: line.identity, animal: species.animal, kept: keptColumns, tankWater: tankWaterColumns, hurts: species.hurts, poisons: species.poisons, sensitivities: species.sensitivities, catchWith: species.catchWith, lookAlikes: species.lookAlikes, promisedTo: line.promisedTo, billed: line.billed, sizeCm: line.sizeCm, priceEach: line.priceEach, capture: line.capture, ateBefore: line.ateBefore, note: line.note, told: line.told })
      .from(line)
      .innerJoin(lot, eq(lot.id, line.lotId))
      .innerJoin(species, eq(species.id, lot.speciesId))
      .leftJoin(tank, eq(tank.id, line.tankId))
      .leftJoin(system, eq(system.id, tank.systemId))
      .where(eq(line.crateId, crateId))
      .orderBy(asc(line.position))
      .all()
      .map(({ tankId, tankCode, tankWater, hurts, poisons, sensitivities, catchWith, lookAlikes, ...row }) => ({ ...row, lookAlikes: splitNames(lookAlikes), handling: handlingOf({ hurts, poisons, sensitivities, catchWith }), tankWater: known(tankWater ?? {}), tank: tankId === null || tankCode === null ? null : { id: tankId, code: tankCode } }))

  /** Ids of the pictures that were not taken away, by bag. */
  const photosByBag = (crateId: string): Map<string, string[]> => {
    const rows = orm.select({ id: bagPhoto.id, bagId: bagPhoto.bagId }).from(bagPhoto).innerJoin(bag, eq(bag.id, bagPhoto.bagId)).where(and(eq(bag.crateId, crateId), isNull(bagPhoto.removedAtMs))).orderBy(asc(bagPhoto.recordedAtMs)).all()
    return new Map([...groupBy(rows, (row) => row.bagId)].map(([bagId, photos]) => [bagId, photos.map(({ id }) => id)]))
  }

  const bags = (crateId: string): BagView[] => {
    const photos = photosByBag(crateId)
    return orm
      .select({ id: bag.id, lineId: bag.lineId, number: bag.number, listed: bag.listed, record: bagRecord, staffName: staff.name, inBag: sql<number>`coalesce(${stock.quantity}, 0)`, runId: openRunOf(sql`${bag.id}`) })
      .from(bag)
      .innerJoin(line, eq(line.id, bag.lineId))
      .leftJoin(bagRecord, and(eq(bagRecord.bagId, bag.id), standing))
      .leftJoin(staff, eq(staff.id, bagRecord.staffId))
      .leftJoin(stock, and(eq(stock.placeId, bag.id), eq(stock.lotId, line.lotId)))
      .where(eq(bag.crateId, crateId))
      .orderBy(asc(bag.number))
      .all()
      .map(({ record, staffName, ...row }) => {
        const view = { ...row, photos: photos.get(row.id) ?? [] }
        if (!record) return { ...view, record: null }
        const { id: _, bagId: __, undoneAtMs: ___, undoneById: ____, undoneCommandKey: _____, recordedAtMs: ______, hasBinder, ...rest } = record
        return { ...view, record: { ...rest, hasBinder: hasBinder === null ? null : hasBinder === 1, staffName: staffName ?? '' } }
      })
  }

  // Sorted in the end: by its index on numbers it would go through every crate there ever was.
  const head = (where: ReturnType<typeof sql>) =>
    orm.all<CrateSummary>(sql`SELECT crate.id, crate.number, supplier.name AS supplier, crate.expected_at_ms AS expectedAtMs, crate.packed_at_ms AS packedAtMs,
        crate.closed_at_ms AS closedAtMs, supplier.claim_window_hours AS claimWindowHours, (SELECT state FROM claim WHERE claim.crate_id = crate.id) AS claimState,
        (SELECT count(*) FROM line WHERE line.crate_id = crate.id) AS lineCount,
        (SELECT coalesce(sum(line.count), 0) FROM line WHERE line.crate_id = crate.id) AS listed,
        (SELECT count(*) FROM bag b2 LEFT JOIN bag_record r2 ON r2.bag_id = b2.id AND r2.undone_at_ms IS NULL WHERE b2.crate_id = crate.id AND (b2.listed > 0 OR r2.id IS NOT NULL)) AS bagCount,
        count(r.id) AS openedCount, coalesce(sum(r.alive), 0) AS alive, coalesce(sum(r.dead), 0) AS dead, min(r.happened_at_ms) AS arrivedAtMs,
        (SELECT coalesce(sum(max(0, short)), 0) FROM (SELECT sum(b3.listed - r3.alive - r3.dead) AS short FROM bag b3 JOIN bag_record r3 ON r3.bag_id = b3.id AND r3.undone_at_ms IS NULL
          WHERE b3.crate_id = crate.id AND crate.has_list = 1 GROUP BY b3.line_id)) AS missing,
        (SELECT coalesce(sum(stock.quantity), 0) FROM bag JOIN stock ON stock.place_id = bag.id WHERE bag.crate_id = crate.id) AS inBags
      FROM crate JOIN supplier ON supplier.id = crate.supplier_id
        LEFT JOIN bag b ON b.crate_id = crate.id LEFT JOIN bag_record r ON r.bag_id = b.id AND r.undone_at_ms IS NULL
      WHERE ${where} GROUP BY crate.id ORDER BY +crate.number DESC`)

  // `+`: from the bags of the crate on, and not through every move there ever was.
  /** Fish by line and the tank they went to out of their bags. */
  const went = (crateId: string): WentView[] =>
    orm.all(sql`SELECT source.lineId, tank.code AS tankCode, sum(m.quantity) AS fish
      FROM (SELECT bag.id AS placeId, NULL AS lotId, bag.line_id AS lineId FROM bag WHERE bag.crate_id = ${crateId}
          UNION SELECT s.run_id, s.lot_id, bag.line_id FROM run_source s JOIN bag ON bag.id = s.place_id WHERE bag.crate_id = ${crateId}) source
        JOIN movement m ON m.from_place_id = source.placeId AND (source.lotId IS NULL OR m.lot_id = source.lotId) JOIN tank ON tank.id = m.to_place_id
      WHERE +m.kind = 'move' AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = m.id) GROUP BY source.lineId, tank.id ORDER BY tank.code`)

  /** Placings whose fish were not all taken back, newest first; of one command when its key is given. */
  const placements = (crateId: string, key: string | null): PlacementView[] =>
    orm.all(sql`SELECT m.command_key AS key, m.staff_id AS staffId, sum(m.quantity) AS fish FROM bag JOIN movement m ON m.from_place_id = bag.id
      WHERE bag.crate_id = ${crateId} AND +m.kind = 'move' AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = m.id)
        AND NOT EXISTS (SELECT 1 FROM run_movement WHERE run_movement.movement_id = m.id) ${key === null ? sql`` : sql`AND m.command_key = ${key}`} GROUP BY m.command_key ORDER BY max(m.seq) DESC`)

  return {
    placements,
    bagIds: (crateId: string): string[] => orm.select({ id: bag.id }).from(bag).where(eq(bag.crateId, crateId)).all().map((row) => row.id),
    /** Crates that are open, and those that were closed last. */
    openAndNewest: (closed: number): CrateSummary[] => head(sql`crate.id IN (SELECT id FROM crate WHERE closed_at_ms IS NULL UNION SELECT id FROM (SELECT id FROM crate WHERE closed_at_ms IS NOT NULL ORDER BY closed_at_ms DESC LIMIT ${closed}))`),
    /** Crates that are open, and closed ones whose claim may still be made: nothing is claimed before it came. */
    openAndClaimable: (nowMs: number): CrateSummary[] => head(sql`crate.id IN (SELECT id FROM crate WHERE closed_at_ms IS NULL UNION SELECT id FROM crate WHERE closed_at_ms >= ${nowMs} - (SELECT coalesce(max(claim_window_hours), 0) * 3600000 FROM supplier))`),
    view(id: string): CrateView | null {
      const summary = head(sql`crate.id = ${id}`)[0]
      if (!summary) return null
      const row = orm.select().from(crate).where(eq(crate.id, id)).get()
      if (!row) return null
      const { note, version, carrier, box, boxVersion, closedBecause, method } = row
      const water = { tempC: row.shippingTempC, salinityPpt: row.shippingSalinityPpt, ph: row.shippingPh, alkalinityMeqL: row.shippingAlkalinityMeqL }
      const shippingWater = Object.values(water).some((figure) => figure !== null) ? water : null
      const hasList = row.hasList === 1
      // A bag that was added and taken back again leaves its trace in the books, but no bag.
      const shown = bags(id).filter((each) => each.listed > 0 || each.record !== null)
      const { lineCount: _, bagCount: __, openedCount: ___, listed: ____, alive: _____, dead: ______, missing: ________, inBags: _______, ...headOnly } = summary
      return {
        ...headOnly,
        ...{ note, version, carrier, shippingWater, method, hasList, box, boxVersion, closedBecause },
        lines: lines(id).filter((each) => each.count > 0 || shown.some((bag) => bag.lineId === each.id)),
        bags: hasList ? shown : shown.map(asFound),
        went: went(id),
        lastPlacement: placements(id, null)[0] ?? null,
      }
    },
    isCrate: (id: string): boolean => crateById.get({ id }) !== undefined,
    isClosed: (id: string): boolean => (crateById.get({ id })?.closedAtMs ?? null) !== null,
    nextNumber: (): number => (orm.select({ top: sql<number | null>`max(${crate.number})` }).from(crate).get()?.top ?? 0) + 1,
    supplierNamed(name: string): { id: string; name: string } {
      const known = supplierOf(name)
      if (known) return known
      const made = { id: newId(), name: name.trim() }
      orm.insert(supplier).values(made).run()
      return made
    },
    mappingOf: (supplierName: string, heading: string): ListMapping | null =>
      orm
        .select({ mapping: listMapping.mapping })
        .from(listMapping)
        .where(and(eq(listMapping.supplierId, supplierOf(supplierName)?.id ?? ''), eq(listMapping.heading, heading)))
        .get()?.mapping ?? null,
    rememberMapping: (supplierId: string, heading: string, mapping: ListMapping) =>
      void orm.insert(listMapping).values({ supplierId, heading, mapping }).onConflictDoUpdate({ target: [listMapping.supplierId, listMapping.heading], set: { mapping } }).run(),
    updateCrate: (id: string, values: Partial<typeof crate.$inferInsert>) => void orm.update(crate).set(values).where(eq(crate.id, id)).run(),
    /** What a lot is called is said by its line too; whoever has the line open is told. */
    renameLine: (id: string, strain: string | null) => void orm.update(line).set({ strain, version: sql`${line.version} + 1` }).where(eq(line.id, id)).run(),
    updateLine: (id: string, values: Partial<typeof line.$inferInsert>) => void orm.update(line).set(values).where(eq(line.id, id)).run(),
    /** What the lists said of lots that came in crates. */
    toldOfLots: (lotIds: readonly string[]) => orm.select({ lotId: line.lotId, origin: line.origin, identity: line.identity, ateBefore: line.ateBefore }).from(line).where(inArray(line.lotId, [...lotIds])).all(),
    /** The open crate of a supplier that was packed at a moment: other parts of its list belong to it. */
    openPackedAt: (supplierId: string, packedAtMs: number) => orm.select({ id: crate.id, number: crate.number }).from(crate).where(and(eq(crate.supplierId, supplierId), eq(crate.packedAtMs, packedAtMs), isNull(crate.closedAtMs))).limit(1).get() ?? null,
    updateLot: (id: string, values: Partial<typeof lot.$inferInsert>) => void orm.update(lot).set(values).where(eq(lot.id, id)).run(),
    countLines: (crateId: string): number => orm.select({ n: sql<number>`count(*)` }).from(line).where(eq(line.crateId, crateId)).get()?.n ?? 0,
    lastPosition: (crateId: string): number => orm.select({ n: sql<number | null>`max(${line.position})` }).from(line).where(eq(line.crateId, crateId)).get()?.n ?? 0,
    bagNumbers: (crateId: string): number[] => orm.select({ number: bag.number }).from(bag).where(eq(bag.crateId, crateId)).all().map((row) => row.number),
    bagsOfLine: (lineId: string) => orm.select().from(bag).where(eq(bag.lineId, lineId)).orderBy(asc(bag.number)).all(),
    /** What is kept of bags of a line, taken back or not: they are named by it and stay. Null while they are on the list alone. */
    traceOf(lineId: string): 'opened' | 'pictured' | null {
      const has = (table: typeof bagRecord | typeof bagPhoto): boolean => orm.select({ id: table.id }).from(table).innerJoin(bag, eq(bag.id, table.bagId)).where(eq(bag.lineId, lineId)).limit(1).get() !== undefined
      return has(bagRecord) ? 'opened' : has(bagPhoto) ? 'pictured' : null
    },
    /** Takes away bags of which nothing is kept. */
    deleteBags(lineId: string): void {
      const ids = orm.select({ id: bag.id }).from(bag).where(eq(bag.lineId, lineId)).all()
      orm.delete(bag).where(eq(bag.lineId, lineId)).run()
      for (const { id } of ids) orm.delete(place).where(eq(place.id, id)).run()
    },
    /** Whether the books speak of a lot, from a bag or not. */
    isInBooks: (lotId: string): boolean => orm.select({ id: movement.id }).from(movement).where(eq(movement.lotId, lotId)).limit(1).get() !== undefined,
    deleteLine(id: string, lotId: string): void {
      orm.delete(tankOverride).where(or(eq(tankOverride.lineId, id), eq(tankOverride.lotId, lotId))).run()
      orm.delete(line).where(eq(line.id, id)).run()
      // How it was called goes with it: the audit knows, and no fish ever bore the name.
      orm.delete(lotName).where(eq(lotName.lotId, lotId)).run()
      orm.delete(lot).where(eq(lot.id, lotId)).run()
    },
    insertCrate: (values: typeof crate.$inferInsert) => void orm.insert(crate).values(values).run(),
    insertLine: (values: typeof line.$inferInsert) => void orm.insert(line).values(values).run(),
    insertBag: (values: typeof bag.$inferInsert) => void orm.insert(bag).values(values).run(),
    bagOfCrate: (crateId: string, bagId: string): OpenedBag | null => bagOfCrate.get({ crateId, bagId }) ?? null,
    standingRecord: (bagId: string) => standingRecord.get({ bagId }) ?? null,
    insertRecord: (values: typeof bagRecord.$inferInsert) => void insertRecord.run(values),
    markUndone: (id: string, by: { undoneById: string; undoneAtMs: number; undoneCommandKey: string }) => void orm.update(bagRecord).set(by).where(eq(bagRecord.id, id)).run(),
    lineOfCrate: (crateId: string, lineId: string) => orm.select().from(line).where(and(eq(line.id, lineId), eq(line.crateId, crateId))).get() ?? null,
    setLineTank: (lineId: string, tankId: string | null, version: number) => void orm.update(line).set({ tankId, version }).where(eq(line.id, lineId)).run(),
    tankCodes: (): Map<string, string> => new Map(orm.select({ id: tank.id, code: tank.code }).from(tank).where(isNull(tank.retiredAtMs)).all().map((row) => [row.code, row.id])),
    /** Fish standing in bags of a crate whose line has a planned tank. */
    placeable: (crateId: string, tankId: string | null): PlaceableBag[] =>
      orm.all(sql`SELECT bag.id AS bagId, stock.lot_id AS lotId, stock.quantity AS quantity, line.tank_id AS tankId FROM bag
        JOIN line ON line.id = bag.line_id JOIN stock ON stock.place_id = bag.id
        WHERE bag.crate_id = ${crateId} AND line.tank_id IS NOT NULL AND ${openRunOf(sql`bag.id`)} IS NULL ${tankId === null ? sql`` : sql`AND line.tank_id = ${tankId}`} ORDER BY bag.number`),
  }
}
/** Without a list nothing is short or extra: what was found is what there is. */
const asFound = (bag: BagView): BagView => ({ ...bag, listed: bag.record ? bag.record.alive + bag.record.dead : bag.listed })

export type CratesStore = ReturnType<typeof createCratesStore>
