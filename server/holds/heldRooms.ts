import { minuteOf } from '../../core/contacts/contact'
import type { UsualFor } from '../../core/holds/courseEvents'
import { byTurn, type HoldEvent } from '../../core/holds/holdEvents'
import { copyRoom, emptyRoom, type HoldRoom, type HoldRules } from '../../core/holds/holdRoom'
import { playHolds } from '../../core/holds/playHolds'
import { heldHistory } from './heldHistory'
import type { HeldHistoryStore } from './heldHistory.store'
import type { HeldMark, HeldMarkStore } from './heldMark.store'

const [minuteMs, dayMin] = [60_000, 1440]
/** How long before now rooms are kept, so that what is entered late is played from there. */
const keptBefore = [120 * dayMin, 30 * dayMin, 10 * dayMin, 3 * dayMin, dayMin, 60, 1]
const mostKept = 20

interface Collaborators {
  history: HeldHistoryStore
  marks: HeldMarkStore
  rules: () => HoldRules
  usual: () => UsualFor | null
}
interface Kept {
  at: number
  room: HoldRoom
}

/** The held fish of the room, played out of the books once and then only as far back as something new happened. */
export function createHeldRooms({ history, marks, rules, usual }: Collaborators) {
  let kept: Kept[] = []
  let known: { version: string; mark: HeldMark; rules: string; at: number; room: HoldRoom; ahead: readonly HoldEvent[] } | null = null

  const namesOf = ({ policies, ...rest }: HoldRules): string => JSON.stringify([rest, [...policies.values()]])

  /** Keeps fewer the older they are: the neighbours of one that is dropped are no further apart than half its age. */
  function thinned(rooms: readonly Kept[], now: number): Kept[] {
    const spare = rooms.length > mostKept ? rooms.findIndex(({ at }, index) => index > 0 && index < rooms.length - 1 && (rooms[index + 1]?.at ?? at) - (rooms[index - 1]?.at ?? at) <= (now - at) / 2) : -1
    return spare < 0 ? rooms.slice(-mostKept) : thinned(rooms.filter((_, index) => index !== spare), now)
  }

  /** Plays everything after the newest room that is older than what changed. */
  function playFrom(changed: number, inForce: HoldRules, now: number): { room: HoldRoom; ahead: readonly HoldEvent[] } {
    kept = kept.filter(({ at }) => at < changed && at < now)
    const base = kept.at(-1)
    const room = base ? copyRoom(base.room) : emptyRoom(inForce)
    const events = heldHistory(history, base ? (base.at + 1) * minuteMs : 0, usual())
    let played = 0
    const playTo = (until: number): void => {
      let next = played
      while ((events[next]?.at ?? Infinity) <= until) next += 1
      playHolds(room, events.slice(played, next), until)
      played = next
    }
    for (const before of keptBefore) {
      const at = now - before
      if (at <= (kept.at(-1)?.at ?? -1)) continue
      playTo(at)
      kept.push({ at, room: copyRoom(room) })
    }
    playTo(now)
    kept = thinned(kept, now)
    return { room, ahead: events.slice(played) }
  }

  /**
   * The room's holds as they are at a moment. What is answered is played on when it is asked again: read it, and copy it to
   * play on it.
   */
  function at(nowMs: number): HoldRoom {
    const [now, version, inForce] = [minuteOf(nowMs), marks.version(), rules()]
    const names = namesOf(inForce)
    if (known?.version === version && known.rules === names && known.at <= now) {
      const isDue = ({ at: minute }: HoldEvent): boolean => minute <= now
      playHolds(known.room, known.ahead.filter(isDue), now)
      known = { ...known, at: now, ahead: known.ahead.filter((event) => !isDue(event)) }
      return known.room
    }
    const mark = marks.mark(nowMs)
    const isAnew = known?.rules !== names || known.at > now
    const oldestMs = known && !isAnew ? marks.oldestSince(known.mark) : null
    if (known && !isAnew && oldestMs === null) {
      // Something was written that no hold goes by.
      known = { ...known, version, mark }
      return at(nowMs)
    }
    known = { version, mark, rules: names, at: now, ...playFrom(oldestMs === null ? -Infinity : minuteOf(oldestMs), inForce, now) }
    return known.room
  }

  /**
   * The room as it would be at a moment if something of the past had been otherwise: a sign that counts, a look that was
   * of another tank. The room itself stays as it is.
   * @param sinceMs - nothing before this is otherwise.
   */
  function suppose(nowMs: number, sinceMs: number, change: (event: HoldEvent) => HoldEvent): HoldRoom {
    at(nowMs)
    const [now, inForce] = [minuteOf(nowMs), rules()]
    const base = kept.filter(({ at: minute }) => minute < minuteOf(sinceMs)).at(-1)
    const events = heldHistory(history, base ? (base.at + 1) * minuteMs : 0, usual()).map(change)
    return playHolds(base ? copyRoom(base.room) : emptyRoom(inForce), events.filter(({ at: minute }) => minute <= now).sort(byTurn), now)
  }

  return { at, suppose }
}
export type HeldRooms = ReturnType<typeof createHeldRooms>
