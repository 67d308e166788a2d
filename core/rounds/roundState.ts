import type { LevelReason, LevelWhy, TankLevelName } from './levelReason'
import { shippedRoundRules, signRule, type RoundRules } from './roundRules'
import type { Sign } from './rounds.schema'

/** How clean a tank is taken to be on the round, cleanest first. */
export const roundStates = ['settled', 'new', 'suspect', 'sick'] as const
export type RoundState = (typeof roundStates)[number]

const illWhys: readonly LevelWhy[] = ['appetite', 'loss', 'losses beyond usual', 'go together', 'in several lots', 'neighbour', 'whole water']

/** Answers whether a reason speaks of illness rather than of a fight, a wound or a reading. */
export const isIllness = ({ why, what }: Pick<LevelReason, 'why' | 'what'>, rules: RoundRules = shippedRoundRules): boolean => (why === 'sign' ? what !== 'wound' && !signRule(rules, what as Sign).isFight : illWhys.includes(why))

export interface StateAsked {
  level: TankLevelName
  /** Whether any of its reasons speaks of illness. */
  isIllness: boolean
  /** Whether another tank on its water is sick. */
  isOnSickWater: boolean
  /** Of its newest lot; null when nobody knows. */
  daysSinceArrival: number | null
  newArrivalDays?: number
}

/** The state a tank has on the round: hands and nets go from settled to sick and never back. */
export function roundState({ level, isIllness: isIll, isOnSickWater, daysSinceArrival, newArrivalDays = 14 }: StateAsked): RoundState {
  if (level === 'act' && isIll) return 'sick'
  if ((level === 'watch' && isIll) || isOnSickWater) return 'suspect'
  return daysSinceArrival !== null && daysSinceArrival < newArrivalDays ? 'new' : 'settled'
}
