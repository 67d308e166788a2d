import type { PackedBag } from '../bag/closedBag'
import type { Tolerance } from '../setup/words'
import { crossingGapPpt, gradedFromPpt, longestSchoolMin, minutesOf, schools, type School } from './schools'
import type { PhInstrument, SalinityInstrument } from './instruments'

/** Kinds of supplier's water, for whatever nobody told or measured. */
export const waterClasses = ['marine', 'brackish', 'hard', 'soft'] as const
export type WaterClass = (typeof waterClasses)[number]

export interface ClassWater {
  salinityPpt: { mean: number; sd: number; low: number; high: number }
  ph: { mean: number; sd: number }
  alkalinityMeqL: readonly [low: number, likely: number, high: number]
}
/** House guidance on what suppliers ship in. */
export const classWater: Record<WaterClass, ClassWater> = {
  marine: { salinityPpt: { mean: 32, sd: 2, low: 27, high: 37 }, ph: { mean: 8.1, sd: 0.1 }, alkalinityMeqL: [2.2, 2.6, 3.5] },
  brackish: { salinityPpt: { mean: 9, sd: 4, low: 0.05, high: 19 }, ph: { mean: 7.9, sd: 0.2 }, alkalinityMeqL: [1.2, 2.4, 4] },
  hard: { salinityPpt: { mean: 0.4, sd: 0, low: 0.4, high: 0.4 }, ph: { mean: 7.7, sd: 0.25 }, alkalinityMeqL: [1.8, 3, 5] },
  soft: { salinityPpt: { mean: 0.1, sd: 0, low: 0.1, high: 0.1 }, ph: { mean: 6.7, sd: 0.3 }, alkalinityMeqL: [0.2, 0.6, 1.4] },
}

/** How far the guessed temperature of a bag may be off, by what it was guessed from, °C. */
export const guessSds = { skin: 1.5, 'their tank': 1, 'other bags': 1, packs: 2, 'room air': 3 } as const
export type GuessedFrom = keyof typeof guessSds

/** What the house does beside the plain schools. Left out: everything, with two settings of an overflow's valve at any hour. */
export interface Practice {
  /** Floats with a towel or a second bag around it, where temperature is what binds. */
  slowsFloats: boolean
  /** Holds ordinary schools to a limit for each hour from a gap of 6 ppt on, and stretches them to meet it. */
  gradesHours: boolean
  /** Settings of an overflow's valve; 0 sets it every hour. */
  valveSettings: number
  /** When people are there to set a valve; null at any hour. Hours of the day, the first of which may lie after the last. */
  people: { fromHour: number; untilHour: number; startHour: number } | null
}
export const usualPractice: Practice = { slowsFloats: true, gradesHours: true, valveSettings: 2, people: null }

/** What is asked: these bags into that tank. */
export interface AcclimationQuestion {
  waterClass: WaterClass
  /** What the supplier said of the water. */
  told: { salinityPpt?: number; ph?: number; alkalinityMeqL?: number }
  /** What was read in the opened bag. */
  measured: { tempC?: number; salinityPpt?: number; ph?: number; phBy?: PhInstrument; salinityBy?: SalinityInstrument; tanMgL?: number; alkalinityMeqL?: number }
  /** Temperature of the bag's water by guess or by its skin, where it was not measured. */
  guessedC: number
  /** What it was guessed from; its skin while left out. */
  guessedFrom?: GuessedFrom
  bag: Pick<PackedBag, 'fish' | 'massG' | 'waterL' | 'gasL' | 'hours' | 'packedC' | 'transitC' | 'oxygenAtm' | 'headspacePco2Uatm'>
  /** Bags of one species and source. */
  bags: number
  isFed: boolean
  hasSpareTank: boolean
  tank: { tempC: number; salinityPpt: number; alkalinityMeqL: number; ph: number }
  /** A tank made ready for this delivery: the target of every school. */
  prepared: { tempC: number; salinityPpt: number } | null
  tolerance: Tolerance
  roomC: number
  roomPco2Uatm: number
  practice?: Practice
}
export const practiceOf = ({ practice }: Pick<AcclimationQuestion, 'practice'>): Practice => practice ?? usualPractice

