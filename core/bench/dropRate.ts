/** Taps that settle the rate. */
const settledTaps = 10
/** Taps further back say how it was, not how it is. */
const mostTaps = 20
/** A pause this much longer than usual begins a new count. */
const pauseTimes = 6

export interface DropRate {
  dropsPerMin: number
  mlPerMin: number
  taps: number
  /** Ten taps or more. */
  isSettled: boolean
}

/**
 * Reads the flow off taps, one for each drop: the mean of the gaps between the last twenty, after the last long pause.
 * @param tapsMs - moments of the taps, oldest first.
 * @param dropsPerMl - of this airline; 20 is nominal, 10 to 30 in truth.
 * @returns null before the third tap.
 * @example dropRate([0, 1000, 2000], 20) // 60 drops, 3 mL a minute
 */
export function dropRate(tapsMs: readonly number[], dropsPerMl: number): DropRate | null {
  const recent = sincePause(tapsMs.slice(-mostTaps))
  const [first, last] = [recent[0], recent.at(-1)]
  if (first === undefined || last === undefined || recent.length < 3 || last <= first) return null
  const dropsPerMin = ((recent.length - 1) * 60_000) / (last - first)
  return { dropsPerMin, mlPerMin: dropsPerMin / dropsPerMl, taps: recent.length, isSettled: recent.length >= settledTaps }
}

function sincePause(tapsMs: readonly number[]): readonly number[] {
  const gaps = tapsMs.slice(1).map((tap, index) => tap - (tapsMs[index] ?? tap))
  const usual = [...gaps].sort((a, b) => a - b)[Math.floor(gaps.length / 2)] ?? 0
  const pause = gaps.findLastIndex((gap) => usual > 0 && gap > pauseTimes * usual)
  return pause < 0 ? tapsMs : tapsMs.slice(pause + 1)
}
