import { sql } from 'drizzle-orm'
import { goneAfterDays, shippedAgents } from '../../core/dosing/agents'
import { allGroups, emptyRoom, type HoldRoom } from '../../core/holds/holdRoom'
import { playHolds } from '../../core/holds/playHolds'
import { policiesById } from '../../core/holds/shippedHolds'
import type { Database } from '../db/open'
import { shippedRoundRules } from '../../core/rounds/roundRules'
import { createLevelsStore } from '../rounds/levels.store'
import { heldHistory } from '../holds/heldHistory'
import { createHeldHistoryStore } from '../holds/heldHistory.store'
import { waterId } from '../room/waterOf'

/**
 * The holds of a room as its books have them, played from the beginning.
 * @param isExplained - whether what happened to fish explains signs of theirs.
 */
export function heldRoomOf(db: Database, nowMs: number, { isExplained = false } = {}): HoldRoom {
  const tanks = db.orm.all<{ id: string; water: string }>(sql`SELECT tank.id, ${waterId} AS water FROM tank JOIN system ON system.id = tank.system_id`)
  const now = Math.floor(nowMs / 60_000)
  const history = createHeldHistoryStore(db)
  const { runs } = createLevelsStore(db)
  const usual = { rules: shippedRoundRules, speciesOf: (lot: string) => history.species(lot) ?? {}, runsOf: (lot: string) => runs([lot], 0, 0).map(({ run }) => run) }
  const events = heldHistory(history, 0, isExplained ? usual : null).filter(({ at }) => at <= now)
  return playHolds(emptyRoom({ timeZone: 'UTC', tanks: Object.fromEntries(tanks.map(({ id, water }) => [id, water])), policies: policiesById(), goneAfter: goneAfterDays(shippedAgents) }), events, now)
}

/** Where the fish that holds count are others than those the second book expects; none where all is well. */
export function fishUnlikeTheBooks(db: Database, room: HoldRoom): string[] {
  const expected = db.orm.all<{ place: string; lot: string; millionths: number }>(sql`SELECT CASE place.kind WHEN 'tank' THEN place.id ELSE 'vessel:' || place.id END AS place, e.lot_id AS lot, e.millionths FROM expected_stock e JOIN place ON place.id = e.place_id WHERE e.millionths > 0`)
  const held = new Map([...allGroups(room)].map(({ place, lot, millionths }) => [`${place} ${lot}`, millionths]))
  const off = expected.filter(({ place, lot, millionths }) => held.get(`${place} ${lot}`) !== millionths).map(({ place, lot, millionths }) => `${place} ${lot}: ${held.get(`${place} ${lot}`) ?? 0} for ${millionths}`)
  return held.size > expected.length ? [...off, `${held.size - expected.length} groups too many`] : off
}
