import { courseWindows, type CourseWindow } from '../dosing/courseWindows'
import { addDays, daysBetween } from '../time/daysBetween'
import type { DosesPlan, FeedPlan } from './regimens.schema'

export interface CourseAsked {
  plan: Pick<DosesPlan | FeedPlan, 'fromOn' | 'days' | 'pauseDays' | 'times' | 'onSignDays' | 'mostDays'>
  /** Days of confirmed signs since it began. */
  signs: readonly string[]
  /** Days on which it was given. */
  given: readonly string[]
  today: string
}
export interface CourseNow {
  windows: CourseWindow[]
  endsOn: string
  /** Whether today is a day of it, and whether it was given already. */
  isToday: boolean
  isGiven: boolean
  /** The next day of it that is not given, today included; null when none is left. */
  nextOn: string | null
  /** Days of it that are over and on which nothing was given. */
  missed: string[]
  isOver: boolean
}

const daysOf = ({ from, to }: CourseWindow): string[] => Array.from({ length: daysBetween(from, to) + 1 }, (_, index) => addDays(from, index) ?? from)

/**
 * How a course of days stands: spans with pauses, and one more for each sign.
 * Source: docs/regimens.md#courses.
 */
export function courseNow({ plan: { fromOn, days, pauseDays, times, onSignDays, mostDays }, signs, given, today }: CourseAsked): CourseNow {
  const { windows, endsOn } = courseWindows({ from: fromOn, days, pauseDays, times, signs: onSignDays > 0 ? signs : [], ...(onSignDays > 0 ? { onSignDays } : {}), mostDays: mostDays > 0 ? mostDays : null })
  const all = windows.flatMap(daysOf)
  const isGiven = (on: string): boolean => given.includes(on)
  return {
    ...{ windows, endsOn },
    ...{ isToday: all.includes(today), isGiven: isGiven(today) },
    nextOn: all.find((on) => on >= today && !isGiven(on)) ?? null,
    missed: all.filter((on) => on < today && !isGiven(on)),
    isOver: endsOn < today || all.every((on) => on < today || isGiven(on)),
  }
}
