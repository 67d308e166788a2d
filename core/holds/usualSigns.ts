import { alwaysUsual, entryOf, type CourseSpecies } from '../rounds/expectedCourse'
import { signRule, type CourseEventKind, type CourseWindow, type RoundRules } from '../rounds/roundRules'
import type { Sign } from '../rounds/rounds.schema'

/** Signs that are usual for so many hours, some only where they were slight. */
export interface UsualSigns {
  hours: number
  words: readonly string[]
  slightWords: readonly string[]
}
/** Longer than any hold. */
const alwaysH = 24 * 365 * 20

/**
 * What is usual after what happened to fish, as a hold counts it: a grave sign never is.
 * Source: docs/rounds.md; the windows are those of the round.
 * @returns one entry for each length of time.
 */
export function usualAfter(event: CourseEventKind, school: string | null, species: CourseSpecies, rules: RoundRules): UsualSigns[] {
  const entry = entryOf(rules, event, school)
  const times = entry?.isScaled ? rules.tolerance[species.tolerance ?? 'normal'] : 1
  const windows = (Object.entries(entry?.signs ?? {}) as [Sign, CourseWindow][]).filter(([sign]) => !signRule(rules, sign).isGrave)
  const hours = [...new Set(windows.flatMap(([, each]) => each))].filter((each) => each > 0).sort((a, b) => a - b)
  const lasting = (until: number, of: 0 | 1): Sign[] => windows.filter(([, window]) => window[of] === until).map(([sign]) => sign)
  return hours.map((until) => ({ hours: until * times, words: lasting(until, 0), slightWords: lasting(until, 1) }))
}

/** What is always usual for a kind: it hides, or lives where others only flee to. */
export function usualAlways(species: CourseSpecies, rules: RoundRules): UsualSigns[] {
  const words = alwaysUsual(species.shareSeen ?? rules.species.shareSeen, species.habits ?? [], rules).filter((sign) => !signRule(rules, sign).isGrave)
  return words.length === 0 ? [] : [{ hours: alwaysH, words, slightWords: [] }]
}
