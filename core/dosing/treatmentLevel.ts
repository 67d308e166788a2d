/** One moment of a treatment; within it the dose comes first, then the change, then the reading. */
export interface TreatmentEvent {
  /** Hours since the beginning. */
  atH: number
  doseMg?: number
  change?: { share: number; freshMgL?: number }
  /** Measured level, mg/L, and its standard deviation: the kit's spread, not its printed resolution. */
  readingMgL?: number
  readingSd?: number
}

export interface Treatment {
  volumeL: number
  /** Loss by adsorption and breakdown, 1/h. */
  lossPerH: number
  startMgL: number
  startSd: number
  /** How exactly a dose is measured out, as a share of it. */
  doseRelativeSd: number
  /** Variance that the level gains on its own, (mg/L)² per hour. */
  driftPerH: number
}

export interface Level {
  mgL: number
  sd: number
}

/**
 * Follows the level of one well-mixed substance through doses, changes and readings (scalar Kalman filter). A dose is never
 * prompted from the model alone when the last reading is older than a day.
 * @param events - in time order.
 * @throws RangeError when they are not.
 */
export function treatmentLevel({ volumeL, lossPerH, startMgL, startSd, doseRelativeSd, driftPerH }: Treatment, events: readonly TreatmentEvent[]): Level {
  let [level, variance, atH] = [startMgL, startSd ** 2, events[0]?.atH ?? 0]
  for (const event of events) {
    const hours = event.atH - atH
    if (hours < 0) throw new RangeError(`events must be in time order; ${event.atH} h comes after ${atH} h`)
    level *= Math.exp(-lossPerH * hours)
    variance = variance * Math.exp(-2 * lossPerH * hours) + driftPerH * hours
    atH = event.atH
    if (event.doseMg !== undefined) {
      level += event.doseMg / volumeL
      variance += ((doseRelativeSd * event.doseMg) / volumeL) ** 2
    }
    if (event.change) {
      level = level * (1 - event.change.share) + event.change.share * (event.change.freshMgL ?? 0)
      variance *= (1 - event.change.share) ** 2
    }
    if (event.readingMgL !== undefined) {
      const noise = (event.readingSd ?? 0) ** 2
      const gain = variance + noise > 0 ? variance / (variance + noise) : 0
      level += gain * (event.readingMgL - level)
      variance *= 1 - gain
    }
  }
  return { mgL: level, sd: Math.sqrt(variance) }
}

/** Loss constant (1/h) from readings with no dose between: slope of their logarithms. Readings of 0 or below say nothing. */
export function lossFromReadings(readings: readonly (readonly [atH: number, mgL: number])[]): number {
  const points = readings.filter(([, level]) => level > 0).map(([atH, level]) => [atH, Math.log(level)] as const)
  const mean = (of: (point: readonly [number, number]) => number): number => points.reduce((sum, point) => sum + of(point), 0) / points.length
  const [time, log] = [mean(([t]) => t), mean(([, y]) => y)]
  const spread = points.reduce((sum, [t]) => sum + (t - time) ** 2, 0)
  return spread > 0 ? -points.reduce((sum, [t, y]) => sum + (t - time) * (y - log), 0) / spread : NaN
}
