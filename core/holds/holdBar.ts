import { writtenDay } from '../time/zoneDays'
import { earliestOf, needOf } from './gates'
import { slowest } from './holdClock'
import { groupOf, type HoldRoom } from './holdRoom'
import { heldOf } from './playHolds'
import type { PhaseKind } from './policy'
import type { Hold, RestartCause } from './strand'

/** A phase on the bar of a hold: from a day up to the day before another. */
export interface BarPart {
  phase: string
  kind: PhaseKind
  from: string
  to: string
  state: 'passed' | 'now' | 'later'
}
/** A hold as a bar over days. */
export interface HoldBar {
  from: string
  today: string
  /** Not before this day. */
  earliest: string
  /** The day that a house would like better; null where it wishes for no longer stay. */
  wish: string | null
  parts: BarPart[]
  /** Days before each that were served and count no more. */
  restarts: { on: string; cause: RestartCause; lost: number }[]
}

/** The day a phase began first, before it was begun again. */
function firstBegun({ policy, begins, restarts }: Hold, index: number, since: number): number | undefined {
  const began = begins[index]?.day
  const again = restarts.filter(({ phase, day }) => phase === policy.phases[index]?.id && day > since)
  return began === undefined ? undefined : again.reduce((day, { lost }) => day - lost, began)
}

/**
 * The hold of a group as a bar: phases that were passed as long as they took, those to come as long as they take at least.
 * Several histories are shown by the one that takes longest.
 * @returns null where no hold runs.
 */
export function holdBar(room: HoldRoom, lot: string, place: string): HoldBar | null {
  const [group, today] = [groupOf(room, lot, place), room.day ?? 0]
  const held = group ? heldOf(room, group, today) : []
  if (held.length === 0) return null
  const { strand, hold, where } = slowest(held)
  const { phases } = hold.policy
  let from = hold.begins[0]?.day ?? hold.begunDay
  const parts = phases.map(({ id, kind }, index): BarPart => {
    const state = index < hold.phase ? 'passed' : index === hold.phase ? 'now' : 'later'
    const began = hold.begins[index]?.day ?? from
    const to = state === 'passed' ? (firstBegun(hold, index + 1, began) ?? began) : (state === 'now' ? today : from) + needOf(strand, hold, index, today)
    from = to
    return { phase: id, kind, from: writtenDay(state === 'later' ? from - needOf(strand, hold, index, today) : began), to: writtenDay(to), state }
  })
  const earliest = earliestOf(strand, hold, where)
  const more = phases.slice(hold.phase).reduce((days, phase) => days + Math.max(0, (phase.wishDays ?? 0) - phase.days), 0)
  return {
    from: writtenDay(Math.min(...held.map((each) => each.hold.begunDay))),
    today: writtenDay(today),
    earliest: writtenDay(earliest),
    wish: more > 0 ? writtenDay(earliest + more) : null,
    parts,
    restarts: hold.restarts.map(({ day, cause, lost }) => ({ on: writtenDay(day), cause, lost })),
  }
}
