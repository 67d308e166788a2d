import type { mouths } from '../species/speciesWords'
import type { Sign } from './rounds.schema'
import { shippedKitchen, type Recipe } from '../kitchen/kitchenRules'
import type { Tolerance } from '../setup/words'
import shipped from './shippedRounds.json'

/** Where fish live and how they feed; several may hold. */
export const habits = ['bottom', 'surface', 'air breather', 'night', 'grazer', 'picker', 'hunter'] as const
export type Habit = (typeof habits)[number]
/** Answers whether a word of the species book is one that the round goes by. */
export const isHabit = (word: string): word is Habit => (habits as readonly string[]).includes(word)
export type Mouth = (typeof mouths)[number]
/** Grain of food by usual mass in g, where the book names no mouth: house guidance. */
export const mouthOf = (massG: number | null): Mouth | null => (massG === null ? null : massG < 0.3 ? 'tiny' : massG < 4 ? 'small' : massG < 20 ? 'medium' : 'large')
/** What happened to fish, after which some signs are usual for a while. */
export type CourseEventKind = 'arrival' | 'move' | 'crossing' | 'bath' | 'treatment' | 'company' | 'dark'
/** What signs are taken together. */
export const signGroups = ['gills', 'skin', 'wasting'] as const
export type SignGroup = (typeof signGroups)[number]
export type JudgedReading = 'tempC' | 'ph' | 'salinityPpt' | 'nh3N' | 'nitriteN' | 'nitrateN' | 'oxygenMgL'

/** Hours within which a clear sign and a slight one are usual. */
export type CourseWindow = readonly [clearH: number, slightH: number]

/** What is usual after one event; a school's own entry replaces the fields and the single signs that it names. */
export interface CourseEntry {
  event: CourseEventKind
  /** Null for the entry of every school. */
  school: string | null
  /** Whether tender fish take longer and hardy ones less. */
  isScaled?: boolean
  signs: Readonly<Partial<Record<Sign, CourseWindow>>>
  /** Hours within which eating nothing is usual: the larger of the least and so many for each usual day to the first meal. */
  ateNone?: { leastH: number; perFirstMealDay: number }
  ateSomeMoreH?: number
  /** Until how many hours which share of those usually seen shows itself. */
  shareSeen?: readonly (readonly [untilH: number, share: number])[]
}

export interface SignRule {
  sign: Sign
  /** Points when slight, and when clear. */
  slight: number
  clear: number
  group: SignGroup | null
  /** Speaks of the water rather than of one fish. */
  isWater?: boolean
  /** Calls for somebody at once. */
  isGrave?: boolean
  /** Heals slowly: that it is there tomorrow means nothing. */
  isSlow?: boolean
  /** Comes and goes. */
  isLasting?: boolean
  isFight?: boolean
  /** Seen on held fish it asks somebody whether their hold begins again. */
  asksHold?: boolean
}

/** Bounds of a reading: relative ones are distances from the water's target. */
export interface ReadingRule {
  kind: JudgedReading
  relative: boolean
  low: readonly [act: number, watch: number] | null
  high: readonly [watch: number, act: number] | null
  /** Spread of the instrument, in the reading's unit. */
  sd: number
}

/** What a food that tempts is offered to; the first that fits counts. */
export interface LureRule {
  for: { habit?: Habit; mouth?: Mouth }
  foods: readonly string[]
}

/** The judgement behind the round: every number is house guidance unless docs/rounds.md names a source. */
export interface RoundRules {
  tolerance: Readonly<Record<Tolerance, number>>
  species: { shareSeen: number; firstMealDays: number; hiderBelow: number }
  /** Signs that are always usual for a habit. */
  habitSigns: Readonly<Partial<Record<Habit, readonly Sign[]>>>
  courses: readonly CourseEntry[]
  signs: readonly SignRule[]
  level: Readonly<Record<LevelNumber, number>> & { lossWindowsDays: readonly number[]; unseen: Readonly<Record<string, number>> }
  readings: readonly ReadingRule[]
  unseen: Readonly<Record<UnseenNumber, number>>
  notEating: { laterDays: number; moveShare: number; leastH: number }
  walk: { metresPerS: number; shelfS: number; washS: number; toolsS: number; tankS: number; bayM: number; aisleM: number }
  lures: readonly LureRule[]
  /** What the kitchen feeds whom; the first that fits counts. */
  recipes: readonly Recipe[]
  /** What a sign has been seen with: in words, unranked, no diagnosis. */
  seenWith: Readonly<Partial<Record<Sign, readonly string[]>>>
}
type LevelNumber = Exclude<keyof typeof shipped.level, 'lossWindowsDays' | 'unseen'>
type UnseenNumber = keyof typeof shipped.unseen

/** What is shipped. */
export const shippedRoundRules = { ...shipped, recipes: shippedKitchen.recipes } as unknown as RoundRules

/** The rule of a sign. */
export function signRule({ signs }: Pick<RoundRules, 'signs'>, sign: Sign): SignRule {
  return signs.find((each) => each.sign === sign) ?? { sign, slight: 0, clear: 0, group: null }
}
