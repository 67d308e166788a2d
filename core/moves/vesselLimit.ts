import { limitsFor } from '../acclimation/figures'
import { usualBucketTauMin } from '../acclimation/mixing'
import { nitrogenPerOxygen, oxygenDemandMgGH } from '../bag/metabolism'
import type { Limits } from '../limits/houseLimits'
import type { Tolerance } from '../setup/words'
import { unionisedPercent } from '../water/ammonia'
import { hoursToOxygen, oxygenSaturationMgL } from '../water/oxygen'

/** What makes a vessel hard to bear; of equal ones the first. */
export const vesselBinds = ['oxygen', 'ammonia', 'temperature', 'time'] as const
export type VesselBinds = (typeof vesselBinds)[number]

/** Fish in a bucket, or in a box that hangs in its tank. */
export interface StoodVessel {
  kind?: 'bucket' | 'box'
  /** Water in it, L. */
  litres: number
  tempC: number
  salinityPpt?: number
  /** Null where nobody knows: ammonia is then not reckoned. */
  ph?: number | null
  /** Whether an air stone bubbles in it. */
  air: boolean
  fish: readonly { n: number; massG: number }[]
  tolerance?: Tolerance
  roomC?: number
  /** Oxygen at the start, mg/L; saturation where left out. */
  startMgL?: number
  hasBinder?: boolean
}

export interface VesselLimit {
  /** By careful assumptions, whole minutes: what the alarm goes by. */
  minutes: number
  likely: number
  binds: VesselBinds
}

/** Activity, nitrogen a unit of oxygen, and exchange with the air (1/h) still and aerated: assumptions of ours. */
const careful = { activity: 2.2, ammoniaQuotient: 0.27, stillPerH: 0.2, airPerH: 2 }
const likely = { activity: 1.3, ammoniaQuotient: 0.15, stillPerH: 0.5, airPerH: 4 }
/** Oxygen crosses the surface by so much faster than carbon dioxide. */
const oxygenTimes = 1.1

/**
 * How long a vessel bears its fish before oxygen, ammonia, the way back into a tank or plain time is at its house limit.
 * @throws RangeError when it holds no water.
 * @example vesselLimit({ litres: 12, tempC: 25, ph: 7.6, air: false, fish: [{ n: 3, massG: 60 }] }, standardLimits) // 60 min, time
 */
export function vesselLimit(vessel: StoodVessel, limits: Limits): VesselLimit {
  if (vessel.kind === 'box') {
    const minutes = limits.boxDays * 1440
    return { minutes, likely: minutes, binds: 'time' }
  }
  if (!(vessel.litres > 0)) throw new RangeError(`A vessel holds more than ${vessel.litres} L`)
  const [worst, best] = [minutesBy(vessel, careful, limits), minutesBy(vessel, likely, limits)]
  const least = Math.min(...Object.values(worst))
  return { minutes: Math.floor(least), likely: Math.floor(Math.min(...Object.values(best))), binds: vesselBinds.find((each) => worst[each] <= least) ?? 'time' }
}

function minutesBy({ litres, tempC, salinityPpt = 0, ph = null, air, fish, tolerance = 'normal', roomC, startMgL, hasBinder = false }: StoodVessel, by: typeof careful, limits: Limits): Record<VesselBinds, number> {
  const saturationMgL = oxygenSaturationMgL(salinityPpt, tempC)
  const { oxygen, nh3, tempRise, tempFall } = limitsFor(limits, tolerance, saturationMgL)
  const demandMgLH = fish.reduce((sum, { n, massG }) => sum + n * massG * oxygenDemandMgGH(massG, tempC, by.activity), 0) / litres
  const exchangePerH = oxygenTimes * (air ? by.airPerH : by.stillPerH)
  const tanPerH = demandMgLH * nitrogenPerOxygen(by.ammoniaQuotient)
  const gap = Math.abs((roomC ?? limits.roomAirC) - tempC)
  const drift = (roomC ?? limits.roomAirC) < tempC ? tempRise : tempFall
  return {
    oxygen: 60 * hoursToOxygen(oxygen, startMgL ?? saturationMgL, { saturationMgL, exchangePerH, demandMgLH }),
    ammonia: ph === null || hasBinder || tanPerH <= 0 ? Infinity : (60 * nh3) / (unionisedPercent(ph, tempC, salinityPpt) / 100) / tanPerH,
    temperature: gap <= drift ? Infinity : -usualBucketTauMin * Math.log(1 - drift / gap),
    time: air ? limits.vesselAirMinutes : limits.vesselStillMinutes,
  }
}
