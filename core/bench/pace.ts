import { showChange, type DisplayUnits } from '../units/units'
import { refitRun, type Reading } from '../acclimation/refit'
import { targetOf } from '../acclimation/question'
import { flowWords } from './flowWords'
import { salinityAtStart } from './estimateWater'
import { litresBefore, stepIndexOf, stepInHand, stepStarts, type RunEvent, type RunRecord } from './runRecord'
import type { RunStep, WaterDeed } from './runPlan'

const minuteMs = 60_000
/** Waters nearer than this tell nothing about the flow. */
const leastGapPpt = 1
/** A salinity is read to about so much; until the plan would have moved it that far, a reading tells nothing of the flow. */
const readToPpt = 0.5
/** A reading this near to the begin of a flow says where it began. */
const beginsWithinMin = 1

type FlowDeed = Extract<WaterDeed, { do: 'fill' | 'overflow' }>
export const flowOf = (step: RunStep | null): FlowDeed | null => step?.water.find((deed): deed is FlowDeed => deed.do === 'fill' || deed.do === 'overflow') ?? null

/** How fast tank water runs in, how that is known, and what it means for the end of the step. */
export interface Pace {
  mlPerMin: number
  /** Flow that the plan asks for from the start. */
  plannedMlPerMin: number
  by: 'plan' | 'drop counter' | 'readings'
  /** Litres that ran in during this step so far. */
  litresIn: number
  /** When the step has what it needs at this pace; Infinity when nothing flows. */
  endMs: number
  /** Ends of the 95 % range; null without two readings. */
  soonestMs: number | null
  latestMs: number | null
}

/** A stretch of a step within which nobody changed the flow. */
interface Stretch {
  startMs: number
  litres: number
  fromPpt: number
  setMlPerMin: number
  by: Pace['by']
}

/**
 * Reads the true pace of the step in hand off what was read since the flow was last set: salinity while the waters differ,
 * else what the drop counter said.
 * @returns null where nothing flows in this step.
 */
export function paceOf(run: RunRecord, nowMs: number): Pace | null {
  const [index, step] = [stepIndexOf(run), stepInHand(run)]
  const deed = flowOf(step)
  if (!deed || step?.minutes === null || step === null) return null
  const startMs = stepStarts(run).at(-1) ?? run.startedAtMs
  const events = run.events.filter(({ stepIndex, atMs }) => stepIndex === index && atMs <= nowMs)
  const toPpt = targetOf(run.plan.question).salinityPpt
  const plannedMlPerMin = (1000 * deed.litres) / step.minutes
  let stretch: Stretch = { startMs, litres: 0, fromPpt: measuredAt(events, startMs) ?? salinityAtStart(run, index), setMlPerMin: plannedMlPerMin, by: 'plan' }
  const litresAtStart = litresBefore(run, index)
  const mlOf = (each: Stretch, untilMs: number): { mlPerMin: number; by: Pace['by']; low: number | null; high: number | null } => {
    const volumeL = litresAtStart + (deed.do === 'fill' ? each.litres : 0)
    const fit = fitOf(deed.do, readingsOf(events, each.startMs, untilMs), each.fromPpt, toPpt, each.setMlPerMin / 1000 / volumeL)
    if (!fit) return { mlPerMin: each.setMlPerMin, by: each.by, low: null, high: null }
    const ml = (k: number): number => 1000 * Math.max(0, k) * volumeL
    const hasBand = fit.readings > 1
    return { mlPerMin: ml(fit.k), by: 'readings', low: hasBand ? ml(fit.k - 1.96 * fit.error) : null, high: hasBand ? ml(fit.k + 1.96 * fit.error) : null }
  }
  for (const change of events.filter(({ kind, mlPerMin }) => kind === 'flow' && mlPerMin !== null)) {
    const { mlPerMin } = mlOf(stretch, change.atMs)
    const more = (mlPerMin * Math.max(0, change.atMs - stretch.startMs)) / minuteMs / 1000
    const volumeL = litresAtStart + (deed.do === 'fill' ? stretch.litres : 0)
    const share = deed.do === 'fill' ? volumeL / (volumeL + more) : Math.exp(-more / volumeL)
    stretch = { startMs: change.atMs, litres: stretch.litres + more, fromPpt: measuredAt(events, change.atMs) ?? toPpt + (stretch.fromPpt - toPpt) * share, setMlPerMin: change.mlPerMin ?? 0, by: 'drop counter' }
  }
  const { mlPerMin, by, low, high } = mlOf(stretch, nowMs)
  const leftL = Math.max(0, deed.litres - stretch.litres)
  const endAt = (ml: number): number => (ml > 0 ? stretch.startMs + ((1000 * leftL) / ml) * minuteMs : leftL > 0 ? Infinity : stretch.startMs)
  return { mlPerMin, plannedMlPerMin, by, litresIn: Math.min(deed.litres, stretch.litres + (mlPerMin * Math.max(0, nowMs - stretch.startMs)) / minuteMs / 1000), endMs: endAt(mlPerMin), soonestMs: high === null ? null : endAt(high), latestMs: low === null ? null : endAt(low) }
}

