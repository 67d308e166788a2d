import { addDays, daysBetween } from '../time/daysBetween'

export interface CoursesAsked {
  from: string
  days: number
  pauseDays?: number
  times?: number
  /** Days of confirmed signs; each opens a span. */
  signs?: readonly string[]
  onSignDays?: number
  /** Longer than this at a stretch is too long; null without a limit. */
  mostDays?: number | null
}
export interface CourseWindow {
  from: string
  to: string
  why: 'course' | 'sign'
  isTooLong: boolean
}

/**
 * The days on which fish are treated: spans of a course, and one for each sign; those that touch are one.
 * @returns spans in order, and the last day of all.
 */
export function courseWindows({ from, days, pauseDays = 0, times = 1, signs = [], onSignDays = days, mostDays = null }: CoursesAsked): { windows: CourseWindow[]; endsOn: string } {
  const later = (on: string, count: number): string => addDays(on, count) ?? on
  const spans = [
    ...Array.from({ length: times }, (_, index) => later(from, index * (days + pauseDays))).map((on) => ({ from: on, to: later(on, days - 1), why: 'course' as const })),
    ...signs.map((on) => ({ from: on, to: later(on, onSignDays - 1), why: 'sign' as const })),
  ].sort((a, b) => (a.from < b.from ? -1 : a.from > b.from ? 1 : 0))
  const joined: Omit<CourseWindow, 'isTooLong'>[] = []
  for (const span of spans) {
    const last = joined.at(-1)
    if (last && span.from <= later(last.to, 1)) Object.assign(last, { to: span.to > last.to ? span.to : last.to, why: last.why === 'sign' ? 'sign' : span.why })
    else joined.push({ ...span })
  }
  const windows = joined.map((each) => ({ ...each, isTooLong: mostDays !== null && daysBetween(each.from, each.to) + 1 > mostDays }))
  return { windows, endsOn: windows.reduce((last, { to }) => (to > last ? to : last), from) }
}
