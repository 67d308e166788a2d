import { and, asc, eq, isNull, sql } from 'drizzle-orm'
import type { BagView, CrateSummary, CrateView, LineView, PlacementView } from '../../core/crates/crateView'
import type { Database } from '../db/open'
import { lot, stock } from '../ledger/ledger.table'
import { newId } from '../newId'
import { tank } from '../room/room.table'
import { species } from '../species/species.table'
import { staff } from '../staff/staff.table'
import { bag, bagRecord, crate, line, supplier } from './crates.table'

export interface OpenedBag {
  id: string
  crateId: string
  lotId: string
  number: number
}

const standing = isNull(bagRecord.undoneAtMs)

/** Queries about crates, their lines and bags. */
export function createCratesStore({ orm }: Database) {
  const crateById = orm.select({ id: crate.id }).from(crate).where(eq(crate.id, sql.placeholder('id'))).prepare()
  const bagOfCrate = orm
    .select({ id: bag.id, crateId: bag.crateId, lotId: line.lotId, number: bag.number })
    .from(bag)
    .innerJoin(line, eq(line.id, bag.lineId))
    .where(and(eq(bag.id, sql.placeholder('bagId')), eq(bag.crateId, sql.placeholder('crateId'))))
    .prepare()
  const standingRecord = orm
    .select({ id: bagRecord.id, alive: bagRecord.alive, dead: bagRecord.dead, commandKey: bagRecord.commandKey, staffName: staff.name })
    .from(bagRecord)
    .innerJoin(staff, eq(staff.id, bagRecord.staffId))
    .where(and(eq(bagRecord.bagId, sql.placeholder('bagId')), standing))
    .prepare()
  const recordFields = ['id', 'bagId', 'alive', 'dead', 'concerns', 'body', 'skinTempC', 'waterTempC', 'salinityPpt', 'note', 'staffId', 'commandKey', 'happenedAtMs', 'recordedAtMs']
  const insertRecord = orm
    .insert(bagRecord)
    .values(Object.fromEntries(recordFields.map((field) => [field, sql.placeholder(field)])) as unknown as typeof bagRecord.$inferInsert)
    .prepare()

  const lines = (crateId: string): LineView[] =>
    orm
      .select({ id: line.id, position: line.position, species: species.name, count: line.count, lotId: line.lotId, lotCode: lot.code, tankId: tank.id, tankCode: tank.code, version: line.version })
      .from(line)
      .innerJoin(lot, eq(lot.id, line.lotId))
      .innerJoin(species, eq(species.id, lot.speciesId))
      .leftJoin(tank, eq(tank.id, line.tankId))
      .where(eq(line.crateId, crateId))
      .orderBy(asc(line.position))
      .all()
      .map(({ tankId, tankCode, ...row }) => ({ ...row, tank: tankId === null || tankCode === null ? null : { id: tankId, code: tankCode } }))

  const bags = (crateId: string): BagView[] =>
    orm
      .select({ id: bag.id, lineId: bag.lineId, number: bag.number, listed: bag.listed, record: bagRecord, staffName: staff.name, inBag: sql<number>`coalesce(${stock.quantity}, 0)` })
      .from(bag)
      .innerJoin(line, eq(line.id, bag.lineId))
      .leftJoin(bagRecord, and(eq(bagRecord.bagId, bag.id), standing))
      .leftJoin(staff, eq(staff.id, bagRecord.staffId))
      .leftJoin(stock, and(eq(stock.placeId, bag.id), eq(stock.lotId, line.lotId)))
      .where(eq(bag.crateId, crateId))
      .orderBy(asc(bag.number))
      .all()
      .map(({ record, staffName, ...row }) => {
        if (!record) return { ...row, record: null }
        const { id: _, bagId: __, undoneAtMs: ___, undoneById: ____, undoneCommandKey: _____, recordedAtMs: ______, ...rest } = record
        return { ...row, record: { ...rest, staffName: staffName ?? '' } }
      })

  const head = (where: ReturnType<typeof sql>) =>
    orm.all<CrateSummary>(sql`SELECT crate.id, crate.number, supplier.name AS supplier, crate.expected_at_ms AS expectedAtMs, crate.packed_at_ms AS packedAtMs,
        (SELECT count(*) FROM line WHERE line.crate_id = crate.id) AS lineCount,
        (SELECT coalesce(sum(line.count), 0) FROM line WHERE line.crate_id = crate.id) AS listed,
        (SELECT count(*) FROM bag WHERE bag.crate_id = crate.id) AS bagCount,
        count(r.id) AS openedCount, coalesce(sum(r.alive), 0) AS alive, coalesce(sum(r.dead), 0) AS dead, min(r.happened_at_ms) AS arrivedAtMs,
        (SELECT coalesce(sum(stock.quantity), 0) FROM bag JOIN stock ON stock.place_id = bag.id WHERE bag.crate_id = crate.id) AS inBags
      FROM crate JOIN supplier ON supplier.id = crate.supplier_id
        LEFT JOIN bag b ON b.crate_id = crate.id LEFT JOIN bag_record r ON r.bag_id = b.id AND r.undone_at_ms IS NULL
      WHERE ${where} GROUP BY crate.id ORDER BY crate.number DESC`)

  /** Placings whose fish were not all taken back, newest first; of one command when its key is given. */
  const placements = (crateId: string, key: string | null): PlacementView[] =>
    orm.all(sql`SELECT m.command_key AS key, m.staff_id AS staffId, sum(m.quantity) AS fish FROM bag JOIN movement m ON m.from_place_id = bag.id
      WHERE bag.crate_id = ${crateId} AND m.kind = 'move' AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = m.id)
        ${key === null ? sql`` : sql`AND m.command_key = ${key}`} GROUP BY m.command_key ORDER BY max(m.seq) DESC`)

  return {
    placements,
    bagIds: (crateId: string): string[] => orm.select({ id: bag.id }).from(bag).where(eq(bag.crateId, crateId)).all().map((row) => row.id),
    summaries: (): CrateSummary[] => head(sql`1`),
    view(id: string): CrateView | null {
      const summary = head(sql`crate.id = ${id}`)[0]
      if (!summary) return null
      const { number, supplier: name, expectedAtMs, packedAtMs, arrivedAtMs } = summary
      const lastPlacement = placements(id, null)[0] ?? null
      return { id, number, supplier: name, expectedAtMs, packedAtMs, arrivedAtMs, lines: lines(id), bags: bags(id), lastPlacement }
    },
    isCrate: (id: string): boolean => crateById.get({ id }) !== undefined,
    nextNumber: (): number => (orm.select({ top: sql<number | null>`max(${crate.number})` }).from(crate).get()?.top ?? 0) + 1,
    supplierNamed(name: string): { id: string; name: string } {
      const known = orm.select().from(supplier).where(sql`lower(${supplier.name}) = ${name.trim().toLowerCase()}`).get()
      if (known) return known
      const made = { id: newId(), name: name.trim() }
      orm.insert(supplier).values(made).run()
      return made
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
    tankCodes: (): Map<string, string> => new Map(orm.select({ id: tank.id, code: tank.code }).from(tank).all().map((row) => [row.code, row.id])),
    /** Fish standing in bags of a crate whose line has a planned tank. */
    placeable: (crateId: string, tankId: string | null): { bagId: string; lotId: string; quantity: number; tankId: string }[] =>
      orm.all(sql`SELECT bag.id AS bagId, stock.lot_id AS lotId, stock.quantity AS quantity, line.tank_id AS tankId FROM bag
        JOIN line ON line.id = bag.line_id JOIN stock ON stock.place_id = bag.id
        WHERE bag.crate_id = ${crateId} AND line.tank_id IS NOT NULL ${tankId === null ? sql`` : sql`AND line.tank_id = ${tankId}`} ORDER BY bag.number`),
  }
}
export type CratesStore = ReturnType<typeof createCratesStore>
