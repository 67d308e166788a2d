import type { Water } from '../room/room.schema'

/** What a probe in a tank measures. */
export const probeMeasures = ['tempC', 'ph', 'salinityPpt'] as const
export type ProbeMeasure = (typeof probeMeasures)[number]

/** What a stand-in does, so that a house can see how a fault is told. */
export const probeFaults = ['none', 'silent', 'stuck', 'drifts', 'jumps'] as const
export type ProbeFault = (typeof probeFaults)[number]

/** A probe as it hangs in a tank. */
export interface Probe {
  id: string
  name: string
  tankId: string
  measure: ProbeMeasure
  /** How often it is asked. */
  everyMin: number
  fault: ProbeFault
  addedAtMs: number
}
/** The water around it, and what that is kept at. */
export interface ProbedWater {
  kind: Water
  tempC: number | null
  ph: number | null
  salinityPpt: number | null
}
/** What a probe answered: a figure, or nothing. */
export interface ProbeSample {
  atMs: number
  value: number | null
}
/** What any probe answers, real or simulated. */
export interface TankProbes {
  isSimulated: boolean
  /** Null where it did not answer. */
  read(probe: Probe, water: ProbedWater, nowMs: number): number | null
}

/** Spread of one sample, what is impossible, and what no water does between two samples: house guidance. */
export const measureRules: Readonly<Record<ProbeMeasure, { label: string; sd: number; min: number; max: number; jump: number; digits: number }>> = {
  tempC: { label: 'temperature', sd: 0.1, min: 2, max: 42, jump: 2, digits: 2 },
  ph: { label: 'pH', sd: 0.05, min: 3.5, max: 10.5, jump: 0.8, digits: 2 },
  salinityPpt: { label: 'salinity', sd: 0.3, min: 0, max: 45, jump: 3, digits: 1 },
}
