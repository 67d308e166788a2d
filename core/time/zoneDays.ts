import { dayInZone } from './dayInZone'

const [minuteMs, dayMinutes] = [60_000, 1440]

/** The calendar of a room: its days as numbers, and where each begins. */
export interface ZoneDays {
  /** The number of the calendar day that a minute of the epoch falls on; days from 1970-01-01. */
  dayOf(minute: number): number
  /** The first minute of a day. */
  startOf(day: number): number
}
/** A day number as it is written, e.g. `'2031-05-04'`. */
export const writtenDay = (day: number): string => new Date(day * dayMinutes * minuteMs).toISOString().slice(0, 10)

const dayNumber = (minute: number, timeZone: string): number => Date.parse(dayInZone(minute * minuteMs, timeZone)) / (dayMinutes * minuteMs)

// A zone asked about every minute of five years names the same few thousand midnights.
const calendars = new Map<string, ZoneDays>()

/**
 * The calendar of a time zone. Days of 23 and 25 hours are one day each.
 * @throws RangeError when the zone is unknown.
 */
export function zoneDays(timeZone: string): ZoneDays {
  const known = calendars.get(timeZone)
  if (known) return known
  const starts = new Map<number, number>()
  /** The first minute that is called so, between a day before and a day after midnight of UTC. */
  function findStart(day: number): number {
    let [before, found] = [(day - 1) * dayMinutes - 1, (day + 1) * dayMinutes]
    while (found - before > 1) {
      const middle = Math.floor((before + found) / 2)
      if (dayNumber(middle, timeZone) >= day) found = middle
      else before = middle
    }
    return found
  }
  function startOf(day: number): number {
    const start = starts.get(day) ?? findStart(day)
    starts.set(day, start)
    return start
  }
  function dayOf(minute: number): number {
    const guess = Math.floor(minute / dayMinutes)
    if (minute < startOf(guess)) return guess - 1
    return minute >= startOf(guess + 1) ? guess + 1 : guess
  }
  const made = { dayOf, startOf }
  if (calendars.size < 20) calendars.set(timeZone, made)
  return made
}
