/** A reading during a run: minutes since the flow began, and the figure. */
export type Reading = readonly [min: number, value: number]

export interface Refit {
  /** Effective flow over volume (overflow) or over starting volume (fill), 1/min. */
  k: number
  standardError: number
  /** Figure the fit gives at the last reading. */
  now: number
}

type Kind = 'overflow' | 'fill'
/** Spread of a single reading where there is no more to judge by, ppt². */
const singleVariance = 0.25

const model = (kind: Kind, k: number, t: number, from: number, to: number): number => (kind === 'overflow' ? to + (from - to) * Math.exp(-k * t) : to + (from - to) / (1 + k * t))
const slope = (kind: Kind, k: number, t: number, from: number, to: number): number => (kind === 'overflow' ? -(from - to) * t * Math.exp(-k * t) : (-(from - to) * t) / (1 + k * t) ** 2)

/** Where to begin: weighted straight line through the linearised readings on the right side of the aim. */
function firstGuess(kind: Kind, readings: readonly Reading[], from: number, to: number): number {
  let [above, under] = [0, 0]
  for (const [t, c] of readings) {
    if (t <= 0 || !((c - to) / (from - to) > 0)) continue
    const weight = kind === 'overflow' ? (c - to) ** 2 : (c - to) ** 4
    above += weight * t * (kind === 'overflow' ? -Math.log((c - to) / (from - to)) : (from - to) / (c - to) - 1)
    under += weight * t * t
  }
  return under > 0 ? Math.max(0, above / under) : NaN
}

/**
 * Fits the true pace of a run to its readings, so that the end moves with what really flows.
 * @returns null when no reading says anything: all at the start, or on the wrong side of the aim.
 */
export function refitRun(kind: Kind, readings: readonly Reading[], from: number, to: number): Refit | null {
  let k = firstGuess(kind, readings, from, to)
  if (!Number.isFinite(k) || readings.length === 0) return null
  const squares = (at: number): number => readings.reduce((sum, [t]) => sum + slope(kind, at, t, from, to) ** 2, 0)
  for (let step = 0; step < 50; step += 1) {
    const change = readings.reduce((sum, [t, c]) => sum + slope(kind, k, t, from, to) * (c - model(kind, k, t, from, to)), 0) / squares(k)
    if (!Number.isFinite(change)) return null
    k = Math.max(0, k + change)
    if (Math.abs(change) < 1e-12 * Math.max(1, k)) break
  }
  const error = readings.reduce((sum, [t, c]) => sum + (c - model(kind, k, t, from, to)) ** 2, 0)
  const variance = readings.length > 1 ? error / (readings.length - 1) : singleVariance
  const last = Math.max(...readings.map(([t]) => t))
  return { k, standardError: Math.sqrt(variance / squares(k)), now: model(kind, k, last, from, to) }
}

/** Minutes from the last reading until the figure is near enough, at the fitted pace and at its 95 % range; Infinity when nothing flows. */
export function remainingMin(kind: Kind, fit: Refit, readings: readonly Reading[], from: number, to: number, within: number): { likely: number; soonest: number; latest: number } {
  const last = Math.max(...readings.map(([t]) => t))
  const total = (k: number): number => {
    if (!(k > 0)) return Infinity
    const gap = Math.abs(from - to) / within
    return kind === 'overflow' ? Math.log(gap) / k : (gap - 1) / k
  }
  const left = (k: number): number => Math.max(0, total(k) - last)
  return { likely: left(fit.k), soonest: left(fit.k + 1.96 * fit.standardError), latest: left(fit.k - 1.96 * fit.standardError) }
}
