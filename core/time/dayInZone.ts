/**
 * Names the calendar day of a moment as the room's wall clock shows it, e.g. `'2031-05-04'`.
 * @param atMs - the moment, UTC epoch milliseconds.
 * @param timeZone - IANA name such as `Europe/Lisbon`.
 * @throws RangeError when the zone is unknown or the moment is not finite.
 * @example dayInZone(Date.UTC(2031, 4, 4, 23, 30), 'Europe/Berlin') // '2031-05-05'
 */
export function dayInZone(atMs: number, timeZone: string): string {
  const parts = formatterOf(timeZone).formatToParts(atMs)
  const part = (type: string): string => parts.find((each) => each.type === type)?.value ?? ''
  return `${part('year')}-${part('month')}-${part('day')}`
}

/** Answers whether the platform knows a time zone by this name. */
export function isTimeZone(timeZone: string): boolean {
  try {
    formatterOf(timeZone)
    return true
  } catch {
    return false
  }
}

// Making a formatter costs a hundred times more than using one.
const formatters = new Map<string, Intl.DateTimeFormat>()
function formatterOf(timeZone: string): Intl.DateTimeFormat {
  const known = formatters.get(timeZone)
  if (known) return known
  const made = new Intl.DateTimeFormat('en-US', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' })
  if (formatters.size < 100) formatters.set(timeZone, made)
  return made
}
