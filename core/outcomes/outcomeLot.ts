import type { KindRow } from './kindsOfDeath'
import { lossPatterns, type LossPattern } from './lossPattern'
import type { OutcomeRules } from './outcomeRules'

/** One day on which fish of a lot went: which day since opening, of what (place in `lossPatterns`; −1 went out of sight alive), how many. */
export type OutcomeExit = readonly [day: number, pattern: number, fish: number]
export const wentAlive = -1

/** A lot with all it can be told by: what Outcomes is reckoned from. */
export interface OutcomeLot {
  lot: string
  code: string
  /** What is independent: its crate, or the lot itself where it was born here. */
  crate: string
  /** Null for fish that were born here. */
  crateNumber: number | null
  crateId: string | null
  species: string
  strain: string | null
  origin: string
  supplier: string
  condition: 'weak' | 'sound'
  /** Hours from packing to the first bag; null while nobody said when it was packed. */
  transitHours: number | null
  /** School its fish began in; null where no run is known, `mixed` where they began in several. */
  school: string | null
  /** Hold policy in force on its first day; null without a hold. */
  hold: string | null
  /** System it was first placed in. */
  water: string | null
  /** Calendar day of its opening. */
  opened: string
  received: number
  deadInBag: number
  n: number
  exits: readonly OutcomeExit[]
  /** Days on which its deaths belong to an outbreak. */
  events: readonly (readonly [day: number, name: string])[]
  until: number
  missing: number
  corrected: number
  shared: number
}

export const mixedSchools = 'mixed'

/** What lots can be compared by. There is no comparison by person, nor by shift. */
export const groupings = ['supplier', 'species', 'strain', 'origin', 'school', 'hold', 'transit', 'season', 'water'] as const
export type Grouping = (typeof groupings)[number]

/** Classes of time in the bag, by the limits of the house. */
export function transitClass(hours: number, { transitShortH, transitDayH, transitLongH }: OutcomeRules): string {
  if (hours < transitShortH) return `under ${transitShortH} h`
  if (hours < transitDayH) return `${transitShortH} to ${transitDayH} h`
  return hours < transitLongH ? `${transitDayH} to ${transitLongH} h` : `${transitLongH} h and more`
}

const seasons = ['Dec–Feb', 'Mar–May', 'Jun–Aug', 'Sep–Nov'] as const
/** Months, no names of seasons: those of the two halves of the world differ. */
export const seasonOf = (opened: string): string => seasons[Math.floor((Number(opened.slice(5, 7)) % 12) / 3)] ?? ''

/** The group of a lot, or null where it belongs to none. */
export function groupOfLot(lot: OutcomeLot, by: Grouping, rules: OutcomeRules): string | null {
  if (by === 'transit') return lot.transitHours === null ? null : transitClass(lot.transitHours, rules)
  if (by === 'season') return seasonOf(lot.opened)
  if (by === 'strain') return lot.strain === null ? null : `${lot.species}, ${lot.strain}`
  if (by === 'school') return lot.school === mixedSchools ? null : lot.school
  return lot[by]
}

/** What a lot is alike by, finest first, for a comparison by something. */
export function strataOfLot(lot: OutcomeLot, by: Grouping, rules: OutcomeRules): string[] {
  const transit = lot.transitHours === null ? 'transit unknown' : transitClass(lot.transitHours, rules)
  const { species, condition, supplier, origin } = lot
  if (by === 'supplier') return [`${species}, ${origin}`, species]
  if (by === 'species' || by === 'strain') return [supplier]
  if (by === 'school') return [`${species}, ${condition}, ${transit}`, `${species}, ${condition}`, condition]
  if (by === 'hold') return [`${species}, ${condition}`, species]
  return [`${species}, ${supplier}`, species]
}

/** Why a lot has no group, in words; null where it has one. */
export function leftOutWords(lot: OutcomeLot, by: Grouping, rules: OutcomeRules): string | null {
  if (groupOfLot(lot, by, rules) !== null) return null
  const words: Partial<Record<Grouping, string>> = { strain: 'no strain said', transit: 'packing time not said', hold: 'no hold', water: 'never placed in a tank' }
  if (by === 'school') return lot.school === mixedSchools ? 'began in several schools' : 'no run written down'
  return words[by] ?? 'not said'
}

const patternAt = (index: number): LossPattern => lossPatterns[index] ?? 'other'

/** The outbreak that deaths of a day belong to. */
const eventOn = (lot: Pick<OutcomeLot, 'events'>, day: number): string | undefined => lot.events.find(([on]) => on === day)?.[1]

/** A lot as a row of the figures, its deaths told apart by pattern. */
export function kindRowOf(lot: OutcomeLot): KindRow {
  const days = new Map<number, { day: number; dead: Record<string, number>; gone: number; event?: string | undefined }>()
  for (const [day, pattern, fish] of lot.exits) {
    const exit = days.get(day) ?? { day, dead: {}, gone: 0, ...(lot.events.length > 0 ? { event: eventOn(lot, day) } : {}) }
    if (pattern === wentAlive) exit.gone += fish
    else exit.dead[patternAt(pattern)] = (exit.dead[patternAt(pattern)] ?? 0) + fish
    days.set(day, exit)
  }
  return { lot: lot.lot, crate: lot.crate, n: lot.n, out: [...days.values()].sort((a, b) => a.day - b.day), until: lot.until, shared: lot.shared }
}
