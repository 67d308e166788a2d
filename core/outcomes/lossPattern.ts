import type { LossCause } from '../ledger/movement'
import { mealAnswers, type Ate, type Sign } from '../rounds/rounds.schema'
import { outcomeRules, type OutcomeRules } from './outcomeRules'

/** What a death looked like in the record. Burnt gills and gill parasites look alike: it is a pattern, no diagnosis. */
export const lossPatterns = ['in bag', 'jumped', 'pump intake', 'eaten', 'not found', 'spots or film', 'wounds', 'first days', 'not looked at', 'late gasping', 'wasting', 'other'] as const
export type LossPattern = (typeof lossPatterns)[number]

/** What is known of a death: its cause as it was said, its day, and what was seen before it in its tank. */
export interface DeathSeen {
  kind: 'loss' | 'dead-in-bag'
  cause?: LossCause | null
  /** Days since the opening of its lot. */
  day: number
  signs: readonly { sign: string; hoursBefore: number }[]
  /** The newest feeding before it. */
  ate: { answer: string; hoursBefore: number } | null
  /** Hours since the newest look at its tank. */
  lookHoursBefore: number | null
  limits?: Partial<OutcomeRules>
}

const causesThatSay = ['jumped', 'pump intake', 'eaten', 'not found'] as const
/** Thinness comes slowly: it is held against a death for two weeks. */
export const wastingHours = 336
/** Signs that speak for each pattern, and for the evidence of hints. */
export const signsOf = { gills: ['gasping', 'fast breathing'], skin: ['spots', 'film'], wounds: ['wound', 'frayed fins', 'chased'], wasting: ['thin', 'stringy faeces'] } as const satisfies Record<string, readonly Sign[]>
/** Answers whether fish were fed at a look at all. */
export const isFed = ({ ate }: { ate: string }): boolean => ate !== 'not fed'

/** Names the pattern of a death, the first that fits, and whether anybody had looked. Source: docs/outcomes.md. */
export function lossPattern({ kind, cause = null, day, signs, ate, lookHoursBefore, limits }: DeathSeen): { pattern: LossPattern; isLooked: boolean } {
  const rules = outcomeRules(limits)
  if (kind === 'dead-in-bag') return { pattern: 'in bag', isLooked: true }
  const isLooked = lookHoursBefore !== null && lookHoursBefore <= rules.lookHours
  const has = (hours: number, names: readonly string[]): boolean => signs.some(({ sign, hoursBefore }) => hoursBefore <= hours && names.includes(sign))
  const isEating = ate !== null && ate.hoursBefore <= rules.lookHours && mealAnswers.includes(ate.answer as Ate)
  const said = causesThatSay.find((each) => each === cause)
  const rest = (): LossPattern => {
    if (has(rules.signHours, signsOf.skin)) return 'spots or film'
    if (has(rules.signHours, signsOf.wounds)) return 'wounds'
    if (day <= rules.firstDays) return 'first days'
    if (!isLooked) return 'not looked at'
    if (day >= rules.lateFrom && day <= rules.lateTo && has(rules.lookHours, signsOf.gills) && isEating) return 'late gasping'
    return has(wastingHours, signsOf.wasting) ? 'wasting' : 'other'
  }
  return { pattern: said ?? rest(), isLooked }
}
