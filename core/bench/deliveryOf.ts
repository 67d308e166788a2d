import { usualPractice, type Practice } from '../acclimation/question'
import type { Limits } from '../limits/houseLimits'
import { releaseStep, type Triage } from '../crates/triage'
import { showFigure, type DisplayUnits } from '../units/units'
import type { Delivery } from './adviseDelivery'
import { toQuestion, type BagFigures, type BagWords } from './bagFigures'
import { isWaterClass, readApart, waterOfBag, type BagWater, type WaterFacts } from './waterOfBag'

/** What is known of a delivery beside its figures. */
export interface DeliveryFacts extends Pick<Delivery, 'kinds' | 'triage' | 'tankWater' | 'tankAgents' | 'isOneWater' | 'hoursSaid'> {
  /** Names of the species, for sentences. */
  speciesName: string
  waterFacts: WaterFacts
  /** What the bags read, lowest and highest; left out where none was. */
  readPpt?: readonly [low: number, high: number] | undefined
  readC?: readonly [low: number, high: number] | undefined
}

/**
 * Puts a delivery together from what is known and from its figures as they stand: read, told, looked up or typed over.
 * @param isClassTyped - whether a person said which water it is; of bags that read apart it says nothing.
 * @param isReadTyped - whether a person typed what these bags read: the readings of all of them are then overtaken.
 * @param isSurePpt - false while a salinity that looks like a gravity was not asked about.
 */
export function deliveryOf(facts: DeliveryFacts, figures: BagFigures, words: BagWords, practice: Practice, units: DisplayUnits, { isClassTyped = false, isReadTyped = false, isSurePpt = true } = {}): Delivery {
  const readPpt = isReadTyped ? undefined : facts.readPpt
  const water = isClassTyped && isWaterClass(words.waterClass) && !readApart(readPpt) ? saidWater(words.waterClass) : waterOf({ ...facts, readPpt }, figures, units, isSurePpt)
  return {
    ...facts,
    bagsApartC: facts.readC ? facts.readC[1] - facts.readC[0] : 0,
    water,
    question: water.waterClass === 'unknown' ? null : toQuestion(figures, { ...words, waterClass: water.waterClass }, practiceFor(facts.triage, practice)),
    tank: { tempC: figures.tankC, salinityPpt: figures.tankPpt, ph: figures.tankPh, alkalinityMeqL: figures.tankAlkalinity },
    hasBinder: words.binder === 'yes',
  }
}

const saidWater = (waterClass: Exclude<BagWater['waterClass'], 'unknown'>): BagWater => ({ waterClass, by: 'told', asks: [], why: null })

const waterOf = ({ waterFacts, speciesName, readPpt }: DeliveryFacts, figures: BagFigures, units: DisplayUnits, isSurePpt: boolean): BagWater =>
  waterOfBag(waterFacts, { measuredPpt: figures.measuredPpt, readPpt, toldPpt: figures.toldPpt, alkalinityMeqL: figures.measuredAlkalinity ?? figures.toldAlkalinity, isSurePpt, targetPpt: figures.preparedPpt ?? figures.tankPpt ?? NaN }, speciesName, (ppt) => showFigure('salinity', ppt, units))

/** Lowest and highest of what was read; undefined where nothing was. */
export function rangeOf(values: readonly (number | null | undefined)[]): readonly [number, number] | undefined {
  const read = values.filter((value): value is number => typeof value === 'number')
  return read.length > 0 ? [Math.min(...read), Math.max(...read)] : undefined
}

/** Fish that fail are not floated slowly. */
const practiceFor = (triage: Triage | null, practice: Practice): Practice => (triage?.step === releaseStep ? { ...practice, slowsFloats: false } : practice)

/** What the house does, at an hour of the day. */
export const practiceAt = ({ valveSettings, peopleFromHour, peopleUntilHour }: Limits, startHour: number): Practice => ({ ...usualPractice, valveSettings: Math.round(valveSettings), people: { fromHour: peopleFromHour, untilHour: peopleUntilHour, startHour } })
