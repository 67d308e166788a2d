import type { Tolerance } from '../setup/words'
import type { Sign } from './rounds.schema'
import { shippedRoundRules, type CourseEntry, type CourseEventKind, type CourseWindow, type Habit, type RoundRules } from './roundRules'

/** Something that happened to a lot. */
export interface CourseEvent {
  event: CourseEventKind
  /** How it was done; an unknown school counts as none. */
  school?: string | null
  /** Since it ended; 0 while it goes on. */
  hoursAgo: number
  /** Since it began, where it lasts. */
  startedHoursAgo?: number | null
  /** Whether a full meal was seen since. */
  hasEaten?: boolean
}

/** What the species register says of how a kind shows itself. */
export interface CourseSpecies {
  /** Usual share of a group that is seen at a look, 0 to 1. */
  shareSeen?: number | null
  /** Usual days to the first meal. */
  firstMealDays?: number | null
  tolerance?: Tolerance | null
  habits?: readonly Habit[] | null
}

/** For how many hours a sign is still usual; null is always. */
export interface SignCourse {
  clearLeftH: number | null
  slightLeftH: number | null
}

export interface ExpectedCourse {
  /** Signs that are still usual; any other is not. */
  signs: ReadonlyMap<Sign, SignCourse>
  ateNoneLeftH: number
  ateSomeLeftH: number
  /** Usual share seen, less as long as the fish keep out of sight. */
  shareSeen: number
}

const isUsual = (leftH: number | null | undefined): boolean => leftH === null || (leftH ?? 0) > 0

/** Answers whether a sign of that severity is usual now: nothing that somebody has to act on. */
export const isInCourse = ({ signs }: ExpectedCourse, sign: Sign, severity: number): boolean => isUsual(severity > 1 ? signs.get(sign)?.clearLeftH : signs.get(sign)?.slightLeftH)

/** The entry of an event, with what its school's own entry replaces. */
export function entryOf({ courses }: RoundRules, event: CourseEventKind, school: string | null | undefined): CourseEntry | undefined {
  const general = courses.find((entry) => entry.event === event && entry.school === null)
  const own = school ? courses.find((entry) => entry.event === event && entry.school === school) : undefined
  return general && own ? { ...general, ...own, signs: { ...general.signs, ...own.signs } } : general
}

/**
 * What is usual after what happened to a lot: for how long each sign, eating little and staying out of sight are no cause for
 * worry. The longest window counts where several overlap. Source: docs/rounds.md, house guidance.
 * @param events - any number; hours from 0.
 * @returns signs that are usual no longer are left out.
 */
export function expectedCourse(events: readonly CourseEvent[], species: CourseSpecies = {}, rules: RoundRules = shippedRoundRules): ExpectedCourse {
  const shareSeen = species.shareSeen ?? rules.species.shareSeen
  const firstMealDays = species.firstMealDays ?? rules.species.firstMealDays
  const windows = events.flatMap((each) => {
    const entry = entryOf(rules, each.event, each.school)
    return entry ? [{ each, entry, times: entry.isScaled ? rules.tolerance[species.tolerance ?? 'normal'] : 1 }] : []
  })
  const left = (untilH: number, { hoursAgo }: CourseEvent): number => Math.max(0, untilH - hoursAgo)
  const signs = new Map<Sign, SignCourse>()
  for (const { each, entry, times } of windows)
    for (const [sign, [clearH, slightH]] of Object.entries(entry.signs) as [Sign, CourseWindow][]) {
      const known = signs.get(sign)
      signs.set(sign, { clearLeftH: Math.max(known?.clearLeftH ?? 0, left(clearH * times, each)), slightLeftH: Math.max(known?.slightLeftH ?? 0, left(slightH * times, each)) })
    }
  for (const [sign, { clearLeftH, slightLeftH }] of signs) if (!isUsual(clearLeftH) && !isUsual(slightLeftH)) signs.delete(sign)
  for (const sign of alwaysUsual(shareSeen, species.habits ?? [], rules)) signs.set(sign, { clearLeftH: null, slightLeftH: null })
  const hungry = windows.filter(({ each }) => !each.hasEaten).map(({ each, entry, times }) => {
    const noneH = entry.ateNone ? Math.max(entry.ateNone.leastH, entry.ateNone.perFirstMealDay * firstMealDays) : 0
    return { none: left(noneH * times, each), some: left((noneH + (entry.ateSomeMoreH ?? 0)) * times, each) }
  })
  const hides = windows.map(({ each, entry, times }) => entry.shareSeen?.find(([untilH]) => each.hoursAgo < untilH * times)?.[1] ?? 1)
  return { signs, ateNoneLeftH: Math.max(0, ...hungry.map(({ none }) => none)), ateSomeLeftH: Math.max(0, ...hungry.map(({ some }) => some)), shareSeen: shareSeen * Math.min(1, ...hides) }
}

/** Signs that say nothing for a kind that hides or lives where others only flee to. */
export const alwaysUsual = (shareSeen: number, habits: readonly Habit[], rules: RoundRules): Sign[] => [...(shareSeen < rules.species.hiderBelow ? (['hiding'] as const) : []), ...habits.flatMap((habit) => rules.habitSigns[habit] ?? [])]
