import { minuteOf } from '../../core/contacts/contact'
import type { UsualFor } from '../../core/holds/courseEvents'
import { byTurn, type HoldEvent } from '../../core/holds/holdEvents'
import { copyRoom, emptyRoom, type HoldRoom, type HoldRules } from '../../core/holds/holdRoom'
import { playHolds } from '../../core/holds/playHolds'
import { heldHistory } from './heldHistory'
import type { HeldFile } from './heldFile'
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
  /** Keeps a room of yesterday between two starts. */
  file?: HeldFile
  usual: () => UsualFor | null
}
interface Kept {
  at: number
  room: HoldRoom
}

/** The held fish of the room, played out of the books once and then only as far back as something new happened. */
export function createHeldRooms({ history, marks, rules, usual, file }: Collaborators) {
  let kept: Kept[] = []
  let savedAt = -Infinity
  let known: { version: string; mark: HeldMark; rules: string; at: number; room: HoldRoom; ahead: readonly HoldEvent[] } | null = null

  /** Rules in one word, spelt once for each. */
  let spelt: { rules: HoldRules; names: string } | null = null
  function namesOf(inForce: HoldRules): string {
    const { policies, ...rest } = inForce
    if (spelt?.rules !== inForce) spelt = { rules: inForce, names: JSON.stringify([rest, [...policies.values()]]) }
    return spelt.names
  }

  /** Keeps fewer the older they are: the neighbours of one that is dropped are no further apart than half its age. */
  function thinned(rooms: readonly Kept[], now: number): Kept[] {
    const spare = rooms.length > mostKept ? rooms.findIndex(({ at }, index) => index > 0 && index < rooms.length - 1 && (rooms[index + 1]?.at ?? at) - (rooms[index - 1]?.at ?? at) <= (now - at) / 2) : -1
    return spare < 0 ? rooms.slice(-mostKept) : thinned(rooms.filter((_, index) => index !== spare), now)
  }

  /** Plays everything after the newest room that is older than what changed. */
  function playFrom(rooms: readonly Kept[], changed: number, inForce: HoldRules, now: number): { room: HoldRoom; ahead: readonly HoldEvent[]; kept: Kept[] } {
    const still = rooms.filter(({ at }) => at < changed && at < now)
    const base = still.at(-1)
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
      if (at <= (still.at(-1)?.at ?? -1)) continue
      playTo(at)
      still.push({ at, room: copyRoom(room) })
    }
    playTo(now)
    return { room, ahead: events.slice(played), kept: thinned(still, now) }
  }

  /** What is read inside of a write that is not over: it may be undone, so nothing of it is kept. */
  let passing: { version: string; at: number; room: HoldRoom } | null = null
  function inPassing(version: string, inForce: HoldRules, now: number): HoldRoom {
    if (passing?.version === version && passing.at === now) return passing.room
    const oldestMs = known ? marks.oldestSince(known.mark) : null
    passing = { version, at: now, room: playFrom(kept, known && oldestMs === null ? Infinity : minuteOf(oldestMs ?? -1), inForce, now).room }
    return passing.room
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
    const isAnew = known?.rules !== names
    if (marks.isWriting() && known && !isAnew) return inPassing(version, inForce, now)
    const mark = marks.mark(nowMs)
    const loaded = known ? null : (file?.load(inForce, names) ?? null)
    if (loaded) kept = [{ at: loaded.at, room: loaded.room }]
    const before = loaded?.mark ?? (known && !isAnew ? known.mark : null)
    const oldestMs = before && marks.oldestSince(before)
    if (known && !isAnew && oldestMs === null && known.at <= now) {
      // Something was written that no hold goes by.
      known = { ...known, version, mark }
      return at(nowMs)
    }
    // An earlier minute is played from the newest room before it.
    const changed = oldestMs === null ? (loaded || (known && !isAnew) ? Infinity : -Infinity) : minuteOf(oldestMs)
    const { room, ahead, kept: still } = playFrom(kept, changed, inForce, now)
    if (marks.isWriting()) return room
    kept = still
    known = { version, mark, rules: names, at: now, room, ahead }
    save(mark, names, now)
    return room
  }

  /** Once a day, a room of which hardly anything is entered any more. */
  function save(mark: HeldMark, names: string, now: number): void {
    const yesterday = kept.filter(({ at: minute }) => minute <= now - dayMin).at(-1)
    if (!file || !yesterday || now - savedAt < dayMin) return
    savedAt = now
    file.save({ ...yesterday, mark }, names)
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
