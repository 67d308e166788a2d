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

export interface RampHour {
  /** Flow of this hour, L/h. */
  flowLPerH: number
  /** What is still missing at its end, ppt. */
  leftPpt: number
}

/**
 * Makes an even ramp practical: one flow for each hour, what is missing falling by `perHourPpt`, then one more hour to
 * `closePpt`, so that the final step is a small one.
 */
export function hourlyRamp(volumeL: number, gapPpt: number, perHourPpt: number, withinPpt = 1, closePpt = 0.3): RampHour[] {
  const hours: RampHour[] = []
  let left = gapPpt
  const go = (next: number): void => {
    hours.push({ flowLPerH: volumeL * Math.log(left / next), leftPpt: next })
    left = next
  }
  while (left > withinPpt + 1e-9) go(Math.max(withinPpt, left - perHourPpt))
  if (left > closePpt) go(closePpt)
  return hours
}
