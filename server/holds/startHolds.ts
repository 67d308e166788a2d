import { sql } from 'drizzle-orm'
import { holdBeganMs, shopHold } from '../../core/holds/formerHold'
import { usualPolicy } from '../../core/holds/policyFor'
import { listed } from '../db/listed'
import type { Database } from '../db/open'
import { holdCarried, holdStart } from './holds.table'

const dayMs = 86_400_000
/** Looks of so many days before count for fish that were carried over. */
const carriedDays = 10

interface StandingLot {
  placeId: string
  lotId: string
  millionths: number
  openedAtMs: number | null
  restarts: string | null
}

/**
 * Begins to keep the holds of a room. A new one has nothing to carry over. In one that is older no begin day moves: what
 * stands is carried over with the day its hold had begun on by the rule of before (with the bag, and again with every
 * confirmed sign); what was served by then is over.
 * @param days - the shop hold as it is set here; 0 where nothing is held.
 */
export function startHolds({ orm, transact }: Database, { days, zone, nowMs }: { days: () => number; zone: () => string; nowMs: number }): void {
  if (orm.get(sql`SELECT id FROM hold_start`) !== undefined) return
  const isNew = orm.get(sql`SELECT seq FROM movement LIMIT 1`) === undefined
  if (isNew) return void orm.insert(holdStart).values({ id: 1, atMs: 0, carriedAtMs: 0 }).run()
  // A dose of before would send back whoever stood there: fish are carried over after the last one.
  const { lastDoseMs } = orm.get<{ lastDoseMs: number | null }>(sql`SELECT max(happened_at_ms) AS lastDoseMs FROM observation WHERE kind = 'dose' AND replaced_by_seq IS NULL`)
  const carriedAtMs = Math.min(nowMs, Math.max(nowMs - carriedDays * dayMs, (lastDoseMs ?? 0) + 60_000))
  const standing = orm.all<StandingLot>(sql`SELECT e.place_id AS placeId, e.lot_id AS lotId, e.millionths,
      (SELECT min(r.happened_at_ms) FROM line JOIN bag ON bag.line_id = line.id JOIN bag_record r ON r.bag_id = bag.id AND r.undone_at_ms IS NULL WHERE line.lot_id = e.lot_id) AS openedAtMs,
      (SELECT json_group_array(d.last_ms) FROM sign_reach reach JOIN sign_decision d ON d.id = reach.decision_id AND d.undone_at_ms IS NULL WHERE reach.lot_id = e.lot_id) AS restarts
    FROM expected_stock e JOIN place p ON p.id = e.place_id AND p.kind IN ('tank', 'vessel') WHERE e.millionths > 0`)
  transact(() => {
    orm.insert(holdStart).values({ id: 1, atMs: nowMs, carriedAtMs }).run()
    for (const row of standing) orm.insert(holdCarried).values(carried(row, days(), zone(), nowMs)).run()
  })
}

function carried({ placeId, lotId, millionths, openedAtMs, restarts }: StandingLot, days: number, zone: string, nowMs: number): typeof holdCarried.$inferInsert {
  const beganMs = openedAtMs === null ? null : holdBeganMs(openedAtMs, listed<number>(restarts), days, zone)
  const hold = beganMs === null ? null : shopHold(beganMs, nowMs, days, zone)
  return { placeId, lotId, millionths, policyId: hold ? usualPolicy : null, beganMs: hold ? beganMs : null, isEnded: hold?.isServed ? 1 : 0 }
}
