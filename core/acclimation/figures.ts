import type { Limits } from '../limits/houseLimits'
import type { Tolerance } from '../setup/words'
import type { Series } from './runFast'
import { doseFloorMgL } from './summariseRun'

/** What a method does to the fish, in the figures that have limits. */
export interface Figures {
  /** Highest un-ionised ammonia, mg N/L. */
  peakMgL: number
  /** Dose above 0.02, mg·min/L. */
  doseAboveFloor: number
  tempRiseC: number
  tempFallC: number
  salinityRisePpt: number
  salinityFallPpt: number
  /** Change of the pH the water has by itself. */
  ownPh: number
  /** Change of pH that only carbon dioxide explains. */
  co2Ph: number
  /** Largest change of salinity in an hour; counts in crossings and near them. */
  salinityPerHour: number
  lowestOxygenMgL: number
  minutes: number
  /** Tank water used in one vessel. */
  litres: number
}

const slack = 1e-6

/** Largest rise and fall of a column inside a window; moments stand in time order. */
function largestSteps(atMin: Float64Array, column: Float64Array, length: number, windowMin: number): { rise: number; fall: number } {
  let [rise, fall, first] = [0, 0, 0]
  for (let last = 1; last < length; last += 1) {
    const [time, value] = [atMin[last] as number, column[last] as number]
    while (time - (atMin[first] as number) > windowMin + slack) first += 1
    for (let index = first; index < last; index += 1) {
      const by = value - (column[index] as number)
      if (by > rise) rise = by
      else if (-by > fall) fall = -by
    }
  }
  return { rise, fall }
}

/** Reads the figures off a run. */
export function figuresOf(series: Series, litres: number): Figures {
  const { length, atMin, unionisedMgL } = series
  let [peakMgL, doseAboveFloor, lowestOxygenMgL] = [0, 0, Infinity]
  for (let index = 0; index < length; index += 1) {
    const value = unionisedMgL[index] as number
    if (value > peakMgL) peakMgL = value
    const oxygen = series.oxygenMgL[index] as number
    if (oxygen < lowestOxygenMgL) lowestOxygenMgL = oxygen
    if (index === 0) continue
    const [before, after] = [Math.max(0, (unionisedMgL[index - 1] as number) - doseFloorMgL), Math.max(0, value - doseFloorMgL)]
    doseAboveFloor += ((before + after) / 2) * ((atMin[index] as number) - (atMin[index - 1] as number))
  }
  const temp = largestSteps(atMin, series.tempC, length, 5)
  const salinity = largestSteps(atMin, series.salinityPpt, length, 5)
  const own = largestSteps(atMin, series.ownPh, length, 5)
  const co2 = largestSteps(atMin, series.co2Ph, length, 5)
  const hour = largestSteps(atMin, series.salinityPpt, length, 60)
  return {
    ...{ peakMgL, doseAboveFloor, lowestOxygenMgL, litres },
    ...{ tempRiseC: temp.rise, tempFallC: temp.fall, salinityRisePpt: salinity.rise, salinityFallPpt: salinity.fall },
    ...{ ownPh: Math.max(own.rise, own.fall), co2Ph: Math.max(co2.rise, co2.fall), salinityPerHour: Math.max(hour.rise, hour.fall) },
    minutes: length > 0 ? (atMin[length - 1] as number) : 0,
  }
}

/** What may bind, each against its limit. */
export const limitNames = ['nh3', 'dose', 'T', 'S', 'own', 'co2', 'do', 'Shr'] as const
export type LimitName = (typeof limitNames)[number]
export type Ratios = Record<LimitName, number>

/** How much of a limit a species bears. */
const factors: Record<Tolerance, { usual: number; co2: number; oxygen: 'oxygenHardy' | 'oxygenNormal' | 'oxygenDelicate' | 'oxygenVeryDelicate' }> = {
  hardy: { usual: 1.25, co2: 1.15, oxygen: 'oxygenHardy' },
  normal: { usual: 1, co2: 1, oxygen: 'oxygenNormal' },
  delicate: { usual: 0.7, co2: 0.85, oxygen: 'oxygenDelicate' },
  'very delicate': { usual: 0.5, co2: 0.7, oxygen: 'oxygenVeryDelicate' },
}

/** The limits for one species in one tank: the house's, times what it bears. */
export interface SpeciesLimits {
  nh3: number
  dose: number
  tempRise: number
  tempFall: number
  salinityRise: number
  salinityFall: number
  own: number
  co2: number
  perHour: number
  oxygen: number
  /** Oxygen of the tank in balance with air. */
  saturation: number
}

export function limitsFor(limits: Limits, tolerance: Tolerance, saturation: number): SpeciesLimits {
  const { usual, co2, oxygen } = factors[tolerance]
  return {
    ...{ nh3: limits.peakNh3 * usual, dose: limits.doseNh3 * usual, tempRise: limits.tempRise * usual, tempFall: limits.tempFall * usual },
    ...{ salinityRise: limits.salinityRise * usual, salinityFall: limits.salinityFall * usual, own: limits.ownPh * usual, co2: limits.co2Ph * co2, perHour: limits.salinityPerHour * usual },
    oxygen: Math.min(limits[oxygen], 0.8 * saturation),
    saturation,
  }
}

/**
 * Each figure over its limit; 1 is the limit. Oxygen counts by how far it falls from saturation towards its limit.
 * @param perHour - most that an hour may move the salinity by, ppt; Infinity where hours do not count.
 */
export function ratiosOf(figures: Figures, limits: SpeciesLimits, perHour: number): Ratios {
  return {
    nh3: figures.peakMgL / limits.nh3,
    dose: figures.doseAboveFloor / limits.dose,
    T: Math.max(figures.tempRiseC / limits.tempRise, figures.tempFallC / limits.tempFall),
    S: Math.max(figures.salinityRisePpt / limits.salinityRise, figures.salinityFallPpt / limits.salinityFall),
    own: figures.ownPh / limits.own,
    co2: figures.co2Ph / limits.co2,
    do: Math.max(0, (limits.saturation - figures.lowestOxygenMgL) / (limits.saturation - limits.oxygen)),
    Shr: figures.salinityPerHour / perHour,
  }
}

/** The largest of the ratios: how near the method comes to a limit, whichever. */
export const worstRatio = (ratios: Ratios): number => Math.max(...limitNames.map((name) => ratios[name]))
