import { TZDate } from '@date-fns/tz'
import { startOfDay } from 'date-fns'

/** When the day of a moment began, by the clock of a time zone. */
export const dayStartIn = (atMs: number, timeZone: string): number => startOfDay(new TZDate(atMs, timeZone)).getTime()
