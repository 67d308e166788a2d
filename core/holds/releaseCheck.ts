import { addDays, daysBetween } from '../time/daysBetween'
import { dosingLimits } from '../dosing/agents'
import { salinitySteps, stepsNeeded, type SalinityStep } from '../dosing/salinitySteps'
import type { HoldStatus } from './holdClock'

export interface ReleaseAsked {
  today: string
  clock: { status: HoldStatus; earliest: string | null; waitsFor: readonly string[] }
  /** Litres of the water. */
  volumeL?: number
  salinity: { now: number; house: number } | null
  /** Salinity of the new water, for going up; of the water added, for going down. */
  upPpt?: number
  downPpt?: number
  tempC?: number
  upPerDay?: number
  fallPerDay?: number
  tolerancePpt?: number
}
export interface Release {
  answer: 'no hold' | 'release' | 'wait'
  on: string | null
  missing: string[]
  raise: SalinityStep[]
  shortfall: { days: number; gates: string[] }
}

const latest = (days: readonly (string | null)[]): string | null => days.reduce((most, each) => (each !== null && (most === null || each > most) ? each : most), null)

/**
 * Says whether held fish may go to the rest of the house: their hold ready, and their water at the house's salinity.
 * Source: docs/holds.md#release.
 * @returns with `raise` the daily steps of salinity, as late as possible, so that fish stand a day at the house's.
 */
export function releaseCheck(asked: ReleaseAsked): Release {
  const { today, clock, salinity, volumeL = 0, upPpt = 0, downPpt = 0, tempC = 25, upPerDay = dosingLimits.salinityPerDay, fallPerDay = dosingLimits.salinityFallPerDay, tolerancePpt = dosingLimits.matchPpt } = asked
  if (clock.status !== 'holding' && clock.status !== 'ready') return { answer: 'no hold', on: null, missing: [], raise: [], shortfall: { days: 0, gates: [] } }
  const gap = salinity ? salinity.house - salinity.now : 0
  const isOff = Math.abs(gap) > tolerancePpt
  const count = isOff && salinity ? stepsNeeded(salinity.now, salinity.house, gap > 0 ? upPerDay : fallPerDay) : 0
  const on = latest([clock.earliest, addDays(today, count), today])
  const missing = [...clock.waitsFor, ...(isOff ? ['salinity'] : [])].sort()
  const raise = on === null || !salinity ? [] : salinitySteps(salinity.now, salinity.house, count, addDays(on, -count) ?? on, { volumeL, upPpt, downPpt, tempC })
  return {
    answer: clock.status === 'ready' && !isOff ? 'release' : 'wait',
    on,
    missing,
    raise,
    shortfall: { days: Math.max(0, clock.earliest === null ? 0 : daysBetween(today, clock.earliest)), gates: missing.filter((name) => name !== 'days') },
  }
}
