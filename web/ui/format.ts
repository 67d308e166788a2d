const minuteMs = 60_000

/** Writes moments as the room's wall clock shows them. */
export function createFormat(timeZone: string) {
  const time = new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', minute: '2-digit' })
  const hourOf = new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', hourCycle: 'h23' })
  const day = new Intl.DateTimeFormat('en-GB', { timeZone, weekday: 'short', day: 'numeric', month: 'short' })
  return {
    /** `08:05` */
    time: (atMs: number): string => time.format(atMs),
    /** Hour of the day, 0 to 23. */
    hour: (atMs: number): number => Number(hourOf.formatToParts(atMs).find(({ type }) => type === 'hour')?.value ?? 0),
    /** `Sun 4 May` */
    day: (atMs: number): string => words(day, atMs),
    /** `Sun 4 May 08:05` */
    moment: (atMs: number): string => `${words(day, atMs)} ${time.format(atMs)}`,
  }
}
export type Format = ReturnType<typeof createFormat>

// Platforms disagree about commas between the parts.
const words = (format: Intl.DateTimeFormat, atMs: number): string =>
  format
    .formatToParts(atMs)
    .filter(({ type }) => type !== 'literal')
    .map(({ value }) => value)
    .join(' ')

/** Writes a span as people say it: `48 min`, `19 h 40`, `3 days`. Spans below zero count as none. */
export function formatSpan(ms: number): string {
  const minutes = Math.max(0, Math.floor(ms / minuteMs))
  if (minutes < 60) return `${minutes} min`
  if (minutes < 48 * 60) return `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`
  return `${Math.floor(minutes / 1440)} days`
}

/** Writes a running timer to the second: `11:20`, `1:02:11`; past its end with a plus. */
export function formatTimer(leftMs: number): string {
  const seconds = Math.abs(leftMs < 0 ? Math.ceil(leftMs / 1000) : Math.floor(leftMs / 1000))
  const two = (figure: number): string => String(figure).padStart(2, '0')
  const minutes = Math.floor(seconds / 60)
  const text = minutes < 60 ? `${minutes}:${two(seconds % 60)}` : `${Math.floor(minutes / 60)}:${two(minutes % 60)}:${two(seconds % 60)}`
  return leftMs < 0 ? `+${text}` : text
}

export { plural } from '../../core/words/plural'

/** Writes a difference with its sign, a real minus included: `+2`, `−1`, `±0`. */
export const signed = (difference: number): string => (difference === 0 ? '±0' : difference > 0 ? `+${difference}` : `−${-difference}`)
