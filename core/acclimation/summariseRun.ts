import type { VesselMoment } from './vessel'

/** Floor above which the dose of un-ionised ammonia counts, mg N/L. */
export const doseFloorMgL = 0.02
const windowMin = 5

export interface RunSummary {
  end: VesselMoment
  minutes: number
  /** Highest un-ionised ammonia, mg N/L, the tank's water included. */
  peakMgL: number
  /** mg·min/L. */
  dose: number
  /** The same above `doseFloorMgL`. */
  doseAboveFloor: number
  /** Minutes until un-ionised ammonia first reaches 0.02, 0.05 and 0.1 mg N/L; Infinity when never. */
  reaches: { 0.02: number; 0.05: number; 0.1: number }
  /** Largest spread inside any five minutes, the step into the tank included. */
  spread: { tempC: number; ph: number; salinityPpt: number }
  lowestOxygenMgL: number
}

/** Trapezoid over the moments of a run. */
const integral = (moments: readonly VesselMoment[], of: (moment: VesselMoment) => number): number =>
  moments.slice(1).reduce((sum, moment, index) => {
    const before = moments[index] as VesselMoment
    return sum + ((of(moment) + of(before)) / 2) * (moment.atMin - before.atMin)
  }, 0)

function firstReach(moments: readonly VesselMoment[], level: number): number {
  for (const [index, moment] of moments.entries()) {
    if (moment.unionisedMgL < level) continue
    const before = moments[index - 1]
    if (!before) return moment.atMin
    const rise = moment.unionisedMgL - before.unionisedMgL
    return before.atMin + (rise > 0 ? ((level - before.unionisedMgL) / rise) * (moment.atMin - before.atMin) : 0)
  }
  return Infinity
}

/** Largest difference of a figure inside any window. */
function largestSpread(moments: readonly VesselMoment[], of: (moment: VesselMoment) => number): number {
  let largest = 0
  moments.forEach((moment, index) => {
    for (let back = index - 1; back >= 0; back -= 1) {
      const before = moments[back] as VesselMoment
      if (moment.atMin - before.atMin > windowMin + 1e-9) break
      largest = Math.max(largest, Math.abs(of(moment) - of(before)))
    }
  })
  return largest
}

/** Sums a run up in the figures that are compared. */
export function summariseRun(moments: readonly VesselMoment[]): RunSummary {
  const end = moments.at(-1)
  if (!end) throw new RangeError('a run has at least one moment')
  return {
    end,
    minutes: end.atMin,
    peakMgL: Math.max(...moments.map((moment) => moment.unionisedMgL)),
    dose: integral(moments, (moment) => moment.unionisedMgL),
    doseAboveFloor: integral(moments, (moment) => Math.max(0, moment.unionisedMgL - doseFloorMgL)),
    reaches: { 0.02: firstReach(moments, 0.02), 0.05: firstReach(moments, 0.05), 0.1: firstReach(moments, 0.1) },
    spread: { tempC: largestSpread(moments, (moment) => moment.tempC), ph: largestSpread(moments, (moment) => moment.ph), salinityPpt: largestSpread(moments, (moment) => moment.salinityPpt) },
    lowestOxygenMgL: Math.min(...moments.map((moment) => moment.oxygenMgL)),
  }
}
