/** Faster than this nobody counts drops: a measured cup tells more. */
const mostDropsPerMin = 240
const cupMl = 100

/**
 * Says a flow as it is set by hand: in drops while they can be counted, else by the time a cup takes.
 * @param mlPerMin - above 0.
 * @example flowWords(3, 20) // 'about 60 drops a minute'
 * @example flowWords(75, 20) // '75 mL a minute: a cup of 100 mL in 80 s'
 */
export function flowWords(mlPerMin: number, dropsPerMl: number): string {
  const drops = mlPerMin * dropsPerMl
  if (!(mlPerMin > 0)) return 'no flow'
  if (drops <= mostDropsPerMin) return `about ${Math.round(drops)} drops a minute`
  const seconds = (60 * cupMl) / mlPerMin
  return `${mlPerMin < 100 ? Math.round(mlPerMin) : 10 * Math.round(mlPerMin / 10)} mL a minute: a cup of ${cupMl} mL in ${seconds < 100 ? `${Math.round(seconds)} s` : `${(seconds / 60).toFixed(1)} min`}`
}
