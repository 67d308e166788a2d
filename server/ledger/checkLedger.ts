import { and, eq, gt, sql } from 'drizzle-orm'
import { outsidePlaceId, type Movement } from '../../core/ledger/movement'
import { staysOf, type DatedMovement, type Stay } from '../../core/ledger/stays'
import { compareStock, stockKey, sumMovements, type Stock } from '../../core/ledger/stock'
import { millionthsPerFish } from '../../core/pools/shareOut'
import type { Database } from '../db/open'
import { missingTriggers } from '../db/triggers'
import { movement, stay, stock } from './ledger.table'

export interface LedgerCheck {
  movements: number
  stockRows: number
  /** One sentence per fault; empty when the books are right. */
  faults: string[]
}

const rowsAtOnce = 5000
const movementColumns = { seq: movement.seq, id: movement.id, kind: movement.kind, lotId: movement.lotId, fromPlaceId: movement.fromPlaceId, toPlaceId: movement.toPlaceId, quantity: movement.quantity, reversesId: movement.reversesId }

/** What the database says of its own pages; empty when all is well. The quick check leaves out whether indexes agree with their tables. */
export const pageFaults = (raw: Database['raw'], check: 'quick_check' | 'integrity_check'): string[] => (raw.prepare(`PRAGMA ${check}`).all() as Record<string, string>[]).map((row) => row[check] ?? '').filter((line) => line !== 'ok')

/** Reads the movements in recording order, a few at a time: years of history need not fit into memory. */
function* movementsOf({ orm }: Pick<Database, 'orm'>, count: (movements: number) => void): Generator<Movement> {
  for (let after = 0; ; ) {
    const page = orm
      .select(movementColumns)
      .from(movement)
      .where(gt(movement.seq, after))
      .orderBy(movement.seq)
      .limit(rowsAtOnce)
      .all()
    if (page.length === 0) return
    count(page.length)
    after = page.at(-1)?.seq ?? after
    yield* page
  }
}

/** Reads the movements of one lot after another. */
function* lotsOf({ orm }: Pick<Database, 'orm'>): Generator<DatedMovement[]> {
  const inOrder = sql`(${movement.lotId}, ${movement.happenedAtMs}, ${movement.seq})`
  let lot: DatedMovement[] = []
  for (let after = sql`('', 0, 0)`; ; ) {
    const page = orm.select({ ...movementColumns, happenedAtMs: movement.happenedAtMs }).from(movement).where(sql`${inOrder} > ${after}`).orderBy(movement.lotId, movement.happenedAtMs, movement.seq).limit(rowsAtOnce).all()
    for (const each of page) {
      if (lot[0] && lot[0].lotId !== each.lotId) {
        yield lot
        lot = []
      }
      lot.push(each)
    }
    const last = page.at(-1)
    if (!last) break
    after = sql`(${last.lotId}, ${last.happenedAtMs}, ${last.seq})`
  }
  if (lot.length > 0) yield lot
}

const stayWords = ({ lotId, placeId, fromMs, untilMs, openedById, closedById }: Stay): string => `lot ${lotId} in ${placeId} from ${fromMs} (${openedById}) until ${untilMs ?? 'now'}${closedById ? ` (${closedById})` : ''}`

/** Reads every stay anew from the movements; one sentence for each that was kept otherwise. */
function* wrongStays(db: Pick<Database, 'orm'>): Generator<string> {
  const columns = { lotId: stay.lotId, placeId: stay.placeId, fromMs: stay.fromMs, untilMs: stay.untilMs, openedById: stay.openedById, closedById: stay.closedById }
  for (const movements of lotsOf(db)) {
    const lotId = movements[0]?.lotId ?? ''
    const there = new Set(staysOf(movements).map(stayWords))
    for (const words of db.orm.select(columns).from(stay).where(and(eq(stay.lotId, lotId), eq(stay.isPossible, 0))).all().map(stayWords)) if (!there.delete(words)) yield `a stay is kept that the movements do not tell: ${words}`
    for (const words of there) yield `a stay that the movements tell is not kept: ${words}`
  }
}

