/**
 * Says a moment of a plan by how long after its beginning it is.
 * @param minutes - from the beginning.
 * @example stepTime(95) // '1 h 35'
 */
export function stepTime(minutes: number): string {
  if (minutes < 60) return `${minutes} min`
  if (minutes < 1440) return minutes % 60 === 0 ? `${minutes / 60} h` : `${Math.floor(minutes / 60)} h ${minutes % 60}`
  const days = Math.floor(minutes / 1440)
  return `day ${days + 1}`
}
