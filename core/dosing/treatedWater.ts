import { dosingLimits } from './agents'
import { levelEstimate, type LevelEstimate, type LevelEvent } from './levelEstimate'
import { lossFromReadings } from './treatmentLevel'

/** What one agent went through in one water; moments in ms, levels in mg/L. */
export interface TreatedWater {
  /** Net litres of the water; above 0. */
  volumeL: number
  doses: readonly { atMs: number; mg: number; isCut?: boolean }[]
  /** Litres swapped, and how much of the agent was in the new water. */
  changes: readonly { atMs: number; litres: number; cnMgL?: number }[]
  readings: readonly WaterReading[]
  /** When somebody found it there without having dosed it: how much, nobody knows. */
  foundAtMs?: number | null
}
export interface WaterReading {
  atMs: number
  mgL: number
  /** The kit showed nothing: less than this. */
  isBelow?: boolean
  /** What it was read with; null where nobody said. */
  kit: string | null
}
/** What is measured by, and how exactly doses go in. */
export interface Measuring {
  /** Its kit; readings with another say nothing of it. */
  kit: string | null
  /** Top of the range it is kept in, mg/L: what drifts is judged by it. */
  aboutMgL: number
  /** Spread of a dose as a share of it. */
  doseRel?: number
}
export interface LevelPoint {
  atMs: number
  c: number
  lo: number
  hi: number
}
const hourMs = 3_600_000
/** A level gains this share of its range as spread in a day by what nobody recorded; house guidance. */
const driftShareADay = 0.05
/** Losses are taken from readings so many hours apart at least, and not faster than this; house guidance. */
const [leastLossH, mostLossPerH] = [48, 0.05]
/** An unknown amount may be as much as twice the range. */
const unknownShare = 2

const hours = (atMs: number): number => atMs / hourMs
const changeShare = (litres: number, volumeL: number): number => Math.min(1, litres / volumeL)

/** Loss by adsorption and breakdown, 1/h, from readings since the last dose or change; 0 where they say nothing. */
function lossOf({ doses, changes }: TreatedWater, readings: readonly WaterReading[]): number {
  const sinceMs = Math.max(0, ...[...doses, ...changes].map(({ atMs }) => atMs))
  const still = readings.filter(({ atMs, isBelow = false, mgL }) => atMs > sinceMs && !isBelow && mgL > 0)
  const [first, last] = [still[0], still.at(-1)]
  if (!first || !last || still.length < 3 || last.atMs - first.atMs < leastLossH * hourMs) return 0
  const perH = lossFromReadings(still.map(({ atMs, mgL }) => [hours(atMs), mgL]))
  return Number.isFinite(perH) ? Math.min(mostLossPerH, Math.max(0, perH)) : 0
}

/** A water as the filter takes it: its events by the hour, and readings of the right kit only. */
function modelOf(water: TreatedWater, { kit, aboutMgL, doseRel }: Measuring): { par: Parameters<typeof levelEstimate>[0]['par']; events: LevelEvent[] } {
  const { volumeL, doses, changes, foundAtMs = null } = water
  const readings = [...water.readings].filter((reading) => kit !== null && reading.kit === kit).sort((a, b) => a.atMs - b.atMs)
  const events: LevelEvent[] = [
    ...(foundAtMs === null ? [] : [{ t: hours(foundAtMs) }]),
    ...doses.map(({ atMs, mg }) => ({ t: hours(atMs), dose: mg })),
    ...changes.map(({ atMs, litres, cnMgL = 0 }) => ({ t: hours(atMs), change: { f: changeShare(litres, volumeL), cn: cnMgL } })),
    ...readings.map(({ atMs, mgL, isBelow = false }) => ({ t: hours(atMs), ...(isBelow ? { below: mgL } : { reading: mgL }) })),
  ]
  const isUnknown = foundAtMs !== null && foundAtMs <= Math.min(...doses.map(({ atMs }) => atMs), Infinity)
  return { par: { V: volumeL, lambda: lossOf(water, readings), c0: 0, sd0: isUnknown ? unknownShare * aboutMgL : 0, q: (driftShareADay * aboutMgL) ** 2 / 24, ...(doseRel === undefined ? {} : { doseRel }) }, events }
}

/** Answers whether the agent never went into this water, as far as anybody wrote down. */
export const isNeverDosed = ({ doses, foundAtMs = null }: Pick<TreatedWater, 'doses' | 'foundAtMs'>, nowMs: number): boolean => !doses.some(({ atMs }) => atMs <= nowMs) && (foundAtMs === null || foundAtMs > nowMs)

/** The newest reading of it by whatever kit, of one moment the last that was written down; null if there is none. */
export const newestReading = ({ readings }: Pick<TreatedWater, 'readings'>, nowMs: number): WaterReading | null => [...readings].filter(({ atMs }) => atMs <= nowMs).sort((a, b) => a.atMs - b.atMs).at(-1) ?? null

/**
 * The level of an agent in a water at a moment: between its readings by the litres, doses and changes that were recorded.
 * Source: docs/regimens.md#levels.
 */
export function levelOfWater(water: TreatedWater, measuring: Measuring, nowMs: number): LevelEstimate {
  const { par, events } = modelOf(water, measuring)
  return levelEstimate({ par, events, now: hours(nowMs) })
}

/**
 * The level and its band from one moment to another, for a chart: at every event just before it and at it, and in between.
 * @param mostPoints - about so many points at most.
 */
export function levelPath(water: TreatedWater, measuring: Measuring, { fromMs, toMs }: { fromMs: number; toMs: number }, mostPoints = 120): LevelPoint[] {
  const { par, events } = modelOf(water, measuring)
  const moments = events.map(({ t }) => Math.round(t * hourMs)).filter((atMs) => atMs >= fromMs && atMs <= toMs)
  const stepMs = Math.max(hourMs, (toMs - fromMs) / mostPoints)
  const between = Array.from({ length: Math.floor((toMs - fromMs) / stepMs) + 1 }, (_, index) => fromMs + index * stepMs)
  const shown = [...new Set([...between, ...moments.flatMap((atMs) => [Math.max(fromMs, atMs - 1), atMs]), toMs])].sort((a, b) => a - b)
  return shown.map((atMs) => {
    const { c, lo, hi } = levelEstimate({ par, events, now: hours(atMs) })
    return { atMs, c, lo, hi }
  })
}

/** Hours after a dose at which it is read once more; house guidance ("a few hours after"). */
export const readAfterDoseH = 4
/** When a water under treatment is to be read next: a day after its last reading, and some hours after a dose. Null where no kit reads it or nothing was dosed. */
export function readingDueMs(water: TreatedWater, { kit }: Pick<Measuring, 'kit'>, nowMs: number): number | null {
  if (kit === null || isNeverDosed(water, nowMs)) return null
  const lastMs = newestReading({ readings: water.readings.filter((reading) => reading.kit === kit) }, nowMs)?.atMs ?? null
  const dosedMs = Math.max(...water.doses.filter(({ atMs }) => atMs <= nowMs).map(({ atMs }) => atMs))
  const foundMs = water.foundAtMs ?? null
  const ofAll = [...(lastMs === null ? [] : [lastMs + dosingLimits.doseReadingH * hourMs]), ...(lastMs === null || lastMs < dosedMs ? [dosedMs + readAfterDoseH * hourMs] : []), ...(lastMs === null && foundMs !== null ? [foundMs] : [])]
  return Math.min(...ofAll.filter(Number.isFinite))
}
