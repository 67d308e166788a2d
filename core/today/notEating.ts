import type { Ate } from '../rounds/rounds.schema'

const dayMs = 24 * 3_600_000

export interface Appetite {
  /** When the lot came into this tank. */
  sinceMs: number
  /** The newest check of the tank at which anything was eaten; null when there is none. */
  lastMealMs: number | null
  /** The newest feeding response of the tank, and when; null when it was never fed. */
  lastAnswer: Ate | null
  lastAnswerMs: number | null
  /** Usual days to the first meal of the species; null when the book does not know. */
  firstMealDays: number | null
  /** How long it bears hunger, in the book's words; null when the book does not know. */
  bearsHunger: string | null
}

/** Days that a species bears without a meal, by the book's word. */
const hungerDays = (word: string | null): number => ({ 'a day or two': 2, 'a week': 7, weeks: 21 })[word ?? ''] ?? Infinity

/**
 * Says for how long a lot has not been seen to eat, in milliseconds; null while that is nothing to speak of. A lot that
 * has not eaten here yet has the usual delay of its species, one that ate before has `notEatingDays`.
 * No species is left longer than it bears hunger, whatever its first meal says.
 * It counts up to the newest refusal: a tank nobody fed since has not refused anything more.
 * Feeding is recorded by tank, so lots of one tank share the answer.
 */
export function notEatingForMs({ sinceMs, lastMealMs, lastAnswer, lastAnswerMs, firstMealDays, bearsHunger }: Appetite, nowMs: number, notEatingDays: number): number | null {
  if (lastAnswer !== 'none' || lastAnswerMs === null || lastAnswerMs < sinceMs) return null
  const ateHere = lastMealMs !== null && lastMealMs >= sinceMs
  const fromMs = ateHere ? lastMealMs : sinceMs
  const usualDays = Math.min(ateHere ? notEatingDays : (firstMealDays ?? notEatingDays), hungerDays(bearsHunger))
  return lastAnswerMs - fromMs > usualDays * dayMs ? nowMs - fromMs : null
}
