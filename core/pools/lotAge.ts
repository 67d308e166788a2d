import { daysBetween } from '../time/daysBetween'
import { dayInZone } from '../time/dayInZone'

/** Fish that stood here before the books began count as so many days old on the day they were entered. */
export const daysBeforeBooks = 21

/** When a lot came into the house, as far as is known. */
export interface LotArrival {
  arrivedAtMs: number
  isBeforeBooks: boolean
}

/** Whole days since a lot arrived, by the room's calendar. */
export function lotDays({ arrivedAtMs, isBeforeBooks }: LotArrival, nowMs: number, timeZone: string): number {
  return Math.max(0, daysBetween(dayInZone(arrivedAtMs, timeZone), dayInZone(nowMs, timeZone))) + (isBeforeBooks ? daysBeforeBooks : 0)
}

/** Whole days that fish have stood in their tank; those that stood there before the books began for longer than the books know. */
export const daysHere = ({ sinceMs, ...lot }: LotArrival & { sinceMs: number }, nowMs: number): number => Math.floor((nowMs - sinceMs) / 86_400_000) + (lot.isBeforeBooks && sinceMs === lot.arrivedAtMs ? daysBeforeBooks : 0)
