import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { hashOf } from '../words/hashOf'
import { measureRules, type Probe, type ProbedWater, type ProbeMeasure, type TankProbes } from './probe'

const [minuteMs, dayMs] = [60_000, 86_400_000]
/** What a water is at where nobody says. */
const usual: Readonly<Record<ProbeMeasure, (water: ProbedWater) => number>> = {
  tempC: () => 25,
  ph: ({ kind }) => (kind === 'fresh' ? 7.5 : 8.1),
  salinityPpt: ({ kind }) => ({ fresh: 0.3, brackish: 10, marine: 34 })[kind],
}
/** How far a day and its lamps move it, and what a probe drifts a day by itself. */
const daily: Readonly<Record<ProbeMeasure, number>> = { tempC: 0.35, ph: 0.12, salinityPpt: 0.1 }
const driftPerDay: Readonly<Record<ProbeMeasure, number>> = { tempC: 0.002, ph: 0.005, salinityPpt: 0.01 }
/** One that needs to be calibrated drifts so many times as fast. */
const badDrift = 250
/** One sample in so many stays away. */
const gapShare = 0.02

/**
 * Stand-ins for probes in tanks: the water as it is kept, moved by the day, with noise, drift and gaps, and with a fault
 * where one is asked for. A probe of one name at one moment reads the same in every room. Marked as simulated wherever it is shown.
 */
export const simulatedProbes: TankProbes = {
  isSimulated: true,
  read({ name, measure, fault, addedAtMs }: Probe, water, nowMs) {
    const random = xoroshiro128plus(hashOf(`${name} ${Math.floor(nowMs / minuteMs)}`))
    if (fault === 'silent' || uniformFloat64(random) < gapShare) return null
    const { sd, digits, jump } = measureRules[measure]
    const base = water[measure] ?? usual[measure](water)
    const round = (value: number): number => Number(Math.max(0, value).toFixed(digits))
    if (fault === 'stuck') return round(base + daily[measure])
    const wave = daily[measure] * Math.sin((2 * Math.PI * (nowMs % dayMs)) / dayMs)
    const noise = sd * (uniformFloat64(random) + uniformFloat64(random) + uniformFloat64(random) - 1.5)
    const drift = driftPerDay[measure] * ((nowMs - addedAtMs) / dayMs) * (fault === 'drifts' ? badDrift : 1)
    const leap = fault === 'jumps' ? (uniformFloat64(random) < 0.5 ? 3 * jump : 0) : 0
    return round(base + wave + noise + drift + leap)
  },
}
