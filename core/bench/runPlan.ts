import type { AcclimationQuestion } from '../acclimation/question'
import type { Handling, School } from '../acclimation/schools'
import { showSet, type DisplayUnits } from '../units/units'

/** What a run is for. */
export const runKinds = ['acclimation', 'bath', 'dip', 'look'] as const
export type RunKind = (typeof runKinds)[number]
export const runKindWords: Record<RunKind, string> = { acclimation: 'acclimating', bath: 'first-response bath', dip: 'entry dip', look: 'look through the bag' }

/** What happens to the water around the fish in a step; a stretch lasts as long as the step's timer. */
export type WaterDeed =
  | { do: 'dump'; share: number }
  | { do: 'add'; litres: number }
  | { do: 'pour' }
  | { do: 'into'; litres: number; salinityPpt: number; /** That of the tank while left out. */ tempC?: number }
  | { do: 'transfer' }
  | { do: 'wait'; handling: Handling | 'sealed'; isNearRoom: boolean }
  | { do: 'fill' | 'overflow'; litres: number; handling: Handling; isNearRoom: boolean }

/** One thing a person does on the bench, with the timer that follows. */
export interface RunStep {
  title: string
  detail: string
  /** Timer; null when the step is over with the touch that says so. */
  minutes: number | null
  water: WaterDeed[]
  /** Water in the vessel once the step is over, L. */
  endL: number
  /** Where the fish are once the step is done. */
  fish: 'bag' | 'vessel' | 'tank'
  /** Fish are counted out with this step. */
  countsOut: boolean
  /** A step of a tank brought to another salinity over days, and what it reaches. */
  toPpt: number | null
  /** What the tank has to read before this step may end; left out where nothing is asked. */
  gate?: { salinityPpt: number; withinPpt: number }
}

/** A run as it was meant when it began; kept for good, whatever really happened. */
export interface RunPlan {
  kind: RunKind
  school: School | null
  question: AcclimationQuestion
  /** Whether a binder is at work: figures for ammonia are then withheld. */
  hasBinder: boolean
  vessel: string
  vesselL: number
  dropsPerMl: number
  isDark: boolean
  /** What was poured together: water of one bag, or of all of them. */
  startL: number
  biomassG: number
  steps: RunStep[]
  /** The sentence it was recommended with; null when somebody chose otherwise. */
  sentence: string | null
  /** Which limit was nearest, and how near (1 is the limit). */
  predicted: { worst: number; binds: string } | null
}

/** Answers whether a run changes the water of the tank it goes to: before its fish come, or around them over days. */
export function changesTankWater({ steps, question }: Pick<RunPlan, 'steps' | 'question'>): boolean {
  return isMadeReady({ question }) || steps.some(({ gate, toPpt, fish }) => gate !== undefined || (toPpt !== null && fish === 'tank'))
}

/** Answers whether the tank was made to match this delivery: all fish of its crate may share it. */
export function isMadeReady({ question }: Pick<RunPlan, 'question'>): boolean {
  const { prepared, tank } = question ?? {}
  return Boolean(prepared && tank && (Math.abs(prepared.salinityPpt - tank.salinityPpt) > samePpt || Math.abs(prepared.tempC - tank.tempC) > sameC))
}
/** Waters nearer than this are the same. */
const [samePpt, sameC] = [0.3, 0.5]

/** Minutes that all timers of a plan take from a step on. */
export const minutesFrom = (steps: readonly RunStep[], from: number): number => steps.slice(from).reduce((sum, { minutes }) => sum + (minutes ?? 0), 0)

/** More than any vessel: it stands for a tank. */
const leastTankL = 1000
/** The most a vessel holds on the way, L; a tank at the end of it does not count. */
export const mostLitres = (startL: number, steps: readonly Pick<RunStep, 'endL'>[]): number => Math.max(startL, ...steps.map(({ endL }) => (endL < leastTankL ? endL : 0)))

/** Size of a vessel, in the unit people see. */
export const vesselWords = (vesselL: number, units: DisplayUnits): string => showSet('volume', vesselL, units)

/** Volumes that vessels come in, L. */
const vesselSizes = [1, 2, 3, 5, 8, 10, 12, 15, 20, 25, 30, 40, 60, 80, 100]
/** A vessel that holds what a run ends with, with room to spare, L. */
export const vesselFor = (endL: number): number => vesselSizes.find((size) => size >= endL * 1.3) ?? Math.ceil((endL * 1.3) / 50) * 50

/** Names the step by which fish leave their water: over the net, or by cup where they must not come into air. */
export const goOver = (isUnderWater: boolean | undefined, to: string): string => `${isUnderWater ? 'By cup' : 'Net over'} into ${to}`
