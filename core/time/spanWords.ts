/**
 * Writes a span of minutes as people say it.
 * @param minutes - 0 or more.
 * @example spanWords(75) // '75 min'
 * @example spanWords(5597) // '3 days 21 h'
 */
export function spanWords(minutes: number): string {
  const whole = Math.round(minutes)
  if (whole < 120) return `${whole} min`
  const hours = Math.round(whole / 60)
  if (hours < 12 && whole % 60 !== 0) return `${Math.floor(whole / 60)} h ${whole % 60} min`
  if (hours < 48) return `${hours} h`
  const [days, rest] = [Math.floor(hours / 24), hours % 24]
  return `${days} days${rest > 0 ? ` ${rest} h` : ''}`
}
