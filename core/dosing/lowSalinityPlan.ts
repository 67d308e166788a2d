import { addDays } from '../time/daysBetween'
import { dosingLimits } from './agents'
import { salinitySteps, stepsNeeded, type SalinityStep } from './salinitySteps'

export interface LowSalinityAsked {
  V: number
  /** Salinity now, while it is low, and of the house. */
  S0: number
  low: number
  house: number
  startOn: string
  holdDays: number
  fallPerDay?: number
  upPerDay?: number
  /** Salinity of water added on the way down, and made up for the way up. */
  Sd?: number
  Sn: number
  T?: number
  evapLPerDay?: number
}
export interface LowSalinityPlan {
  problems: string[]
  down: SalinityStep[]
  lowFrom: string | null
  upFrom: string | null
  up: SalinityStep[]
  watchFrom: string | null
  /** What evaporation adds a day: top up with fresh water. */
  driftPpt: number | null
}

/**
 * Dated steps of water down to a low salinity, and up again. Down in a day or two is trade; up is the slow part.
 * Source: docs/regimens.md#low-salinity; 15 or less published, 10 to 13 house guidance.
 */
export function lowSalinityPlan({ V, S0, low, house, startOn, holdDays, fallPerDay = dosingLimits.salinityFallPerDay, upPerDay = dosingLimits.salinityPerDay, Sd = 0, Sn, T = 25, evapLPerDay = 0 }: LowSalinityAsked): LowSalinityPlan {
  const found: [boolean, string][] = [
    [Sd >= low, 'added water not fresher than the aim'],
    [Sn <= house, 'make-up water not saltier than the house'],
    [low >= S0, 'not lower than it is'],
  ]
  const problems = found.flatMap(([isSo, words]) => (isSo ? [words] : []))
  if (problems.length > 0) return { problems, down: [], lowFrom: null, upFrom: null, up: [], watchFrom: null, driftPpt: null }
  const water = { volumeL: V, upPpt: Sn, downPpt: Sd, tempC: T }
  const down = salinitySteps(S0, low, stepsNeeded(S0, low, fallPerDay), startOn, water)
  const lowFrom = down.at(-1)?.on ?? startOn
  const upFrom = addDays(lowFrom, holdDays) ?? lowFrom
  const up = salinitySteps(low, house, stepsNeeded(low, house, upPerDay), upFrom, water)
  return { problems, down, lowFrom, upFrom, up, watchFrom: up.at(-1)?.on ?? upFrom, driftPpt: (low * evapLPerDay) / V }
}
