import { targetOf } from '../acclimation/question'
import { nominalOf } from '../acclimation/question'
import type { Limits } from '../limits/houseLimits'
import { baseUnits, type DisplayUnits } from '../units/units'
import { estimateWater, type WaterEstimate } from './estimateWater'
import { paceAdvice, paceOf, type Pace } from './pace'
import { fishAre, hasBinder, litresBefore, stepIndexOf, stepInHand, stepStarts, type RunRecord } from './runRecord'
import { minutesFrom, type RunStep } from './runPlan'

const minuteMs = 60_000

/** Where a run stands at one moment. */
export interface RunNow {
  index: number
  /** Null once every step is done. */
  step: RunStep | null
  stepStartedAtMs: number
  /** When the step's timer ends, as the readings have it; null for what a touch ends. */
  dueAtMs: number | null
  /** When the fish go into their tank; null once they are there. */
  outAtMs: number | null
  pace: Pace | null
  advice: string | null
  litres: number
  fish: RunStep['fish']
  hasBinder: boolean
  water: WaterEstimate
  /** What its words are said in. */
  units: DisplayUnits
  /** When ammonia reaches its limit: likely, and with water that loses its carbon dioxide fastest and slowest. */
  ammoniaAt: { likelyMs: number | null; soonestMs: number | null; latestMs: number | null } | null
}

/**
 * Says where a run stands: the step in hand, its end by what was read, the water as the model has it. The clock is the
 * server's, so every device sees the same.
 */
export function followRun(run: RunRecord, limits: Limits, nowMs: number, units: DisplayUnits = baseUnits): RunNow {
  const [index, step] = [stepIndexOf(run), stepInHand(run)]
  const stepStartedAtMs = stepStarts(run).at(-1) ?? run.startedAtMs
  const pace = paceOf(run, nowMs)
  const dueAtMs = step === null || step.minutes === null ? null : (pace?.endMs ?? floatEndMs(run, stepStartedAtMs, nowMs) ?? stepStartedAtMs + step.minutes * minuteMs)
  const out = run.plan.steps.findIndex(({ countsOut }) => countsOut)
  const litresIn = (each: number): number | null => (each === index && pace ? pace.litresIn : null)
  const water = estimateWater(run, limits, nowMs, { litresIn })
  const binder = hasBinder(run)
  const isOut = index > out
  const at = (handled: 'low' | 'high'): number | null => estimateWater(run, limits, nowMs, { handled, litresIn }).ammoniaAtMs
  return {
    ...{ index, step, stepStartedAtMs, dueAtMs, pace, water, units },
    advice: pace && paceAdvice(run, pace, nowMs, units),
    outAtMs: out < 0 || isOut ? null : (dueAtMs ?? Math.max(nowMs, stepStartedAtMs)) + minutesFrom(run.plan.steps.slice(0, out), index + 1) * minuteMs,
    litres: litresBefore(run, index) + (pace && step?.water.some((deed) => deed.do === 'fill') ? pace.litresIn : 0),
    fish: fishAre(run),
    hasBinder: binder,
    ammoniaAt: binder || isOut || run.plan.kind !== 'acclimation' ? null : { likelyMs: water.ammoniaAtMs, soonestMs: at('high'), latestMs: at('low') },
  }
}

/** Bags float until they are within a degree; readings of their water say when that is. */
function floatEndMs(run: RunRecord, startMs: number, nowMs: number): number | null {
  const [index, step] = [stepIndexOf(run), stepInHand(run)]
  if (!step?.water.some((deed) => deed.do === 'wait' && deed.handling === 'sealed')) return null
  const bathC = targetOf(run.plan.question).tempC
  const readings = run.events.filter((event) => event.stepIndex === index && event.kind === 'reading' && event.tempC !== null && event.atMs <= nowMs).map((event) => ({ min: (event.atMs - startMs) / minuteMs, gap: Math.abs((event.tempC ?? 0) - bathC) }))
  if (readings.length === 0) return null
  const gap = Math.abs(nominalOf(run.plan.question).tempC - bathC)
  const last = readings.at(-1)
  if (last && last.gap <= 1) return startMs + last.min * minuteMs
  const usable = readings.filter((each) => each.min > 0.5 && each.gap < gap && each.gap > 0)
  const rate = usable.reduce((sum, each) => sum + each.min * Math.log(gap / each.gap), 0) / usable.reduce((sum, each) => sum + each.min ** 2, 0)
  return rate > 0 ? startMs + (Math.log(gap) / rate) * minuteMs : null
}