interface Amount {
  key: string
  millionths: number
}

/** Fish to be expected of every lot, held against what the movements and shares come to; one sentence for each that is kept otherwise. */
function wrongExpected(raw: Database['raw'], summed: Stock): string[] {
  const all = (sql: string): Amount[] => raw.prepare(sql).all() as Amount[]
  const kept = new Map(all(`SELECT place_id || '/' || lot_id AS key, millionths FROM expected_stock`).map(({ key, millionths }) => [key, millionths]))
  const places = new Set((raw.prepare(`SELECT id FROM place WHERE kind IN ('tank', 'vessel')`).all() as { id: string }[]).map(({ id }) => id))
  const comes = new Map([...summed].filter(([key]) => places.has(key.split('/')[0] ?? '')).map(([key, fish]) => [key, fish * millionthsPerFish]))
  for (const { key, millionths } of all(`SELECT place_id || '/' || lot_id AS key, sum(expected - booked * ${millionthsPerFish}) AS millionths FROM pool_share GROUP BY place_id, lot_id`)) comes.set(key, (comes.get(key) ?? 0) + millionths)
  // Taken together, shares put fish from one lot of a kind to another and make none.
  const uneven = raw.prepare(`SELECT s.event_id AS event, s.place_id AS place, sum(s.expected - s.booked * ${millionthsPerFish}) AS surplus FROM pool_share s GROUP BY s.event_id, s.place_id HAVING surplus <> 0`).all() as { event: string; place: string; surplus: number }[]
  const uncertain = raw.prepare(`SELECT s.place_id AS place, lot.species_id AS species, sum(s.expected - s.booked * ${millionthsPerFish}) AS surplus FROM pool_share s JOIN lot ON lot.id = s.lot_id GROUP BY s.place_id, lot.species_id HAVING surplus <> 0`).all() as { place: string; species: string; surplus: number }[]
  return [
    ...[...new Set([...kept.keys(), ...comes.keys()])].flatMap((key) => {
      const [has, should] = [kept.get(key) ?? 0, comes.get(key) ?? 0]
      return has === should && should >= 0 ? [] : [`place/lot ${key}: ${has} millionths to be expected are kept, movements and shares come to ${should}`]
    }),
    ...uneven.map(({ event, place, surplus }) => `event ${event}: its shares in ${place} make ${surplus} millionths out of nothing`),
    ...uncertain.map(({ place, species, surplus }) => `species ${species} in ${place}: ${surplus} millionths more are to be expected than are booked`),
  ]
}

/** Recomputes every balance and every stay from the movements with the core's own arithmetic and compares them with what the database kept. */
export function checkLedger(db: Pick<Database, 'orm' | 'raw'>): LedgerCheck {
  const { orm, raw } = db
  let movements = 0
  const summed = sumMovements(movementsOf(db, (read) => (movements += read)))
  const rows = orm.select().from(stock).all()
  const kept = new Map(rows.map((row) => [stockKey(row.placeId, row.lotId), row.quantity]))
  const faults = [
    ...compareStock(kept, summed).map(({ key, kept: has, summed: comes }) => `place/lot ${key}: ${has} kept, movements come to ${comes}`),
    ...wrongStays(db),
    ...wrongExpected(raw, summed),
    ...rows.filter((row) => row.placeId === outsidePlaceId).map((row) => `lot ${row.lotId}: stock is kept for the outside`),
    ...missingTriggers(raw).map((name) => `trigger ${name} is missing`),
    ...pageFaults(raw, 'integrity_check').map((line) => `database: ${line}`),
    ...raw.prepare('PRAGMA foreign_key_check').all().map((row) => `broken reference: ${JSON.stringify(row)}`),
  ]
  return { movements, stockRows: rows.length, faults }
}
