import { addDays } from '../time/daysBetween'
import { litresToSwap, saltToAddG } from '../water/salt'

/** A day's step of salinity, by exchanging water. */
export interface SalinityStep {
  on: string
  from: number
  to: number
  swapL: number
  /** Salt mix in the new water. */
  saltG: number
}
/** The water that is exchanged, and with what. */
export interface SteppedWater {
  volumeL: number
  /** Salinity of the new water, for going up and for going down. */
  upPpt: number
  downPpt: number
  tempC: number
}

/** Steps that a change takes at so much a day; 0 where there is none. */
export const stepsNeeded = (from: number, to: number, perDay: number): number => Math.ceil(Math.abs(to - from) / perDay - 1e-9)

/** Equal daily steps from one salinity to another, the first on a day. */
export function salinitySteps(from: number, to: number, count: number, firstOn: string, water: SteppedWater): SalinityStep[] {
  const level = (nth: number): number => from + ((to - from) * nth) / count
  return Array.from({ length: count }, (_, index) => stepOf(addDays(firstOn, index) ?? firstOn, level(index), level(index + 1), water))
}

function stepOf(on: string, from: number, to: number, { volumeL, upPpt, downPpt, tempC }: SteppedWater): SalinityStep {
  const added = to > from ? upPpt : downPpt
  const swapL = to > from ? (volumeL * (to - from)) / (added - from) : litresToSwap(volumeL, from, to, added)
  return { on, from, to, swapL, saltG: added === 0 ? 0 : saltToAddG(swapL, 0, added, tempC) }
}
