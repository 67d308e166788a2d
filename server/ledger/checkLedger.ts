import { gt } from 'drizzle-orm'
import { outsidePlaceId, type Movement } from '../../core/ledger/movement'
import { compareStock, stockKey, sumMovements } from '../../core/ledger/stock'
import type { Database } from '../db/open'
import { missingTriggers } from '../db/triggers'
import { movement, stock } from './ledger.table'

export interface LedgerCheck {
  movements: number
  stockRows: number
  /** One sentence per fault; empty when the books are right. */
  faults: string[]
}

const rowsAtOnce = 5000

/** What the database says of its own pages; empty when all is well. The quick check leaves out whether indexes agree with their tables. */
export const pageFaults = (raw: Database['raw'], check: 'quick_check' | 'integrity_check'): string[] => (raw.prepare(`PRAGMA ${check}`).all() as Record<string, string>[]).map((row) => row[check] ?? '').filter((line) => line !== 'ok')

/** Reads the movements in recording order, a few at a time: years of history need not fit into memory. */
function* movementsOf({ orm }: Pick<Database, 'orm'>, count: (movements: number) => void): Generator<Movement> {
  for (let after = 0; ; ) {
    const page = orm
      .select({ seq: movement.seq, id: movement.id, kind: movement.kind, lotId: movement.lotId, fromPlaceId: movement.fromPlaceId, toPlaceId: movement.toPlaceId, quantity: movement.quantity, reversesId: movement.reversesId })
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

/** Recomputes every balance from the movements with the core's own arithmetic and compares it with what the database kept. */
export function checkLedger(db: Pick<Database, 'orm' | 'raw'>): LedgerCheck {
  const { orm, raw } = db
  let movements = 0
  const summed = sumMovements(movementsOf(db, (read) => (movements += read)))
  const rows = orm.select().from(stock).all()
  const kept = new Map(rows.map((row) => [stockKey(row.placeId, row.lotId), row.quantity]))
  const faults = [
    ...compareStock(kept, summed).map(({ key, kept: has, summed: comes }) => `place/lot ${key}: ${has} kept, movements come to ${comes}`),
    ...rows.filter((row) => row.placeId === outsidePlaceId).map((row) => `lot ${row.lotId}: stock is kept for the outside`),
    ...missingTriggers(raw).map((name) => `trigger ${name} is missing`),
    ...pageFaults(raw, 'integrity_check').map((line) => `database: ${line}`),
    ...raw.prepare('PRAGMA foreign_key_check').all().map((row) => `broken reference: ${JSON.stringify(row)}`),
  ]
  return { movements, stockRows: rows.length, faults }
}
