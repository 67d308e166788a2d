/** Whole days from one calendar day to a later one; clock changes do not matter. */
export const daysBetween = (fromOn: string, toOn: string): number => Math.round((Date.parse(toOn) - Date.parse(fromOn)) / 86_400_000)

/**
 * The calendar day so many days later; null beyond the year 9999, which no calendar of ours writes.
 * @example addDays('2031-02-27', 2) // '2031-03-01'
 */
export function addDays(on: string, days: number): string | null {
  const atMs = Date.parse(on) + days * 86_400_000
  return atMs <= Date.UTC(9999, 11, 31) ? new Date(atMs).toISOString().slice(0, 10) : null
}
