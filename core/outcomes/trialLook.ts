import erfcinv from '@stdlib/math-base-special-erfcinv'
import { z95 } from '../stats/wilson'
import { atMost, inAHundred } from './certaintyWords'
import { outcomeRules, type OutcomeRules } from './outcomeRules'

/** Levels of p at each look, so that all looks together are wrong in one trial of twenty (O'Brien & Fleming 1979), by looks planned. */
const lookLevels: Readonly<Record<number, readonly number[]>> = { 1: [0.05], 2: [0.0052, 0.048], 3: [0.0005, 0.0141, 0.0451], 4: [0.00005, 0.0042, 0.0194, 0.043] }
/** What looking more than once costs in fish (Jennison & Turnbull 2000). */
const lookCosts: Readonly<Record<number, number>> = { 1: 1, 2: 1.008, 3: 1.017, 4: 1.024 }
/** Most looks that have levels. */
export const mostLooks = 4

export interface SamplesNeeded {
  designEffect: number
  /** Fish a side if they were independent; null when both lose as many. */
  fishAlone: number | null
  cratesPerSchool: number | null
  weeks: number | null
}

/**
 * Crates of each school that a trial needs to show a difference of losses. Source: docs/outcomes.md.
 * @param lossA - share lost, 0 to 1.
 * @param sizeVariation - spread of crate sizes, in times of their mean.
 * @param power - chance to see the difference if it is there.
 */
export function samplesNeeded({ lossA, lossB, fishPerCrate, sizeVariation = 0, icc, power = 0.8, looks = 1, cratesPerWeek }: { lossA: number; lossB: number; fishPerCrate: number; sizeVariation?: number; icc?: number; power?: number; looks?: number; cratesPerWeek?: number }): SamplesNeeded {
  const designEffect = 1 + Math.max(0, fishPerCrate * (1 + sizeVariation ** 2) - 1) * (icc ?? outcomeRules().icc)
  if (lossA === lossB) return { designEffect, fishAlone: null, cratesPerSchool: null, weeks: null }
  const zPower = -Math.SQRT2 * erfcinv(2 * power)
  const fish = ((z95 + zPower) ** 2 * (lossA * (1 - lossA) + lossB * (1 - lossB))) / (lossA - lossB) ** 2
  const cratesPerSchool = Math.ceil((fish * designEffect * (lookCosts[looks] ?? 1)) / fishPerCrate) + 1
  return { designEffect, fishAlone: Math.ceil(fish), cratesPerSchool, weeks: cratesPerWeek ? Math.ceil((2 * cratesPerSchool) / cratesPerWeek) : null }
}

export interface TrialAsked {
  schools: readonly [string, string]
  cratesPerSchool: number
  looks: number
  /** Crates are followed to this day. */
  day: number
  /** Crates of each school followed so far. */
  done: readonly [number, number]
  looksTaken: number
  p: number | null
  /** Share alive of the first school less that of the second. */
  difference: number | null
  low: number | null
  high: number | null
  /** The crate that lost most within three days. */
  worst?: { crate: string; lostShare: number } | null
  limits?: Partial<OutcomeRules>
}

export interface TrialLook {
  look: number | null
  level: number | null
  decision: 'go on' | 'stop' | 'pause'
  finding: null | 'difference' | 'about the same' | 'open'
  better: string | null
  sentence: string
}

/** How many looks are due by the crates of the smaller school that were followed; before its time nothing is looked at. */
export const looksDue = ({ done, looks, cratesPerSchool }: Pick<TrialAsked, 'done' | 'looks' | 'cratesPerSchool'>): number => Math.min(looks, Math.floor((Math.min(...done) * looks) / cratesPerSchool))

/** Decides whether a trial goes on. Welfare comes first: a crate with heavy losses pauses it, and a lead decides. */
export function trialLook(asked: TrialAsked): TrialLook {
  const { schools, cratesPerSchool, looks, day, done, looksTaken, p, worst = null, limits } = asked
  const rules = outcomeRules(limits)
  const waiting = { look: null, level: null, finding: null, better: null }
  if (worst && worst.lostShare >= rules.pauseShare) return { ...waiting, decision: 'pause', sentence: `Paused: crate ${worst.crate} lost ${inAHundred(worst.lostShare)} in a hundred within three days. A lead decides.` }
  const look = looksDue(asked)
  if (look <= looksTaken) return { ...waiting, decision: 'go on', sentence: `Go on: ${done[0]} and ${done[1]} of ${cratesPerSchool} crates followed to day ${day}; nothing is looked at before its time.` }
  const level = lookLevels[looks]?.[look - 1] ?? 0
  const [difference, low, high] = [asked.difference ?? 0, asked.low ?? -1, asked.high ?? 1]
  const answer = (rest: Omit<TrialLook, 'look' | 'level' | 'sentence'>, words: string): TrialLook => ({ look, level, ...rest, sentence: `Look ${look} of ${looks}: ${words}` })
  if (p !== null && p <= level) {
    const better = difference > 0 ? schools[0] : schools[1]
    return answer({ decision: 'stop', finding: 'difference', better }, `stop. ${better} keeps ${inAHundred(difference)} in a hundred more alive to day ${day}.`)
  }
  if (low >= -rules.marginShare && high <= rules.marginShare) return answer({ decision: 'stop', finding: 'about the same', better: null }, `stop. About the same: they differ by at most ${atMost(low, high)} in a hundred to day ${day}.`)
  if (look >= looks) return answer({ decision: 'stop', finding: 'open', better: null }, 'the trial is full and leaves it open.')
  return answer({ decision: 'go on', finding: null, better: null }, 'go on.')
}
