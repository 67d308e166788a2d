import { sql } from 'drizzle-orm'
import type { WrittenKind } from '../../core/contacts/contact'
import type { PlaceKind } from '../../core/ledger/movement'
import type { Database } from '../db/open'
import { strainOf } from '../pools/ofLot'
import type { HoldEntryKind } from './holds.table'

export interface LotNamed {
  lotId: string
  code: string
  speciesId: string
  species: string
  strain: string | null
  supplier: string
}
export interface EntryTold {
  id: string
  kind: HoldEntryKind
  placeId: string
  lotId: string | null
  policyId: string | null
  days: number | null
  word: string | null
  reason: string | null
  shortDays: number | null
  shortGates: string | null
  by: string
  staffId: string
  atMs: number
  recordedAtMs: number
}

/** Who and what stands behind the ids of clocks, for the sentences that tell of them. */
export function createHoldStoriesStore({ orm, raw }: Database) {
  const sign = raw.prepare('SELECT o.word, tank.code FROM observation o JOIN tank ON tank.id = o.tank_id WHERE o.seq = ?')
  const death = raw.prepare('SELECT tank.code FROM movement m LEFT JOIN tank ON tank.id = m.from_place_id WHERE m.id = ?')
  const lotOfMovement = raw.prepare('SELECT lot_id AS lotId FROM movement WHERE id = ?')
  const lot = raw.prepare(`SELECT lot.id AS lotId, lot.code, lot.species_id AS speciesId, species.name AS species, ${strainOf} AS strain, lot.origin AS supplier FROM lot JOIN species ON species.id = lot.species_id LEFT JOIN line ON line.lot_id = lot.id WHERE lot.id = ?`)
  const breach = raw.prepare('SELECT kind, from_node AS fromNode, to_node AS toNode, at_ms AS atMs, note FROM contact WHERE id = ?')
  const entry = raw.prepare('SELECT policy_id AS policyId, reason FROM hold_entry WHERE id = ?')
  const plumbed = raw.prepare('SELECT tank.code FROM tank_water w JOIN tank ON tank.id = w.tank_id WHERE w.seq = ?')
  return {
    sign: (seq: number) => (sign.get([seq]) as { word: string; code: string } | undefined) ?? null,
    deathIn: (movementId: string): string | null => (death.get([movementId]) as { code: string | null } | undefined)?.code ?? null,
    lotOfMovement: (id: string): string | null => (lotOfMovement.get([id]) as { lotId: string } | undefined)?.lotId ?? null,
    lot: (id: string): LotNamed | null => (lot.get([id]) as LotNamed | undefined) ?? null,
    breach: (id: string) => (breach.get([id]) as { kind: WrittenKind; fromNode: string; toNode: string; atMs: number; note: string | null } | undefined) ?? null,
    entryOf: (id: string) => (entry.get([id]) as { policyId: string | null; reason: string | null } | undefined) ?? null,
    plumbedTank: (seq: number): string | null => (plumbed.get([seq]) as { code: string } | undefined)?.code ?? null,

    /** Fish that are booked, by lot and place. */
    booked: (): { lotId: string; placeId: string; placeKind: PlaceKind; fish: number }[] =>
      orm.all(sql`SELECT stock.lot_id AS lotId, stock.place_id AS placeId, place.kind AS placeKind, stock.quantity AS fish FROM stock JOIN place ON place.id = stock.place_id AND place.kind IN ('tank', 'vessel')`),
    vesselName: (id: string): string | null => orm.get<{ name: string } | undefined>(sql`SELECT name FROM vessel WHERE id = ${id}`)?.name ?? null,

    /** What people did to holds since a moment, newest first. */
    entries: (sinceMs: number): EntryTold[] =>
      orm.all(sql`SELECT e.id, e.kind, e.place_id AS placeId, e.lot_id AS lotId, e.policy_id AS policyId, e.days, e.word, e.reason, e.short_days AS shortDays, e.short_gates AS shortGates, staff.name AS "by", e.staff_id AS staffId, e.happened_at_ms AS atMs, e.recorded_at_ms AS recordedAtMs
        FROM hold_entry e JOIN staff ON staff.id = e.staff_id WHERE e.happened_at_ms >= ${sinceMs} AND e.undone_at_ms IS NULL ORDER BY e.happened_at_ms DESC, e.rowid DESC`),

    /** The newest salinity read in these tanks. */
    salinity: (tankIds: readonly string[], sinceMs: number): number | null =>
      orm.get<{ value: number } | undefined>(sql`SELECT o.value FROM json_each(${JSON.stringify(tankIds)}) asked CROSS JOIN observation o ON o.tank_id = asked.value AND o.kind = 'reading' AND o.happened_at_ms >= ${sinceMs}
        WHERE o.word = 'salinityPpt' AND o.replaced_by_seq IS NULL ORDER BY o.happened_at_ms DESC, o.seq DESC LIMIT 1`)?.value ?? null,
  }
}
export type HoldStoriesStore = ReturnType<typeof createHoldStoriesStore>
