import { dosingLimits } from '../dosing/agents'
import { lowSalinityPlan, type LowSalinityPlan } from '../dosing/lowSalinityPlan'
import { salinitySteps, stepsNeeded, type SalinityStep } from '../dosing/salinitySteps'
import { addDays, daysBetween } from '../time/daysBetween'
import { dayInZone } from '../time/dayInZone'
import type { SalinityPlan } from './regimens.schema'

export interface SalinityAsked {
  plan: SalinityPlan
  volumeL: number
  tempC: number | null
  /** Readings of its water since some days before it began, oldest first, ppt. */
  readings: readonly { atMs: number; ppt: number }[]
  /** Changes of this regimen, oldest first: the first of them took the salinity down. */
  changes: readonly { atMs: number }[]
  /** Whether its fish, by their clock, still have days to serve while it is low; null where none are held so. */
  isHeldLow: boolean | null
  timeZone: string
  nowMs: number
}
export interface SalinityNow {
  stage: 'down' | 'low' | 'up' | 'house'
  /** The newest reading, and its age; null without one. */
  nowPpt: number | null
  ageH: number | null
  /** Nothing is stepped on a figure older than a day. */
  isReadFirst: boolean
  /** A step was made today: the next is tomorrow's. */
  isStepped: boolean
  problems: string[]
  /** Steps from here on, dated, the next one first. */
  down: SalinityStep[]
  up: SalinityStep[]
  /** First day on which it was low, and the day on which the way up begins. */
  lowFrom: string | null
  upFrom: string | null
  watchFrom: string | null
  driftPpt: number | null
}
const hourMs = 3_600_000
/** As near as a refractometer reads, ppt; house guidance. */
export const nearPpt = 0.5

/** The salinity that a tank is taken to be kept at in the middle of the trade, °C, where nobody says. */
const usualC = 25

/**
 * How a low salinity stands: it goes on from what was read, however the plan was kept. Down within a day or two, low for its
 * days, and slowly up again.
 * Source: docs/regimens.md#low-salinity.
 */
export function salinityNow({ plan, volumeL, tempC, readings, changes, isHeldLow, timeZone, nowMs }: SalinityAsked): SalinityNow {
  const { lowPpt, housePpt, startOn, holdDays, fallPerDay, upPerDay, downPpt, upPpt, evapLPerDay } = plan
  const dayOf = (atMs: number): string => dayInZone(atMs, timeZone)
  const today = dayOf(nowMs)
  const known = readings.filter(({ atMs }) => atMs <= nowMs)
  const last = known.at(-1)
  const begunMs = changes[0]?.atMs ?? null
  const lowAtMs = begunMs === null ? null : (known.find(({ atMs, ppt }) => atMs >= begunMs && ppt <= lowPpt + nearPpt)?.atMs ?? null)
  const lowFrom = lowAtMs === null ? null : dayOf(lowAtMs)
  const upFrom = lowFrom === null ? null : addDays(lowFrom, holdDays)
  const isUp = upFrom !== null && today >= upFrom && isHeldLow !== true
  const nowPpt = last?.ppt ?? null
  const stage = lowFrom === null ? 'down' : !isUp ? 'low' : nowPpt !== null && nowPpt >= housePpt - nearPpt ? 'house' : 'up'
  const ageH = last ? (nowMs - last.atMs) / hourMs : null
  const isStepped = changes.some(({ atMs }) => dayOf(atMs) === today)
  const nextOn = isStepped ? (addDays(today, 1) ?? today) : today > startOn ? today : startOn
  const whole: LowSalinityPlan = lowSalinityPlan({ V: volumeL, S0: stage === 'down' ? (nowPpt ?? housePpt) : housePpt, low: lowPpt, house: housePpt, startOn: nextOn, holdDays, fallPerDay, upPerDay, Sd: downPpt, Sn: upPpt, T: tempC ?? usualC, evapLPerDay })
  const rising = (from: number, firstOn: string): SalinityStep[] => salinitySteps(from, housePpt, stepsNeeded(from, housePpt, upPerDay), firstOn, { volumeL, upPpt, downPpt, tempC: tempC ?? usualC })
  const laterUp = upFrom === null || upFrom < nextOn ? nextOn : upFrom
  const up = stage === 'house' || whole.problems.length > 0 ? [] : stage === 'down' ? whole.up : rising(stage === 'up' ? (nowPpt ?? lowPpt) : lowPpt, laterUp)
  return {
    ...{ stage, nowPpt, ageH, isStepped, problems: whole.problems },
    isReadFirst: stage !== 'house' && (ageH === null || ageH > dosingLimits.doseReadingH),
    down: stage === 'down' ? whole.down : [],
    up,
    lowFrom: lowFrom ?? whole.lowFrom,
    upFrom: stage === 'down' ? whole.upFrom : laterUp,
    watchFrom: stage === 'house' ? today : (up.at(-1)?.on ?? null),
    driftPpt: whole.driftPpt ?? (lowPpt * evapLPerDay) / volumeL,
  }
}

/** Days that it has been low for, the first counted; 0 while it is not. */
export const daysLow = ({ stage, lowFrom }: Pick<SalinityNow, 'stage' | 'lowFrom'>, today: string): number => (stage === 'low' && lowFrom !== null ? daysBetween(lowFrom, today) + 1 : 0)