const hasSalinity = (event: RunEvent): event is RunEvent & { salinityPpt: number } => event.kind === 'reading' && event.salinityPpt !== null
const measuredAt = (events: readonly RunEvent[], atMs: number): number | null => events.filter(hasSalinity).find((event) => Math.abs(event.atMs - atMs) <= beginsWithinMin * minuteMs)?.salinityPpt ?? null
const readingsOf = (events: readonly RunEvent[], fromMs: number, untilMs: number): Reading[] =>
  events
    .filter(hasSalinity)
    .filter(({ atMs }) => atMs > fromMs + beginsWithinMin * minuteMs && atMs <= untilMs)
    .map(({ atMs, salinityPpt }): Reading => [(atMs - fromMs) / minuteMs, salinityPpt])

function fitOf(kind: 'fill' | 'overflow', readings: readonly Reading[], fromPpt: number, toPpt: number, plannedK: number): { k: number; error: number; readings: number } | null {
  const [gap, lastMin] = [Math.abs(fromPpt - toPpt), readings.at(-1)?.[0] ?? 0]
  const plannedChange = gap * (kind === 'overflow' ? 1 - Math.exp(-plannedK * lastMin) : 1 - 1 / (1 + plannedK * lastMin))
  if (gap < leastGapPpt || plannedChange < readToPpt) return null
  const fit = refitRun(kind, readings, fromPpt, toPpt)
  return fit && { k: fit.k, error: fit.standardError, readings: readings.length }
}

/** How far off a flow may be before anything is said, as a share. */
const quietShare = 0.1

/**
 * Says what to do about the flow; null while it goes as planned.
 * @param dropsPerMl - of the airline.
 */
export function paceAdvice(run: RunRecord, pace: Pace, nowMs: number, units: DisplayUnits): string | null {
  const step = stepInHand(run)
  const deed = flowOf(step)
  if (!step || !deed || step.minutes === null || pace.by === 'plan') return null
  const startMs = stepStarts(run).at(-1) ?? run.startedAtMs
  const leftMin = (startMs + step.minutes * minuteMs - nowMs) / minuteMs
  const leftMl = 1000 * Math.max(0, deed.litres - pace.litresIn)
  if (leftMl <= 0) return null
  if (!(pace.mlPerMin > 0)) return 'Nothing flows: look at the valve and for a kink or an air lock in the line.'
  const needed = leftMin > 1 ? leftMl / leftMin : null
  const share = pace.mlPerMin / (needed ?? pace.plannedMlPerMin)
  if (needed === null) return `Slower than planned: ${showChange('volume', leftMl / 1000, units)} are still to come, ${Math.ceil(leftMl / pace.mlPerMin)} min at this flow.`
  if (Math.abs(share - 1) <= quietShare) return null
  const to = flowWords(needed, run.plan.dropsPerMl)
  return share < 1 ? `Slower than planned: open to ${to}.` : `Faster than planned: close to ${to}.`
}
