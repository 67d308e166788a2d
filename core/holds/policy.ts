/** What a phase of a hold is for; words and checks go by it, never arithmetic. */
export const phaseKinds = ['condition', 'observe', 'treat', 'stepDown', 'watch'] as const
export type PhaseKind = (typeof phaseKinds)[number]
/** Which days of a phase count: all, those looked at, or those that closed at a level. */
export const phaseCounts = ['calendar', 'looked', 'atLevel'] as const
export type PhaseCounts = (typeof phaseCounts)[number]
/** How much was eaten, least first. */
export const mealAnswers = ['none', 'some', 'most', 'all'] as const
export type MealAnswer = (typeof mealAnswers)[number]
export const stepKinds = ['dose', 'feed', 'transfer'] as const
export type StepKind = (typeof stepKinds)[number]

export interface EatingGate {
  gate: 'eating'
  /** So many of the newest meals. */
  answers: number
  atLeast: MealAnswer
  /** Calendar days that the newest of them may be old. */
  withinDays: number
}
export interface LookedGate {
  gate: 'looked'
  withinDays: number
}
export interface StepsGate {
  gate: 'steps'
  of: StepKind
  times: number
  /** Hours from one to the next; without it they only count. */
  everyH?: number
  lateH?: number
}
export interface ReadingGate {
  gate: 'reading'
  what: string
  lo: number | null
  hi: number | null
  withinDays: number
}
export interface PlainGate {
  gate: 'fillingOut' | 'cleared' | 'pairing'
}
/** What has to be so before the next phase, or before fish are released. */
export type Gate = EatingGate | LookedGate | StepsGate | ReadingGate | PlainGate

/** The water of a phase whose days count only at a level. */
export interface LevelRange {
  what: string
  lo: number | null
  hi: number | null
  /** Calendar days that the newest reading may be old. */
  gapDays: number
}
export interface Phase {
  id: string
  kind: PhaseKind
  days: number
  counts?: PhaseCounts
  level?: LevelRange
  gates?: readonly Gate[]
  /** The longer stay that a house would like; shown, never counted. */
  wishDays?: number
}

/** How far a sign reaches: the group it was seen on, its tank, or its water. */
export type SignReach = 'lot' | 'tank' | 'water'
/** How long fish are held, what begins their days again, and what has to be so at the end: a house's rule as data. */
export interface HoldPolicy {
  id: string
  name: string
  /** Counted from the tank, or from the opening of the bag. */
  start: 'placed' | 'opened'
  phases: readonly Phase[]
  onSign: { back: string; reach: SignReach; words: readonly string[] } | null
  onAddition: { by: 'water' | 'tank'; from: 'any' | 'held'; back: string } | null
  onTreatment: { back: string } | null
  release: readonly Gate[]
  /** What it puts into the water. */
  agents: readonly string[]
}

/** What a gate is called in answers. */
export function gateName(gate: Gate): string {
  if (gate.gate === 'steps') return `steps:${gate.of}`
  return gate.gate === 'reading' ? `reading:${gate.what}` : gate.gate
}
/** Where a cause begins anew: the index of its phase; -1 where the policy has no such rule, or no such phase. */
export const backTo = ({ phases }: HoldPolicy, rule: { back: string } | null): number => (rule ? phases.findIndex(({ id }) => id === rule.back) : -1)
