import { expectedCourse, isInCourse, type CourseEvent, type CourseSpecies, type ExpectedCourse } from './expectedCourse'
import { signRule, type RoundRules } from './roundRules'
import type { Ate, Sign } from './rounds.schema'

/** A sign as it was seen; without a lot it is of the whole tank. */
export interface SeenSign {
  sign: Sign
  /** 1 slight or one fish, 2 clear or several. */
  severity: number
  lot?: string | null
}
export interface LookAtTank {
  hoursAgo: number
  signs: readonly SeenSign[]
  ate: readonly { ate: Ate; lot?: string | null }[]
}
/** A lot as its level is judged. */
export interface LotInTank {
  lot: string
  fish: number
  /** Whole days since it arrived. */
  days: number
  inHold: boolean
  species: CourseSpecies
  events: readonly CourseEvent[]
}
/** A sign that a lead takes as known at that severity; without a lot for all of the tank. */
export type AcceptedSign = SeenSign

/** Whose a sign is: a lot, or null for the tank. */
export type Scope = string | null
/** A sign at a look, where nobody took it as known and nothing explains it. */
export interface OutsideSign extends SeenSign {
  lot: Scope
  look: LookAtTank
}
/** A full meal, which ends what explains a refusal. */
const fullMeals: readonly Ate[] = ['all', 'most']
const hoursApart = (older: { hoursAgo: number }, newer: { hoursAgo: number }): number => older.hoursAgo - newer.hoursAgo

/** What was seen in one tank, look by look, beside what was to be expected at that hour. */
export interface SeenInTank {
  /** Newest first. */
  looks: readonly LookAtTank[]
  newest: LookAtTank | undefined
  outside: readonly OutsideSign[]
  /** Signs outside at a look at most so many hours older than the newest. */
  outsideWithin(hours: number): OutsideSign[]
  /** What a lot answered at each look that says something of it, newest first. */
  answersOf(lot: string): { ate: Ate; look: LookAtTank; course: ExpectedCourse }[]
}

/** Reads the looks at a tank. */
export function seenInTank(lots: readonly LotInTank[], rounds: readonly LookAtTank[], accepted: readonly AcceptedSign[], rules: RoundRules): SeenInTank {
  const looks = [...rounds].sort((a, b) => a.hoursAgo - b.hoursAgo)
  const answers = new Map(lots.map(({ lot }) => [lot, answersFor(lot, looks, rules.level.ownAnswerH)]))
  const courses = new Map(lots.map((each) => [each.lot, looks.map((look) => courseAt(each, look, answers.get(each.lot) ?? [], rules))]))
  const courseOf = (lot: string, look: LookAtTank): ExpectedCourse | undefined => courses.get(lot)?.[looks.indexOf(look)]

  const isAccepted = ({ sign, severity, lot = null }: SeenSign): boolean => accepted.some((known) => known.sign === sign && known.severity >= severity && ((known.lot ?? null) === null || known.lot === lot))
  const isUsual = ({ sign, severity, lot = null }: SeenSign, look: LookAtTank): boolean =>
    lots.some((each) => {
      const course = lot === null || each.lot === lot ? courseOf(each.lot, look) : undefined
      return course !== undefined && isInCourse(course, sign, severity)
    })
  const outside = looks.flatMap((look) =>
    recordedAt(look)
      .filter((seen) => signRule(rules, seen.sign).isGrave || !(isAccepted(seen) || isUsual(seen, look)))
      .map((seen) => ({ ...seen, lot: seen.lot ?? null, look })),
  )
  const [newest] = looks
  return {
    ...{ looks, newest, outside },
    outsideWithin: (hours) => outside.filter(({ look }) => newest !== undefined && hoursApart(look, newest) <= hours),
    answersOf: (lot) =>
      (answers.get(lot) ?? []).flatMap(({ ate, look }) => {
        const course = courseOf(lot, look)
        return course ? [{ ate, look, course }] : []
      }),
  }
}

/** Signs of a look, once for each whose they are, the graver of two. */
function recordedAt({ signs }: LookAtTank): SeenSign[] {
  const worst = new Map<string, SeenSign>()
  for (const seen of signs) {
    const key = JSON.stringify([seen.sign, seen.lot ?? null])
    if ((worst.get(key)?.severity ?? 0) < seen.severity) worst.set(key, seen)
  }
  return [...worst.values()]
}

/**
 * What was usual for each lot at so many hours before now, whoever looked: for a picture of it.
 * @returns one list a lot, in the order of `hours`.
 */
export function coursesAt(lots: readonly LotInTank[], rounds: readonly LookAtTank[], hours: readonly number[], rules: RoundRules): ExpectedCourse[][] {
  const looks = [...rounds].sort((a, b) => a.hoursAgo - b.hoursAgo)
  return lots.map((lot) => {
    const answers = answersFor(lot.lot, looks, rules.level.ownAnswerH)
    return hours.map((hoursAgo) => courseAt(lot, { hoursAgo, signs: [], ate: [] }, answers, rules))
  })
}

/**
 * What was answered of a lot: its own answer, else the tank's. That the tank ate says nothing of a lot that was seen to
 * refuse lately: the others ate.
 */
function answersFor(lot: string, looks: readonly LookAtTank[], ownAnswerH: number): { ate: Ate; look: LookAtTank }[] {
  const own = (look: LookAtTank): Ate | undefined => look.ate.find((each) => each.lot === lot)?.ate
  return looks.flatMap((look, index): { ate: Ate; look: LookAtTank }[] => {
    const mine = own(look)
    if (mine !== undefined) return mine === 'not fed' ? [] : [{ ate: mine, look }]
    const ate = look.ate.find((each) => (each.lot ?? null) === null)?.ate
    if (ate === undefined || ate === 'not fed') return []
    const before = looks.slice(index + 1).find((older) => ![undefined, 'not fed'].includes(own(older)))
    const refused = before !== undefined && !fullMeals.includes(own(before) as Ate) && hoursApart(before, look) <= ownAnswerH
    return fullMeals.includes(ate) && refused ? [] : [{ ate, look }]
  })
}

/** What was usual for a lot at the hour of a look. */
function courseAt({ events, species }: LotInTank, look: LookAtTank, answers: readonly { ate: Ate; look: LookAtTank }[], rules: RoundRules): ExpectedCourse {
  const then = events
    .filter(({ hoursAgo, startedHoursAgo }) => (startedHoursAgo ?? hoursAgo) >= look.hoursAgo)
    .map((event) => ({
      ...event,
      hoursAgo: Math.max(0, event.hoursAgo - look.hoursAgo),
      hasEaten: event.hasEaten === true || answers.some((answer) => fullMeals.includes(answer.ate) && event.hoursAgo > answer.look.hoursAgo && answer.look.hoursAgo > look.hoursAgo),
    }))
  return expectedCourse(then, species, rules)
}
