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

/** Recomputes every balance from the movements with the core's own arithmetic and compares it with what the database kept. */
export function checkLedger({ orm, raw }: Database): LedgerCheck {
  const movements = orm
    .select({ id: movement.id, kind: movement.kind, lotId: movement.lotId, fromPlaceId: movement.fromPlaceId, toPlaceId: movement.toPlaceId, quantity: movement.quantity, reversesId: movement.reversesId })
    .from(movement)
    .orderBy(movement.seq)
    .all() satisfies Movement[]
  const rows = orm.select().from(stock).all()
  const kept = new Map(rows.map((row) => [stockKey(row.placeId, row.lotId), row.quantity]))
  const integrity = (raw.prepare('PRAGMA integrity_check').all() as { integrity_check: string }[]).map((row) => row.integrity_check).filter((line) => line !== 'ok')
  const faults = [
    ...compareStock(kept, sumMovements(movements)).map(({ key, kept: has, summed }) => `place/lot ${key}: ${has} kept, movements come to ${summed}`),
    ...rows.filter((row) => row.placeId === outsidePlaceId).map((row) => `lot ${row.lotId}: stock is kept for the outside`),
    ...missingTriggers(raw).map((name) => `trigger ${name} is missing`),
    ...integrity.map((line) => `database: ${line}`),
    ...raw.prepare('PRAGMA foreign_key_check').all().map((row) => `broken reference: ${JSON.stringify(row)}`),
  ]
  return { movements: movements.length, stockRows: rows.length, faults }
}
