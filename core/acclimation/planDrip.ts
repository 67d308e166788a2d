import { nominalDropsPerMl } from './mixing'

/** What is to be reached: water of `fromPpt` brought to within `withinPpt` of the tank's. Any mixing figure will do for salinity. */
export interface DripAim {
  waterL: number
  vesselL: number
  fromPpt: number
  toPpt: number
  withinPpt: number
  minutes: number
  dropsPerMl?: number
}

export type DripPlan =
  | { ok: true; way: 'fill' | 'overflow'; flowMlPerMin: number; dropsPerMin: number; finalL: number; tankWaterL: number; advice: string | null }
  | { ok: false; reason: string }

/**
 * Plans a drip: its flow and drops, how full the vessel gets, and whether it has to overflow. A tight aim makes filling take
 * many times the bag's water; then overflow, or pouring bag water away first, is the better way.
 * @example planDrip({ waterL: 2, vesselL: 20, fromPpt: 27, toPpt: 35, withinPpt: 1, minutes: 60 }) // 233 mL/min to 16 L
 */
export function planDrip({ waterL, vesselL, fromPpt, toPpt, withinPpt, minutes, dropsPerMl = nominalDropsPerMl }: DripAim): DripPlan {
  if (![waterL, vesselL, withinPpt, minutes, dropsPerMl].every((figure) => Number.isFinite(figure) && figure > 0)) return { ok: false, reason: 'Water, vessel, aim, minutes and drops must all be more than nothing.' }
  if (waterL > vesselL) return { ok: false, reason: `The vessel holds ${vesselL} L, less than the ${waterL} L of bag water.` }
  const gap = Math.abs(fromPpt - toPpt)
  if (!Number.isFinite(gap)) return { ok: false, reason: 'Both waters need a figure.' }
  const plan = (way: 'fill' | 'overflow', litres: number, finalL: number, advice: string | null): DripPlan => {
    const flowMlPerMin = (litres * 1000) / minutes
    return { ok: true, way, flowMlPerMin, dropsPerMin: flowMlPerMin * dropsPerMl, finalL, tankWaterL: litres, advice }
  }
  if (gap <= withinPpt) return plan('fill', 0, waterL, 'The waters are near enough already; nothing needs to drip.')
  const filledL = waterL * (gap / withinPpt)
  if (filledL <= vesselL) return plan('fill', Math.max(0, filledL - waterL), filledL, null)
  // Pouring away leaves so much that filling the vessel just reaches the aim.
  const keepL = (vesselL * withinPpt) / gap
  const dumpFirst = keepL >= waterL * 0.25 ? `Pouring ${(waterL - keepL).toFixed(1)} L of bag water away first would make it fit without overflow.` : null
  // It fills to the rim first, and from there on the whole vessel is exchanged.
  const overflowL = vesselL - waterL + vesselL * Math.log(filledL / vesselL)
  return plan('overflow', overflowL, vesselL, `Filling would take ${filledL.toFixed(1)} L, more than the vessel holds; let it overflow, the drip far from the outlet.${dumpFirst ? ` ${dumpFirst}` : ''}`)
}

/** When to put an air stone into a vessel, and why. */
export interface AirAdvice {
  when: 'not needed' | 'after diluting' | 'at once'
  why: string
}

/**
 * Says whether and when to aerate. Air drives carbon dioxide out of undiluted bag water and turns its ammonia toxic, so the
 * water is diluted first, unless oxygen cannot wait.
 * @param hoursToLow - until oxygen falls to its limit without air.
 * @param minutes - how long the fish are in the vessel.
 */
export function whenToAerate(hoursToLow: number, minutes: number, minutesToDilute: number): AirAdvice {
  const lowAfterMin = hoursToLow * 60
  if (lowAfterMin >= minutes) return { when: 'not needed', why: 'Oxygen lasts for as long as the fish are in it.' }
  if (lowAfterMin >= minutesToDilute) return { when: 'after diluting', why: `Oxygen reaches its limit after about ${Math.round(lowAfterMin)} min. Dilute first: air in undiluted bag water turns its ammonia toxic.` }
  return { when: 'at once', why: 'Oxygen would not last until the water is diluted, so air comes first; dilute as fast as the steps allow.' }
}
