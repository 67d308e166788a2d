import { backTo, type HoldPolicy, type Phase } from './policy'

/** Why a hold began again. */
export type RestartCause = 'sign' | 'addition' | 'exposure' | 'treatment' | 'policy'
/** A restart as it is told; days are day numbers until they are shown. */
export interface Restart {
  day: number
  cause: RestartCause
  /** The event behind it. */
  id: string
  phase: string | null
  /** Days that were served and count no more. */
  lost: number
}
/** How a hold was ended by a person: what it was short of. */
export interface Ended {
  day: number
  days: number
  gates: readonly string[]
  reason: string | null
}
/** Where the days of a phase began. */
export interface PhaseBegin {
  day: number
  at: number
  /** Closed days of it that were looked at, and that closed at its level. */
  looked: number
  atLevel: number
}
/** A hold that runs. */
export interface Hold {
  policy: HoldPolicy
  /** The phase it is in; as many as there are when all are passed. */
  phase: number
  /** Of each phase up to that one; one more when all are passed: the day the last was. */
  begins: readonly PhaseBegin[]
  begunDay: number
  /** Days that a person added to the last phase. */
  longer: number
  restarts: readonly Restart[]
  undecided: readonly string[]
}
/** Signs that are usual for a while. */
export interface CourseKnown {
  at: number
  until: number
  words: readonly string[]
  /** Usual where they are slight. */
  slightWords: readonly string[]
}
/**
 * One history that fish of a group may have had. Never changed in place, so that a room may be kept as it was at a
 * moment for the price of a list.
 */
export interface Strand {
  hold: Hold | null
  ended: Ended | null
  /** The minute these fish came. */
  cameAt: number
  /** In a vessel: the tank they were taken from; null where they were put there from a bag, and in tanks. */
  from: string | null
  /** Came together in a vessel with fish of another water. */
  isMixed: boolean
  lastMeetingAt: number | null
  courses: readonly CourseKnown[]
  /** How they ate, newest last, as many meals as a gate asks for; and the day of the newest. */
  meals: readonly string[]
  mealDay: number | null
  bodyState: string | null
  lookedDay: number | null
  /** Newest last, since the phase began. */
  steps: readonly { of: string; at: number }[]
  pairing: { startedAt: number; result: string } | null
}

const beginOf = (day: number, at: number): PhaseBegin => ({ day, at, looked: 0, atLevel: 0 })
const freshHold = (policy: HoldPolicy, phase: number, day: number, at: number): Hold => ({ policy, phase, begins: Array.from({ length: phase + 1 }, () => beginOf(day, at)), begunDay: day, longer: 0, restarts: [], undecided: [] })

/** Fish as they come. */
export const newcomer = (policy: HoldPolicy | null, beganDay: number, at: number): Strand => ({
  ...{ hold: policy && freshHold(policy, 0, beganDay, at), ended: null, cameAt: at, from: null, isMixed: false, lastMeetingAt: null },
  ...{ courses: [], meals: [], mealDay: null, bodyState: null, lookedDay: null, steps: [], pairing: null },
})

/** All phases served; fish without a hold have none to pass. */
export const isPassed = ({ policy, phase }: Hold): boolean => phase >= policy.phases.length
export const phaseOf = ({ policy, phase }: Hold): Phase | undefined => policy.phases[phase]
/** Days of a phase of a running hold: the last may have been made longer. */
export const daysOf = ({ policy, longer }: Hold, index: number): number => (policy.phases[index]?.days ?? 0) + (index === policy.phases.length - 1 ? longer : 0)

/** Complete days of a phase that count, up to yesterday. */
export function servedOf(hold: Hold, index: number, day: number): number {
  const begin = hold.begins[index]
  if (!begin || index > hold.phase) return 0
  const { counts } = hold.policy.phases[index] ?? {}
  if (counts === 'looked') return begin.looked
  return counts === 'atLevel' ? begin.atLevel : day - begin.day
}

/** Begins a phase, now; what was of later ones is forgotten. */
export const beginPhase = (strand: Strand, hold: Hold, phase: number, day: number, at: number): Strand => ({
  ...strand,
  hold: { ...hold, phase, begins: [...hold.begins.slice(0, phase), beginOf(day, at)] },
  steps: strand.steps.filter((step) => step.at >= at),
})

