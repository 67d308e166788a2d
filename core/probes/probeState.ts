import type { Limits } from '../limits/houseLimits'
import { showReading } from '../room/glass.schema'
import { spanWords } from '../time/spanWords'
import { markedUnits, showChange } from '../units/units'
import { measureRules, type Probe, type ProbeMeasure, type ProbeSample } from './probe'

const [minuteMs, hourMs] = [60_000, 3_600_000]
/** So few samples prove no standstill. */
const leastStuck = 6
/** A reading by hand is held against what the probe said within so long of it. */
const besideMs = 45 * minuteMs
/** Spread of what is read by hand, in spreads of the probe. */
const handSpreads = 3

/** What a person read by hand in the same water. */
export interface HandReading {
  atMs: number
  value: number
}
export type ProbeStateName = 'fresh' | 'ok' | 'silent' | 'stuck' | 'impossible' | 'jumps' | 'drifts'
export interface ProbeState {
  state: ProbeStateName
  /** What is wrong, in a sentence; null where nothing is. */
  words: string | null
  sinceMs: number | null
  /** What it says now; null where nobody should go by it. */
  value: number | null
}

const answered = (samples: readonly ProbeSample[]): { atMs: number; value: number }[] => samples.flatMap(({ atMs, value }) => (value === null ? [] : [{ atMs, value }]))
const medianOf = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? NaN

/**
 * Says whether a probe can be believed. One that cannot is no reading: it is said to have failed, and nobody's level goes
 * by it.
 * Source: docs/probes.md; house guidance.
 * @param samples - newest first, of two days.
 * @param hand - what was read by hand in its water, newest first.
 */
export function probeState({ measure, everyMin, addedAtMs }: Pick<Probe, 'measure' | 'everyMin' | 'addedAtMs'>, samples: readonly ProbeSample[], hand: readonly HandReading[], limits: Pick<Limits, 'probeSilentTimes' | 'probeStuckHours'>, nowMs: number): ProbeState {
  const { min, max, jump, sd } = measureRules[measure]
  const said = answered(samples)
  const [last] = said
  const shown = (value: number): string => showReading(measure, value, markedUnits)
  const failed = (state: ProbeStateName, words: string, sinceMs: number): ProbeState => ({ state, words, sinceMs, value: null })
  const silentMs = limits.probeSilentTimes * everyMin * minuteMs
  const quietMs = last?.atMs ?? addedAtMs
  if (nowMs - quietMs > silentMs) return failed('silent', last ? `no answer for ${spanWords((nowMs - quietMs) / minuteMs)}: look at its cable and power` : 'never answered: look at its cable and power', quietMs)
  if (!last) return { state: 'fresh', words: null, sinceMs: null, value: null }
  if (last.value < min || last.value > max) return failed('impossible', `says ${shown(last.value)}, which no tank of ours has: out of the water, or broken`, last.atMs)
  const before = said.find(({ atMs }) => atMs < last.atMs)
  if (before && last.atMs - before.atMs <= silentMs && Math.abs(last.value - before.value) > jump) return failed('jumps', `went from ${shown(before.value)} to ${shown(last.value)} at once: read it by hand`, before.atMs)
  const leap = said.slice(0, 8).findIndex((each, index, some) => index > 0 && Math.abs(each.value - (some[index - 1]?.value ?? each.value)) > jump)
  if (leap > 0 && said.length > leap) return failed('jumps', 'leaps to and fro: read it by hand', said[leap]?.atMs ?? last.atMs)
  const lately = said.filter(({ atMs }) => nowMs - atMs <= limits.probeStuckHours * hourMs)
  const spanMs = last.atMs - (lately.at(-1)?.atMs ?? last.atMs)
  if (lately.length >= leastStuck && spanMs >= 0.75 * limits.probeStuckHours * hourMs && lately.every(({ value }) => value === last.value)) return failed('stuck', `says ${shown(last.value)} and nothing else for ${spanWords(spanMs / minuteMs)}: stuck`, lately.at(-1)?.atMs ?? last.atMs)
  const off = offBy(said, hand)
  if (off !== null && Math.abs(off.by) > handSpreads * sd + handSpreads * sd) return failed('drifts', `says ${apart(measure, Math.abs(off.by))} ${off.by > 0 ? 'more' : 'less'} than was read by hand: calibrate it`, off.atMs)
  return { state: 'ok', words: null, sinceMs: null, value: medianOf(said.slice(0, 3).map(({ value }) => value)) }
}

/** How far two figures lie apart, in words; figures stand in them marked. */
const apart = (measure: ProbeMeasure, by: number): string => (measure === 'ph' ? by.toFixed(2) : showChange(measure === 'tempC' ? 'temperature' : 'salinity', by, markedUnits))

/** How far it lay off the newest reading by hand that it answered beside; null where there is none. */
function offBy(said: readonly { atMs: number; value: number }[], hand: readonly HandReading[]): { by: number; atMs: number } | null {
  for (const { atMs, value } of hand) {
    const beside = said.filter((each) => Math.abs(each.atMs - atMs) <= besideMs).map((each) => each.value)
    if (beside.length > 0) return { by: medianOf(beside) - value, atMs }
  }
  return null
}

/** Words for what a probe is called where it failed. */
export const stateTitles: Readonly<Record<ProbeStateName, string>> = { fresh: 'no answer yet', ok: 'answers', silent: 'silent', stuck: 'stuck', impossible: 'impossible', jumps: 'leaps', drifts: 'off' }
/** Whether it has failed. */
export const isFailed = (state: ProbeStateName): boolean => state !== 'ok' && state !== 'fresh'
