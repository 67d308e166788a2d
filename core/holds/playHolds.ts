import { earliestOf, mayPass, waitsFor, type Where } from './gates'
import { isFact, isMovement, type End, type HoldEvent, type Leave } from './holdEvents'
import { addDeparture, allGroups, changeStrands, groupOf, putGroup, standsIn, takeTouched, untouched, waterState, type Group, type HoldRoom } from './holdRoom'
import { afterMovements } from './meetings'
import { doMovements, millionths } from './movements'
import { tellFact } from './facts'
import { beginPhase, isPassed, withoutOver, withoutTwins, type Hold, type PhaseBegin, type Strand } from './strand'
import { closedAtLevel } from './waterState'

/** A strand whose hold runs. */
export interface Held {
  strand: Strand
  hold: Hold
  where: Where
}

/** The water of fish in a place, and the day: what gates go by. */
export const whereOf = (room: HoldRoom, place: string, strand: Strand, day: number): Where => ({ water: waterState(room, standsIn(room, place, strand)), goneAfter: room.rules.goneAfter, day })
/** Strands of a group whose hold runs; those without one are left aside. */
export const heldOf = (room: HoldRoom, { place, strands }: Group, day: number): Held[] => strands.flatMap((strand) => (strand.hold ? [{ strand, hold: strand.hold, where: whereOf(room, place, strand, day) }] : []))

/** What any of them waits for, by name, once each. */
export const waitsOf = (held: readonly Held[]): string[] => [...new Set(held.flatMap(({ strand, hold, where }) => waitsFor(strand, hold, where)))].sort()
/** The earliest day of one. */
export const earliestOfHeld = ({ strand, hold, where }: Held): number => earliestOf(strand, hold, where)
/** The latest of their earliest days. */
export const latestOf = (held: readonly Held[]): number => Math.max(...held.map(earliestOfHeld))

/** Passes every phase whose time has come, one after the other. */
function pass(room: HoldRoom, place: string, strand: Strand, day: number, at: number): Strand {
  let now = strand
  while (now.hold && !isPassed(now.hold) && mayPass(now, now.hold, whereOf(room, place, now, day))) now = beginPhase(now, now.hold, now.hold.phase + 1, day, at)
  return now
}
const passAll = (room: HoldRoom, groups: Iterable<Group>, day: number, at: number): void => changeStrands(room, [...groups], (strand, { place }) => pass(room, place, strand, day, at))

/** Counts a day that is over for the phase it was of; the last goes on being counted, for it may be made longer. */
function closeDay(room: HoldRoom, place: string, strand: Strand, day: number): Strand {
  const { hold } = strand
  const index = hold ? Math.min(hold.phase, hold.policy.phases.length - 1) : -1
  const phase = hold?.policy.phases[index]
  const begin = hold?.begins[index]
  if (!hold || !phase || !begin || (phase.counts ?? 'calendar') === 'calendar') return strand
  const isLooked = phase.counts === 'looked' && strand.lookedDay === day
  const isAtLevel = phase.counts === 'atLevel' && phase.level !== undefined && closedAtLevel(waterState(room, standsIn(room, place, strand)), phase.level, day)
  if (!isLooked && !isAtLevel) return strand
  const counted: PhaseBegin = { ...begin, looked: begin.looked + Number(isLooked), atLevel: begin.atLevel + Number(isAtLevel) }
  return { ...strand, hold: { ...hold, begins: hold.begins.map((each, at) => (at === index ? counted : each)) } }
}

/** Histories that differ in nothing any more, now that some courses are over, are one. */
function joinAlike(room: HoldRoom, at: number): void {
  for (const group of [...allGroups(room)]) {
    if (group.strands.length < 2) continue
    const strands = withoutTwins(group.strands.map((strand) => withoutOver(strand, at)))
    if (strands.length < group.strands.length) putGroup(room, { ...group, strands })
  }
}

/** Lets midnights go by: the old day is closed, then phases are passed. */
function turnDays(room: HoldRoom, toDay: number): void {
  for (let day = room.day ?? toDay; day < toDay; day += 1) {
    changeStrands(room, [...allGroups(room)], (strand, { place }) => closeDay(room, place, strand, day))
    passAll(room, allGroups(room), day + 1, room.days.startOf(day + 1))
    joinAlike(room, room.days.startOf(day + 1))
  }
  room.day = Math.max(room.day ?? toDay, toDay)
}

/** What a group's holds are short of; nothing when they are ready, or there are none. */
export function shortfallOf(room: HoldRoom, group: Group, day: number): { days: number; gates: string[] } {
  const held = heldOf(room, group, day)
  const waits = waitsOf(held)
  if (waits.length === 0) return { days: 0, gates: [] }
  return { days: latestOf(held) - day, gates: waits.filter((name) => name !== 'days') }
}

function endHold(room: HoldRoom, { lot, tank, reason = null }: { lot: string; tank: string; reason?: string | null }, day: number): void {
  const group = groupOf(room, lot, tank)
  if (!group?.strands.some(({ hold }) => hold)) return
  const ended = { day, ...shortfallOf(room, group, day), reason }
  changeStrands(room, [group], (strand) => (strand.hold ? { ...strand, hold: null, ended } : strand))
}

/** Fish go away for good, with what their hold was short of; false where there are not so many. */
function leave(room: HoldRoom, { id, lot, tank, n }: Leave, day: number): boolean {
  const group = groupOf(room, lot, tank)
  if (!group || group.millionths < millionths(n)) return false
  addDeparture(room, lot, tank, { id, day, n, ...shortfallOf(room, group, day) })
  putGroup(room, { ...group, millionths: group.millionths - millionths(n) })
  return true
}

/** Movements, what they did to holds, facts, phases, ends, departures: in this order inside one minute. */
function playMinute(room: HoldRoom, at: number, events: readonly HoldEvent[]): void {
  const day = room.days.dayOf(at)
  turnDays(room, day)
  room.touched = untouched()
  const movers = doMovements(room, events.filter(isMovement), at, (leaving) => leave(room, leaving, day))
  afterMovements(room, movers, at, day)
  // What waits is tried in the minute after fish came to a place, whether anything else happens in it or not.
  room.retryAt = room.waiting.length > 0 && room.touched.places.size > 0 ? at + 1 : null
  for (const fact of events.filter(isFact)) tellFact(room, fact, { at, day })
  passAll(room, takeTouched(room), day, at)
  for (const end of events.filter((each): each is End => each.kind === 'end')) endHold(room, end, day)
  for (const leaving of events.filter((each): each is Leave => each.kind === 'leave')) if (!leave(room, leaving, day)) room.waiting = [...room.waiting, leaving]
}

/**
 * Plays events on, minute by minute, and the midnights up to a moment.
 * @param events - in the order they are played (`eventsInForce`), none after `until` or before what was played already.
 * @param until - whole minutes of the epoch.
 */
export function playHolds(room: HoldRoom, events: readonly HoldEvent[], until: number): HoldRoom {
  let from = 0
  for (;;) {
    const at = Math.min(events[from]?.at ?? Infinity, room.retryAt ?? Infinity)
    if (at > until) break
    let to = from
    while (events[to]?.at === at) to += 1
    playMinute(room, at, events.slice(from, to))
    from = to
  }
  turnDays(room, room.days.dayOf(until))
  return room
}
