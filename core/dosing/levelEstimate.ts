import { dosingLimits } from './agents'

/** One moment of a treatment; within it the dose comes first, then the change, then the reading. */
export interface LevelEvent {
  /** Hours. */
  t: number
  /** Milligrams. */
  dose?: number
  /** Share of water changed, and what was in the new. */
  change?: { f: number; cn?: number }
  reading?: number
  /** Under the limit of the kit. */
  below?: number
  /** Spread of the reading, where it is known. */
  sd?: number
}
export interface LevelAsked {
  par: { V: number; lambda: number; c0: number; sd0: number; doseRel?: number; q?: number }
  kit?: { abs?: number; rel?: number }
  events: readonly LevelEvent[]
  now: number
}
export interface LevelEstimate {
  c: number
  sd: number
  lo: number
  hi: number
  /** Hours since it was read; null if never. */
  ageH: number | null
  basis: 'reckoned' | 'measured' | 'stale'
  /** The last reading could not be: litres, carbon, or the other kit. No dose before one that can. */
  isJump: boolean
}
const { kitAbs, kitRel, jumpSd, bandZ, doseReadingH, doseRel: usualRel } = dosingLimits

/** A reading with its spread; one below the kit's limit is not zero. */
function readOf({ reading, below, sd }: LevelEvent, kit: LevelAsked['kit']): { y: number; sd: number } | null {
  if (reading !== undefined) return { y: reading, sd: sd ?? Math.max(kit?.abs ?? kitAbs, (kit?.rel ?? kitRel) * reading) }
  return below === undefined ? null : { y: below / 2, sd: sd ?? below / Math.sqrt(12) }
}

/**
 * Follows the level of what was dosed through doses, changes and readings up to now (scalar Kalman filter). A reading that
 * lies further off than the model allows is taken as read, and marked.
 * Source: docs/science.md#treatment; docs/regimens.md#levels.
 * @param asked - events in any order; those later than now are ignored.
 */
export function levelEstimate({ par: { V, lambda, c0, sd0, doseRel = usualRel, q = 0 }, kit, events, now }: LevelAsked): LevelEstimate {
  const known = events.filter(({ t }) => t <= now).sort((a, b) => a.t - b.t)
  let [c, v, at, lastRead, isJump] = [c0, sd0 ** 2, known[0]?.t ?? now, null as number | null, false]
  const runTo = (t: number): void => {
    const hours = t - at
    ;[c, v, at] = [c * Math.exp(-lambda * hours), v * Math.exp(-2 * lambda * hours) + q * hours, t]
  }
  for (const event of known) {
    runTo(event.t)
    const { dose, change } = event
    if (dose !== undefined) [c, v] = [c + dose / V, v + ((doseRel * dose) / V) ** 2]
    if (change) [c, v] = [c * (1 - change.f) + change.f * (change.cn ?? 0), v * (1 - change.f) ** 2]
    const read = readOf(event, kit)
    if (!read) continue
    const noise = read.sd ** 2
    isJump = Math.abs(read.y - c) > jumpSd * Math.sqrt(v + noise)
    const gain = v + noise > 0 ? v / (v + noise) : 0
    ;[c, v, lastRead] = isJump ? [read.y, noise, event.t] : [c + gain * (read.y - c), v * (1 - gain), event.t]
  }
  runTo(now)
  const [sd, ageH] = [Math.sqrt(v), lastRead === null ? null : now - lastRead]
  return { c, sd, lo: Math.max(0, c - bandZ * sd), hi: c + bandZ * sd, ageH, basis: ageH === null ? 'reckoned' : ageH <= doseReadingH ? 'measured' : 'stale', isJump }
}
