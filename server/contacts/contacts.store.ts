import { and, desc, eq, isNull, sql } from 'drizzle-orm'
import { minuteOf, type Clear } from '../../core/contacts/contact'
import type { Standing } from '../../core/contacts/staysOf'
import type { BagOfCrate } from '../../core/contacts/foldBags'
import type { ToolBath, ToolUse } from '../../core/contacts/toolState'
import type { Database } from '../db/open'
import { system, toolSet, zone } from '../room/room.table'
import { contact, toolBath, waterClear } from './contacts.table'

/** Fish that went from one water into another, as the ledger has them. */
export interface MoveRow {
  /** The first of its movements. */
  id: string
  atMs: number
  fromPlaceId: string
  toPlaceId: string
  quantity: number
  species: string
  isPlanned: number
}

/** What was written with a move that was taken back never happened either. */
const isReal = sql`NOT EXISTS (SELECT 1 FROM movement m JOIN movement r ON r.reverses_id = m.id WHERE m.command_key = ${contact.commandKey})`

/** Queries about who and what met. */
export function createContactsStore({ orm, version }: Database) {
  return {
    /** Another one as soon as anything is written. */
    version,
    systems: () => orm.select({ id: system.id, name: system.name }).from(system).all(),
    toolSets: () => orm.select({ id: toolSet.id, name: toolSet.name, zoneId: toolSet.zoneId, zone: zone.name, marking: toolSet.marking }).from(toolSet).leftJoin(zone, eq(zone.id, toolSet.zoneId)).where(isNull(toolSet.retiredAtMs)).orderBy(toolSet.name).all(),
    lots: (ids: readonly string[]): { id: string; code: string; species: string; origin: string }[] => orm.all(sql`SELECT lot.id, lot.code, species.name AS species, lot.origin FROM lot JOIN species ON species.id = lot.species_id WHERE lot.id IN (SELECT value FROM json_each(${JSON.stringify(ids)}))`),
    /** Which of these are bags, with their crates. */
    bags: (ids: readonly string[]): BagOfCrate[] => orm.all(sql`SELECT bag.id AS bagId, crate.id AS crateId, crate.number AS crate FROM bag JOIN crate ON crate.id = bag.crate_id WHERE bag.id IN (SELECT value FROM json_each(${JSON.stringify(ids)}))`),
    /** A bag or a vessel, as people call it. */
    placeName: (id: string): string | null =>
      orm.get<{ name: string } | undefined>(sql`SELECT 'a bag of crate ' || crate.number AS name FROM bag JOIN crate ON crate.id = bag.crate_id WHERE bag.id = ${id} UNION ALL SELECT 'the vessel of run ' || number FROM run WHERE id = ${id} UNION ALL SELECT name FROM vessel WHERE id = ${id}`)?.name ?? null,
    /** Moves between places in a window, each command's as one by way and species; what was taken back never happened. */
    moves: (fromMs: number, toMs: number): MoveRow[] =>
      orm.all(sql`SELECT min(m.id) AS id, m.happened_at_ms AS atMs, m.from_place_id AS fromPlaceId, m.to_place_id AS toPlaceId, sum(m.quantity) AS quantity, species.name AS species,
          NOT EXISTS (SELECT 1 FROM tank_override o WHERE o.command_key = m.command_key AND (o.tank_id = m.to_place_id OR m.to_place_id IN (SELECT id FROM vessel))) AS isPlanned
        FROM movement m JOIN lot ON lot.id = m.lot_id JOIN species ON species.id = lot.species_id
        WHERE m.kind = 'move' AND m.happened_at_ms BETWEEN ${fromMs} AND ${toMs} AND NOT EXISTS (SELECT 1 FROM movement r WHERE r.reverses_id = m.id)
        GROUP BY m.command_key, m.from_place_id, m.to_place_id, m.happened_at_ms, species.name`),
    /** Fish to be expected where, now; in bags, where nothing is mixed, those that are booked. */
    standing: (): Standing[] =>
      orm.all(sql`SELECT place_id AS place, lot_id AS lot, millionths / 1000000.0 AS fish FROM expected_stock WHERE millionths > 0
        UNION ALL SELECT stock.place_id, stock.lot_id, stock.quantity FROM stock JOIN place ON place.id = stock.place_id AND place.kind = 'bag' WHERE stock.quantity > 0`),
    /**
     * What came and went since a moment, by what is to be expected: of fish that nobody could tell apart, each lot's part. What
     * was taken back never happened.
     */
    flows: (sinceMs: number): { atMs: number; place: string; lot: string; fish: number }[] =>
      orm.all(sql`WITH real AS (SELECT m.seq, m.id, m.happened_at_ms, m.lot_id, m.from_place_id, m.to_place_id, m.quantity, pm.event_id FROM movement m LEFT JOIN pool_movement pm ON pm.movement_id = m.id
            WHERE m.kind IN ('arrive', 'born', 'dead-in-bag', 'move', 'loss', 'release', 'count-correction') AND m.happened_at_ms >= ${sinceMs} AND NOT EXISTS (SELECT 1 FROM movement r WHERE r.reverses_id = m.id)),
          parts AS (SELECT seq, happened_at_ms, to_place_id AS place, lot_id AS lot, quantity AS fish FROM real WHERE to_place_id <> 'outside' AND event_id IS NULL
            UNION ALL SELECT seq, happened_at_ms, from_place_id, lot_id, -quantity FROM real WHERE from_place_id <> 'outside' AND event_id IS NULL
            UNION ALL SELECT first.seq, first.happened_at_ms, s.place_id, s.lot_id, s.expected / 1000000.0 FROM pool_share s JOIN (SELECT event_id, min(seq) AS seq, min(happened_at_ms) AS happened_at_ms FROM real WHERE event_id IS NOT NULL GROUP BY event_id) AS first ON first.event_id = s.event_id)
        SELECT happened_at_ms AS atMs, place, lot, fish FROM parts ORDER BY happened_at_ms, seq`),
    /** Bag water that went into tanks with its fish: from which run's vessel into which tank. */
    bagWater: (fromMs: number, toMs: number): { id: string; runId: string; tankId: string; litres: number; atMs: number }[] =>
      orm.all(sql`SELECT id, run_id AS runId, tank_id AS tankId, litres, at_ms AS atMs FROM water_load WHERE at_ms BETWEEN ${fromMs} AND ${toMs}`),
    written: (fromMs: number, toMs: number) => orm.select().from(contact).where(sql`${contact.undoneAtMs} IS NULL AND ${isReal} AND ${contact.atMs} <= ${toMs} AND (${contact.untilMs} >= ${fromMs} OR ${contact.atMs} >= ${fromMs} OR (${contact.untilMs} IS NULL AND ${contact.kind} = 'joined'))`).all(),
    clears: (fromMs: number, toMs: number): Clear[] => orm.select({ node: waterClear.node, atMs: waterClear.atMs }).from(waterClear).where(sql`${waterClear.undoneAtMs} IS NULL AND ${waterClear.atMs} BETWEEN ${fromMs} AND ${toMs}`).all().map(({ node, atMs }) => ({ node, at: minuteOf(atMs) })),
    byId: (id: string) => orm.select().from(contact).where(eq(contact.id, id)).get() ?? null,
    insert: (row: typeof contact.$inferInsert) => void orm.insert(contact).values(row).run(),
    end: (id: string, untilMs: number) => void orm.update(contact).set({ untilMs }).where(eq(contact.id, id)).run(),
    undo: (id: string, by: { undoneById: string; undoneAtMs: number }) => void orm.update(contact).set(by).where(eq(contact.id, id)).run(),
    /** Waters that are joined to one now. */
    joinedTo: (node: string) => orm.select({ id: contact.id, fromNode: contact.fromNode, toNode: contact.toNode }).from(contact).where(sql`(${contact.fromNode} = ${node} OR ${contact.toNode} = ${node}) AND ${contact.kind} = 'joined' AND ${contact.untilMs} IS NULL AND ${contact.undoneAtMs} IS NULL`).orderBy(contact.atMs).all(),
    insertClear: (row: typeof waterClear.$inferInsert) => void orm.insert(waterClear).values(row).run(),
    insertBath: (row: typeof toolBath.$inferInsert) => void orm.insert(toolBath).values(row).run(),
    openBath: (toolSetId: string) => orm.select().from(toolBath).where(and(eq(toolBath.toolSetId, toolSetId), isNull(toolBath.outAtMs), isNull(toolBath.undoneAtMs))).orderBy(desc(toolBath.inAtMs)).get() ?? null,
    endBath: (id: string, outAtMs: number) => void orm.update(toolBath).set({ outAtMs }).where(eq(toolBath.id, id)).run(),
    uses: (node: string, sinceMs: number): ToolUse[] => orm.select({ water: contact.fromNode, atMs: contact.atMs }).from(contact).where(sql`${contact.toNode} = ${node} AND ${contact.kind} = 'tool' AND ${contact.undoneAtMs} IS NULL AND ${isReal} AND ${contact.atMs} >= ${sinceMs}`).all().map(({ water, atMs }) => ({ water, at: minuteOf(atMs) })),
    baths: (toolSetId: string, sinceMs: number): (ToolBath & { agent: string | null })[] =>
      orm.select().from(toolBath).where(sql`${toolBath.toolSetId} = ${toolSetId} AND ${toolBath.undoneAtMs} IS NULL AND ${toolBath.inAtMs} >= ${sinceMs}`).all().map(({ inAtMs, outAtMs, needMinutes, agent }) => ({ inAt: minuteOf(inAtMs), outAt: outAtMs === null ? null : minuteOf(outAtMs), needMinutes, agent })),
  }
}
export type ContactsStore = ReturnType<typeof createContactsStore>
