import { stepWeight, tailOf, usualRatio } from './alarmThreshold'
import { outcomeRules, type OutcomeRules } from './outcomeRules'

/** A day of a water, or a crate of a supplier or species. */
export interface AlarmStep {
  on: string
  dead: number
  expected: number
}

export interface AlarmAsked {
  name: string
  steps: readonly AlarmStep[]
  /** Days on which a lead acknowledged it; each works after all steps of its day. */
  acknowledged?: readonly string[]
  dispersion: number
  threshold: number
  suddenTail: number
  ratio?: number
  limits?: Partial<OutcomeRules>
}

export interface LossAlarm {
  state: 'sudden' | 'rising' | 'watch' | 'quiet'
  score: number
  raisedOn: string | null
  /** First step that counts; null while the score is 0 and nothing rings. */
  since: string | null
  dead: number
  expected: number
  /** Chance of as many as in the last step, in usual times. */
  tail: number
  sentence: string
}

/** Answers whether an alarm rings: it stands until a lead answers for it. */
export const isRinging = ({ state }: Pick<LossAlarm, 'state'>): boolean => state === 'sudden' || state === 'rising'

interface Ringing {
  kind: 'sudden' | 'rising'
  on: string
  words: string
}

interface Running {
  score: number
  since: string | null
  dead: number
  expected: number
  ringing: Ringing | null
}
const atRest: Running = { score: 0, since: null, dead: 0, expected: 0, ringing: null }

/**
 * How the losses of a water, a supplier or a species stand: a cumulative sum over their steps that bears a lost bag (Page
 * 1954), and single steps that are sudden. Whichever rings first stays until a lead acknowledges it. Source: docs/outcomes.md.
 */
export function lossAlarmState({ name, steps, acknowledged = [], dispersion, threshold, suddenTail, ratio = usualRatio, limits }: AlarmAsked): LossAlarm {
  const { watchShare, suddenLeast } = outcomeRules(limits)
  const inOrder = [...steps].sort((one, other) => (one.on < other.on ? -1 : one.on > other.on ? 1 : 0))
  const acks = [...acknowledged].sort()
  let [now, tail] = [atRest, 1]
  for (const step of inOrder) {
    now = acknowledgedBefore(now, acks, step.on, threshold)
    tail = tailOf(step.dead, step.expected, dispersion)
    const score = Math.max(0, now.score + stepWeight(step.dead, { expected: step.expected, dispersion, ratio }))
    const isSudden = step.dead >= suddenLeast && tail <= suddenTail
    const isRinging = now.ringing !== null || isSudden || score >= threshold
    if (score === 0 && !isRinging) now = atRest
    else {
      const counted = { ...now, score, since: now.since ?? step.on, dead: now.dead + step.dead, expected: now.expected + step.expected }
      now = { ...counted, ringing: now.ringing ?? (isSudden ? suddenOn(name, step) : score >= threshold ? risingOn(name, counted, step.on) : null) }
    }
  }
  now = acknowledgedBefore(now, acks, '9999-12-31', threshold)
  const state = now.ringing?.kind ?? (now.score >= watchShare * threshold ? 'watch' : 'quiet')
  const { score, since, dead, expected, ringing } = now
  const watching = state === 'watch' && since !== null ? `${name}: ${fish(dead)} lost since ${since}, about ${about(expected)} expected; watch.` : `${name}: nothing unusual.`
  return { state, score, raisedOn: ringing?.on ?? null, since, dead, expected, tail, sentence: ringing?.words ?? watching }
}

/** What rang before a day and was acknowledged before it begins again at half the threshold; counts start anew. */
function acknowledgedBefore(now: Running, acks: string[], on: string, threshold: number): Running {
  let isAcknowledged = false
  while (acks[0] !== undefined && acks[0] < on) {
    const day = acks.shift() as string
    if (now.ringing && now.ringing.on <= day) isAcknowledged = true
  }
  return isAcknowledged ? { ...atRest, score: threshold / 2 } : now
}

/** Fish are whole here but where deaths were attributed. */
const fish = (dead: number): string => String(Math.round(dead * 10) / 10)
const about = (expected: number): string => (expected < 9.95 ? expected.toFixed(1) : String(Math.round(expected)))

const suddenOn = (name: string, { on, dead, expected }: AlarmStep): Ringing => ({ kind: 'sudden', on, words: `${name}: ${fish(dead)} lost on ${on}, about ${about(expected)} expected.` })
function risingOn(name: string, { since, dead, expected }: Running, on: string): Ringing {
  const when = since === null || since === on ? `on ${on}` : `from ${since} to ${on}`
  return { kind: 'rising', on, words: `${name}: ${fish(dead)} lost ${when}, about ${about(expected)} expected.` }
}
