const [hourMs, dayMs] = [3_600_000, 86_400_000]
/** Who recorded nothing for so long was away. */
const awayMs = 4 * hourMs
/** Nobody reads further back than this; whoever never recorded anything, only a day. */
const [mostMs, usualMs] = [14 * dayMs, dayMs]

/**
 * Says when somebody was here last before they came now: the end of what they recorded before the last pause of four
 * hours. At most two weeks back.
 * @param times - moments at which they recorded something, newest first.
 * @example lastHere([nine, nineYesterday], nine) // nineYesterday
 */
export function lastHere(times: readonly number[], nowMs: number): number {
  let later = nowMs
  for (const atMs of times) {
    if (later - atMs >= awayMs) return Math.max(atMs, nowMs - mostMs)
    later = atMs
  }
  return times.length === 0 ? nowMs - usualMs : Math.max(nowMs - mostMs, later - usualMs)
}
