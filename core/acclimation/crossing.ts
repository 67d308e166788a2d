/** Long passages between salinities. Limits per hour are guidance of the house; the steepest hour counts, not the mean. */

/** Fastest change of an overflow at constant flow, at its very start, per unit of time of the flow. */
export const fastestChange = (volumeL: number, flow: number, fromPpt: number, toPpt: number): number => (flow * Math.abs(fromPpt - toPpt)) / volumeL
/** Time of a constant overflow whose fastest change is held to a limit; 0 when the water is near enough already. */
export function constantFlowTime(fromPpt: number, toPpt: number, withinPpt: number, mostPerTime: number): number {
  const gap = Math.abs(fromPpt - toPpt)
  return gap <= withinPpt ? 0 : (gap / mostPerTime) * Math.log(gap / withinPpt)
}
/** Flow at which salinity changes evenly, at the moment it stands at `nowPpt`; Infinity once both waters are alike. */
export const evenRampFlow = (nowPpt: number, volumeL: number, toPpt: number, perTime: number): number => (perTime * volumeL) / Math.abs(toPpt - nowPpt)
/** Time of an even ramp until it is near enough. */
export const evenRampTime = (fromPpt: number, toPpt: number, withinPpt: number, perTime: number): number => Math.max(0, Math.abs(fromPpt - toPpt) - withinPpt) / perTime
/** Tank water an even ramp takes, L; the same as at constant flow. */
export const rampVolumeL = (volumeL: number, fromPpt: number, toPpt: number, withinPpt: number): number => volumeL * Math.max(0, Math.log(Math.abs(fromPpt - toPpt) / withinPpt))

/** A setting of the valve, and how long it stands. */
export interface ValveSetting {
  hours: number
  flowLPerH: number
  /** What is still missing at its end, ppt. */
  leftPpt: number
}

/** Nearer than this a crossing is done, ppt. */
const usualClosePpt = 0.3

/**
 * Makes an even ramp practical: one flow for each hour, what is missing falling by `perHourPpt`, then one more hour to
 * `closePpt`, so that the final step is a small one.
 */
export function hourlyRamp(volumeL: number, gapPpt: number, perHourPpt: number, withinPpt = 1, closePpt = usualClosePpt): ValveSetting[] {
  const hours: ValveSetting[] = []
  let left = gapPpt
  const go = (next: number): void => {
    hours.push({ hours: 1, flowLPerH: volumeL * Math.log(left / next), leftPpt: next })
    left = next
  }
  while (left > withinPpt + 1e-9) go(Math.max(withinPpt, left - perHourPpt))
  if (left > closePpt) go(closePpt)
  return hours
}

/** When somebody is there to set a valve; null at any hour. */
export type PeopleThere = { fromHour: number; untilHour: number; startHour: number } | null
/** Answers whether somebody is there so many hours after the start. */
function isStaffed(people: PeopleThere, afterHours: number): boolean {
  if (people === null || people.fromHour === people.untilHour) return true
  const hour = (people.startHour + afterHours) % 24
  return people.fromHour < people.untilHour ? hour >= people.fromHour && hour < people.untilHour : hour >= people.fromHour || hour < people.untilHour
}

/**
 * Plans an overflow with few settings of its valve, changed in whole hours while people are there: the fastest of those
 * in which no hour moves the water by more than it may. A constant flow is steepest in its first hour.
 * Source: docs/bench.md, overflow.
 * @param gapPpt - above `closePpt`.
 * @param perHourPpt - most in an hour; above 0.
 * @param settings - 1 or more.
 * @returns the settings in order; empty when the waters are near enough already.
 */
export function valvePlan(volumeL: number, gapPpt: number, perHourPpt: number, settings: number, people: PeopleThere = null, closePpt = usualClosePpt): ValveSetting[] {
  if (gapPpt <= closePpt) return []
  const plan = fastestPlan(gapPpt, perHourPpt, settings, 0, people, closePpt)
  let left = gapPpt
  return plan.map(({ hours, perHour }) => {
    left *= Math.exp(-perHour * hours)
    return { hours, flowLPerH: volumeL * perHour, leftPpt: left }
  })
}

/** Share of the water that runs through in an hour so that its first hour moves it by no more than it may. */
const steadiest = (leftPpt: number, perHourPpt: number, closePpt: number): number => (leftPpt - closePpt <= perHourPpt ? Math.log(leftPpt / closePpt) : -Math.log(1 - perHourPpt / leftPpt))

const mostTried = 200
type Settings = { hours: number; perHour: number }[]
const hoursOf = (plan: Settings): number => plan.reduce((sum, { hours }) => sum + hours, 0)

function fastestPlan(leftPpt: number, perHourPpt: number, settings: number, afterHours: number, people: PeopleThere, closePpt: number): Settings {
  const perHour = steadiest(leftPpt, perHourPpt, closePpt)
  const last = Math.max(1, Math.ceil(Math.log(leftPpt / closePpt) / perHour - 1e-9))
  let best: Settings = [{ hours: last, perHour }]
  if (settings < 2) return best
  // Of very slow passages every few hours are looked at.
  const stride = Math.ceil(last / mostTried)
  for (let hours = stride; hours < last && hours < hoursOf(best); hours += stride) {
    if (!isStaffed(people, afterHours + hours)) continue
    const rest = fastestPlan(leftPpt * Math.exp(-perHour * hours), perHourPpt, settings - 1, afterHours + hours, people, closePpt)
    if (hours + hoursOf(rest) < hoursOf(best)) best = [{ hours, perHour }, ...rest]
  }
  return best
}