/**
 * The one rule of every restart: fish at or past the target phase begin it again today, others are not touched.
 * Source: docs/holds.md#one-rule.
 */
export function sendBack(strand: Strand, rule: (policy: HoldPolicy) => { back: string } | null, { day, at, cause, id }: { day: number; at: number; cause: RestartCause; id: string }): Strand {
  const { hold } = strand
  if (!hold) return strand
  const target = backTo(hold.policy, rule(hold.policy))
  if (target < 0 || hold.phase < target) return strand
  const lost = day - (hold.begins[target]?.day ?? day)
  const isTold = hold.phase > target || lost > 0
  const restarts = isTold ? [...hold.restarts, { day, cause, id, phase: hold.policy.phases[target]?.id ?? null, lost }] : hold.restarts
  return beginPhase(strand, { ...hold, restarts }, target, day, at)
}

/** Begins another policy; where no hold runs, one begins untold. */
export function changePolicy(strand: Strand, policy: HoldPolicy, phaseId: string | undefined, { day, at, id }: { day: number; at: number; id: string }): Strand {
  const phase = Math.max(0, policy.phases.findIndex((each) => each.id === phaseId))
  const fresh = freshHold(policy, phase, day, at)
  const { hold } = strand
  const steps = strand.steps.filter((step) => step.at >= at)
  if (!hold) return { ...strand, hold: fresh, ended: null, steps }
  const restart: Restart = { day, cause: 'policy', id, phase: policy.phases[phase]?.id ?? null, lost: day - (hold.begins[0]?.day ?? day) }
  return { ...strand, hold: { ...fresh, begunDay: hold.begunDay, restarts: [...hold.restarts, restart], undecided: hold.undecided }, steps }
}

/** Makes the last phase longer; fish that had passed it are in it again, its begin kept. */
export function lengthenHold(strand: Strand, days: number): Strand {
  const { hold } = strand
  if (!hold || hold.policy.phases.length === 0) return strand
  const last = hold.policy.phases.length - 1
  const phase = Math.min(hold.phase, last)
  return { ...strand, hold: { ...hold, longer: hold.longer + days, phase, begins: hold.begins.slice(0, phase + 1) } }
}

/** Whether everything that one course explains from now on is explained by another that began by now. */
const isCovered = (course: CourseKnown, by: CourseKnown): boolean =>
  by.until >= course.until && course.words.every((word) => by.words.includes(word)) && course.slightWords.every((word) => by.words.includes(word) || by.slightWords.includes(word))

/**
 * Begins a course. What is over, or explains nothing that another does not, is forgotten: fish that went to and fro would
 * have a history for each way they may have gone, and each would be twins of another in all that is asked of them.
 */
export function withCourse(strand: Strand, begun: CourseKnown): Strand {
  const running = withoutOver(strand, begun.at)
  if (running.courses.some((course) => isCovered(begun, course))) return running
  return { ...running, courses: [...running.courses.filter((course) => !isCovered(course, begun)), begun] }
}
/** Forgets courses that were over before a minute. */
export const withoutOver = (strand: Strand, at: number): Strand => (strand.courses.every(({ until }) => until >= at) ? strand : { ...strand, courses: strand.courses.filter(({ until }) => until >= at) })

/** Strands that are equal in everything are one. */
export function withoutTwins(strands: readonly Strand[]): readonly Strand[] {
  if (strands.length < 2) return strands
  const seen = new Map<string, Strand>()
  for (const strand of strands) {
    const key = keyOf(strand)
    if (!seen.has(key)) seen.set(key, strand)
  }
  return seen.size === strands.length ? strands : [...seen.values()]
}
const keys = new WeakMap<Strand, string>()
function keyOf(strand: Strand): string {
  const known = keys.get(strand)
  if (known !== undefined) return known
  const { hold, ...rest } = strand
  const key = JSON.stringify([hold && { ...hold, policy: hold.policy.id }, rest])
  keys.set(strand, key)
  return key
}
