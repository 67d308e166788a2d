import { byText } from '../contacts/contact'
import { clockOf } from './holdClock'
import { byTurn, type HoldEvent } from './holdEvents'
import { allGroups, copyRoom, groupKey, groupOf, standsIn, waterState, type HoldRoom } from './holdRoom'
import { playHolds } from './playHolds'
import { isPassed, type Strand } from './strand'

/** An event that may happen, without its id and its time. */
export type Supposed<Event = HoldEvent> = Event extends HoldEvent ? Omit<Event, 'id' | 'at'> : never
/** What it would do to a group that stands somewhere afterwards. */
export interface WhatIfRow {
  lot: string
  tank: string
  before: string | null
  after: string | null
  /** The most days lost by it. */
  lost: number
  causes: string[]
}
export interface WhatIf {
  rows: WhatIfRow[]
  /** Fish whose hold is over or never was, that would stand with held fish: no clock can tell about them. */
  unprotected: { lot: string; tank: string }[]
}

/** A group of which no hold runs, in waters where held fish stand. */
interface Bare {
  lot: string
  tank: string
  waters: readonly string[]
}

/** Groups of which no hold runs, that share a water with held fish. */
function besideHeld(room: HoldRoom): Bare[] {
  const heldWaters = new Set([...allGroups(room)].flatMap(({ place, strands }) => strands.filter(({ hold }) => hold && !isPassed(hold)).map((strand) => standsIn(room, place, strand))))
  return [...allGroups(room)].flatMap(({ lot, place, strands }): Bare[] => {
    const waters = strands.map((strand) => standsIn(room, place, strand)).filter((water) => heldWaters.has(water))
    return waters.length > 0 && strands.every(({ hold }) => !hold) ? [{ lot, tank: place, waters }] : []
  })
}

const sameWater = (before: HoldRoom, after: HoldRoom, place: string, strand: Strand): boolean => waterState(before, standsIn(before, place, strand)) === waterState(after, standsIn(after, place, strand))

/** Events that are supposed, as they would happen now. */
export const supposedNow = (supposed: readonly Supposed[], now: number): HoldEvent[] => supposed.map((each, index) => ({ ...each, id: `~${index}`, at: now }) as HoldEvent).sort(byTurn)

/** What differs between a room as it is and as it would be: whose dates move, and who would stand unprotected with held fish. */
export function compareRooms(before: HoldRoom, after: HoldRoom, added: readonly HoldEvent[]): WhatIf {
  const ids = new Set(added.map(({ id }) => id))
  const rows = [...allGroups(after)].flatMap((group): WhatIfRow[] => {
    const { lot, place } = group
    // A clock goes by its fish and its water, and neither is ever changed in place: what is the same says the same.
    if (groupOf(before, lot, place) === group && group.strands.every((strand) => sameWater(before, after, place, strand))) return []
    const [was, is] = [clockOf(before, lot, place), clockOf(after, lot, place)]
    const theirs = is.restarts.filter(({ id }) => ids.has(id))
    if (was.earliest === is.earliest && theirs.length === 0) return []
    return [{ lot, tank: place, before: was.earliest, after: is.earliest, lost: Math.max(0, ...theirs.map(({ lost }) => lost)), causes: [...new Set(theirs.map(({ cause }) => cause))].sort(byText) }]
  })
  // Who stood on that water already, in whatever tank, does so still.
  const known = new Set(besideHeld(before).flatMap(({ lot, waters }) => waters.map((water) => groupKey(lot, water))))
  const unprotected = besideHeld(after).flatMap(({ lot, tank, waters }) => (waters.some((water) => known.has(groupKey(lot, water))) ? [] : [{ lot, tank }]))
  const byPlace = (a: { lot: string; tank: string }, b: { lot: string; tank: string }): number => byText(a.lot, b.lot) || byText(a.tank, b.tank)
  return { rows: rows.sort(byPlace), unprotected: unprotected.sort(byPlace) }
}

/**
 * What events would do if they happened now.
 * @param room - played up to now; it stays as it is.
 * @param now - whole minutes of the epoch.
 */
export function whatIf(room: HoldRoom, supposed: readonly Supposed[], now: number): WhatIf {
  const added = supposedNow(supposed, now)
  return compareRooms(room, playHolds(copyRoom(room), added, now), added)
}
