import { plural } from '../words/plural'
import { writtenDay } from '../time/zoneDays'
import { slowest } from './holdClock'
import type { Group, HoldRoom } from './holdRoom'
import { heldOf, latestOf, waitsOf, type Held } from './playHolds'
import { backTo } from './policy'
import { daysOf } from './strand'

/** The day of its hold that fish are in, over all phases of it: what the scale on a glass shows. */
export interface HoldDay {
  /** Its policy, as the house calls it. */
  policy: string
  /** 1 being the first; above `of` all days are served. */
  day: number
  of: number
  /** All days served and nothing that it waits for: somebody may release them. */
  isServed: boolean
  /** Gates by name, `days`, `decision`. */
  waitsFor: readonly string[]
  /** Not before this day. */
  earliest: string
  /** Days that would be lost if held fish were added today, to its tank or anywhere to its water; null where none would. */
  added: { by: 'tank' | 'water'; days: number } | null
}

/** What fish added today would cost the slowest of some histories. */
function ifAdded(held: readonly Held[], today: number): HoldDay['added'] {
  const lost = held.flatMap(({ hold }) => {
    const [rule, target] = [hold.policy.onAddition, backTo(hold.policy, hold.policy.onAddition)]
    return rule && target >= 0 && hold.phase >= target ? [{ by: rule.by, days: today - (hold.begins[target]?.day ?? today) }] : []
  })
  return lost.sort((a, b) => b.days - a.days)[0] ?? null
}

/**
 * How far a hold is, in words.
 * @example dayWords({ day: 3, of: 14 }) // 'day 3 of 14'
 * @example dayWords({ day: 15, of: 14 }) // '14 days served'
 */
export const dayWords = ({ day, of }: Pick<HoldDay, 'day' | 'of'>): string => (day > of ? `${plural(of, 'day')} served` : `day ${day} of ${of}`)

/** The day of a hold that is not over yet; null without one. */
export const runningDay = (hold: HoldDay | null): number | null => (hold && !hold.isServed ? hold.day : null)

/**
 * How far fish of one lot in one place are in their hold; several histories are counted by the one that takes longest.
 * @returns null where no hold runs, or one that asks for nothing.
 */
export function holdDay(room: HoldRoom, group: Group): HoldDay | null {
  const today = room.day ?? 0
  const held = heldOf(room, group, today)
  if (held.length === 0) return null
  const { hold } = slowest(held)
  const of = hold.policy.phases.reduce((sum, _, index) => sum + daysOf(hold, index), 0)
  if (hold.policy.phases.length === 0) return null
  const [waitsFor, latest] = [waitsOf(held), latestOf(held)]
  const served = waitsFor.includes('days') ? Math.max(0, of - (latest - today)) : Math.max(of, today - (hold.begins[0]?.day ?? today))
  return { policy: hold.policy.name, day: served + 1, of, isServed: waitsFor.length === 0, waitsFor, earliest: writtenDay(latest), added: ifAdded(held, today) }
}