/** The water fish go into. */
export const targetOf = ({ tank, prepared }: AcclimationQuestion) => ({ ...tank, ...(prepared ?? {}) })
/** Salinity and temperature to reckon with where one figure is wanted: measured, else told, else usual. */
export function nominalOf({ measured, told, waterClass, guessedC }: AcclimationQuestion): { salinityPpt: number; tempC: number } {
  return { salinityPpt: measured.salinityPpt ?? told.salinityPpt ?? classWater[waterClass].salinityPpt.mean, tempC: measured.tempC ?? guessedC }
}
/** Answers whether the water that fish go into is saltier than theirs. */
export const isToSaltier = (question: AcclimationQuestion): boolean => targetOf(question).salinityPpt > nominalOf(question).salinityPpt
export const gapPpt = (question: AcclimationQuestion): number => Math.abs(nominalOf(question).salinityPpt - targetOf(question).salinityPpt)

export const situations = ['crossing', 'prepared', 'singles', 'long', 'delicate', 'short', 'medium'] as const
export type Situation = (typeof situations)[number]

/** Names what kind of delivery it is, the first that fits. */
export function situationOf(question: AcclimationQuestion): Situation {
  const { bags, bag, tolerance, prepared } = question
  if (gapPpt(question) > crossingGapPpt) return 'crossing'
  if (prepared) return 'prepared'
  if (bags >= 8) return 'singles'
  if (bag.hours >= 8) return 'long'
  if (tolerance === 'delicate' || tolerance === 'very delicate') return 'delicate'
  return bag.hours < 2 ? 'short' : 'medium'
}

/** Which school the house takes first where several will do. Aerated drip stands in none: it is for oxygen only. */
export const houseOrders: Record<Situation, { order: readonly string[]; why: string }> = {
  crossing: { order: ['ramp', 'overflow', 'matched', 'netOver', 'siphon', 'drip', 'rapid', 'step', 'straight'], why: 'days are safer than hours, hours than minutes' },
  prepared: { order: ['matched', 'netOver', 'siphon', 'step', 'drip', 'rapid', 'straight'], why: 'the water is already right' },
  singles: { order: ['pooled', 'netOver', 'siphon', 'step', 'drip', 'rapid', 'straight'], why: 'it saves hands and time' },
  long: { order: ['netOver', 'siphon', 'step', 'drip', 'rapid', 'straight'], why: 'least time is spent in opened bag water' },
  delicate: { order: ['drip', 'netOver', 'siphon', 'step', 'rapid', 'straight'], why: 'there is little ammonia, so the steps are spread' },
  short: { order: ['straight', 'netOver', 'drip', 'siphon', 'step', 'rapid'], why: 'the choice matters little, so least handling' },
  medium: { order: ['netOver', 'drip', 'siphon', 'step', 'rapid', 'straight'], why: 'nothing asks for another' },
}
/** Schools that a house takes first, by situation, where it has chosen one of its own mind. */
export type HouseDefaults = Partial<Record<Situation, string>>
/** The order in force: what the house chose goes before what is usual, crossings where only hours ask for them after all others. */
export function orderFor(situation: Situation, defaults: HouseDefaults = {}, hasHours = false): readonly string[] {
  const order = [...houseOrders[situation].order, ...(hasHours && situation !== 'crossing' ? ['ramp', 'overflow'] : [])]
  const first = defaults[situation]
  return first === undefined ? order : [first, ...order.filter((key) => key !== first)]
}
export const situationWords: Record<Situation, string> = { crossing: 'a crossing', prepared: 'a prepared tank', singles: 'many bags of one fish', long: 'long trips', delicate: 'delicate fish', short: 'short trips', medium: 'trips of some hours' }

/** Schools on offer for a delivery, out of the house's; one that goes on for longer than it can be followed is not. */
export function offeredSchools(question: AcclimationQuestion, all: readonly School[] = schools): School[] {
  const hasGap = gapPpt(question) > (practiceOf(question).gradesHours ? gradedFromPpt : crossingGapPpt)
  return all.filter(({ needs, steps }) => {
    if (minutesOf(steps) > longestSchoolMin) return false
    if (needs === 'prepared tank') return question.prepared !== null
    if (needs === 'five bags') return question.bags >= 5
    if (needs === 'gap') return hasGap
    return needs === 'gap and spare tank' ? hasGap && question.hasSpareTank : true
  })
}
