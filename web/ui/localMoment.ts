import { TZDate } from '@date-fns/tz'

const pad = (figure: number): string => String(figure).padStart(2, '0')

/** Writes a moment for a date and time field, by the room's clock: `2031-05-04T09:05`. */
export function toLocalMoment(atMs: number | null, timeZone: string): string {
  if (atMs === null) return ''
  const local = new TZDate(atMs, timeZone)
  return `${local.getFullYear()}-${pad(local.getMonth() + 1)}-${pad(local.getDate())}T${pad(local.getHours())}:${pad(local.getMinutes())}`
}

/** Reads a date and time field by the room's clock, whatever zone the device thinks it is in; null when it is empty. */
export function fromLocalMoment(local: string, timeZone: string): number | null {
  const parts = /^(\d{4})-(\d\d)-(\d\d)T(\d\d):(\d\d)/.exec(local)?.slice(1).map(Number)
  if (!parts) return null
  const [year = 0, month = 1, day = 1, hour = 0, minute = 0] = parts
  return new TZDate(year, month - 1, day, hour, minute, timeZone).getTime()
}
