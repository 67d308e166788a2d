import { TZDate } from '@date-fns/tz'
import { startOfDay } from 'date-fns'

/** When the day of a moment began, by the clock of a time zone. */
export const dayStartIn = (atMs: number, timeZone: string): number => startOfDay(new TZDate(atMs, timeZone)).getTime()

/** Nine in the morning of a calendar day in a zone. */
export function morningIn(on: string, timeZone: string): number {
  const [year = 0, month = 1, day = 1] = on.split('-').map(Number)
  return new TZDate(year, month - 1, day, 9, 0, 0, timeZone).getTime()
}
