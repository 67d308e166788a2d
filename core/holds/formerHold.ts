import { daysBetween } from '../time/daysBetween'
import { dayInZone } from '../time/dayInZone'

// The rule that a room went by before it kept clocks: what stood then is carried over by it.

export interface FormerDay {
  /** Day of the hold that today is, 1 being the day the crate was opened. */
  day: number
  of: number
  /** All days served. */
  isServed: boolean
}

/**
 * When a hold had begun: with the first bag, and again with every confirmed sign that was seen while it ran.
 * @param restartsMs - when such signs were seen, in any order.
 */
export function holdBeganMs(openedAtMs: number, restartsMs: readonly number[], days: number, timeZone: string): number {
  return [...restartsMs].sort((a, b) => a - b).reduce((began, atMs) => (shopHold(began, atMs, days, timeZone)?.isServed === false ? atMs : began), openedAtMs)
}

/**
 * Counted the days of a lot's shop hold by the room's calendar.
 * @param openedAtMs - when the first bag of the lot was opened, UTC epoch milliseconds.
 * @param days - length of the hold; 0 where the house holds nothing.
 * @returns null without a hold.
 * @example shopHold(Date.UTC(2031, 4, 4, 9), Date.UTC(2031, 4, 6, 1), 14, 'UTC') // { day: 3, of: 14, isServed: false }
 */
export function shopHold(openedAtMs: number, nowMs: number, days: number, timeZone: string): FormerDay | null {
  if (days <= 0 || openedAtMs > nowMs) return null
  const day = daysBetween(dayInZone(openedAtMs, timeZone), dayInZone(nowMs, timeZone)) + 1
  return { day, of: days, isServed: day > days }
}
