import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import type { Limits } from '../limits/houseLimits'
import { unionisedPercent } from '../water/ammonia'
import { hashOf } from '../words/hashOf'
import { estimateWater } from './estimateWater'
import type { RunRecord } from './runRecord'

/** One reading of a bench meter. */
export interface MeterReading {
  tempC: number
  salinityPpt: number
  ph: number
  tanMgL: number
}
/** What any meter on the bench answers, real or simulated. */
export interface BenchMeter {
  isSimulated: boolean
  read(run: RunRecord, nowMs: number): MeterReading | null
}

/** Share of the planned flow that really runs in the simulated vessel: airlines mostly run slow. */
const flowShares = [0.6, 1.1] as const
const noise = { tempC: 0.1, salinityPpt: 0.2, ph: 0.03, tan: 0.05 } as const
/** Drift in an hour without calibration. */
const driftPerHour = { ph: 0.01, salinityPpt: 0.05 } as const

/**
 * A stand-in for a bench meter: it reads a vessel that the model follows with a flow of its own, with noise and drift.
 * The same run at the same moment reads the same. Marked as simulated wherever it is shown.
 */
export function createSimulatedMeter(limits: Limits): BenchMeter {
  return {
    isSimulated: true,
    read(run, nowMs) {
      const random = xoroshiro128plus(hashOf(run.id))
      const flowFactor = flowShares[0] + (flowShares[1] - flowShares[0]) * uniformFloat64(random)
      // The vessel goes its own way, whatever was read in it.
      const unread = { ...run, events: run.events.filter(({ kind }) => kind !== 'reading') }
      const { now } = estimateWater(unread, limits, nowMs, { flowFactor })
      if (!now) return null
      const shaken = xoroshiro128plus(hashOf(`${run.id}${Math.floor(nowMs / 1000)}`))
      const wobble = (sd: number): number => sd * (uniformFloat64(shaken) + uniformFloat64(shaken) + uniformFloat64(shaken) - 1.5) * 2
      const hours = (nowMs - run.startedAtMs) / 3_600_000
      const tanMgL = (100 * now.unionisedMgL) / unionisedPercent(now.ph, now.tempC, now.salinityPpt)
      const round = (value: number, digits: number): number => Number(value.toFixed(digits))
      return {
        tempC: round(now.tempC + wobble(noise.tempC), 1),
        salinityPpt: round(Math.max(0, now.salinityPpt + wobble(noise.salinityPpt) + (now.salinityPpt > 2 ? driftPerHour.salinityPpt * hours : 0)), 1),
        ph: round(now.ph + wobble(noise.ph) + driftPerHour.ph * hours, 2),
        tanMgL: round(Math.max(0, tanMgL * (1 + wobble(noise.tan))), 2),
      }
    },
  }
}
