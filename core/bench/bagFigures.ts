import { guessSds, waterClasses, type AcclimationQuestion, type GuessedFrom, type Practice, type WaterClass } from '../acclimation/question'
import { phInstruments, salinityInstruments, type PhInstrument, type SalinityInstrument } from '../acclimation/instruments'
import type { DeskInput } from '../desk/calculations'
import { toleranceLevels, type Tolerance } from '../setup/words'

const temp = (name: string, label: string, isOptional = false): DeskInput => ({ name, label, quantity: 'temperature', min: 5, max: 35, isOptional })
const ppt = (name: string, label: string, isOptional = false): DeskInput => ({ name, label, quantity: 'salinity', min: 0, max: 40, isOptional })
const ph = (name: string, isOptional = false): DeskInput => ({ name, label: 'pH', unit: '', min: 5, max: 9.5, isOptional })
const alkalinity = (name: string, isOptional = false): DeskInput => ({ name, label: 'alkalinity', unit: 'meq/L', min: 0.1, max: 8, hint: '1 dKH is 0.357', isOptional })

/** What is asked of a bag and its tank; what was neither told nor measured is left out and estimated. */
export const bagFields: readonly { title: string; fields: readonly DeskInput[] }[] = [
  {
    title: 'The bags',
    fields: [
      { name: 'waterClass', label: 'supplier’s water', min: 0, max: 0, options: [...waterClasses, 'unknown'] },
      { name: 'bags', label: 'bags of this fish', unit: '', min: 1, max: 500 },
      { name: 'fish', label: 'fish in a bag', unit: '', min: 1, max: 5000 },
      { name: 'massG', label: 'weight of one', unit: 'g', min: 0.01, max: 2000 },
      { name: 'waterL', label: 'water in a bag', quantity: 'volume', min: 0.02, max: 100 },
      { name: 'gasL', label: 'gas in a bag', quantity: 'volume', min: 0.02, max: 200 },
      { name: 'gas', label: 'filled with', min: 0, max: 0, options: ['oxygen', 'air'] },
      { name: 'hours', label: 'hours since packing', unit: 'h', min: 0.1, max: 120 },
      temp('packedC', 'packed at'),
      temp('transitC', 'on the way'),
      { name: 'fed', label: 'fed before packing', min: 0, max: 0, options: ['no', 'yes'] },
      { name: 'binder', label: 'ammonia binder in the water', min: 0, max: 0, options: ['no', 'yes'] },
      { name: 'tolerance', label: 'the species is', min: 0, max: 0, options: ['normal', ...toleranceLevels.filter((level) => level !== 'normal')] },
    ],
  },
  { title: 'Told by the supplier', fields: [ppt('toldPpt', 'salinity', true), ph('toldPh', true), alkalinity('toldAlkalinity', true)] },
  {
    title: 'Measured in the opened bag',
    fields: [temp('measuredC', 'temperature', true), temp('guessedC', 'by its skin, or by guess', true), { name: 'guessedFrom', label: 'guessed from', min: 0, max: 0, options: Object.keys(guessSds) }, ppt('measuredPpt', 'salinity', true), { name: 'salinityBy', label: 'salt instrument', min: 0, max: 0, options: salinityInstruments }, ph('measuredPh', true), { name: 'phBy', label: 'meter or kit', min: 0, max: 0, options: phInstruments }, { name: 'measuredTan', label: 'total ammonia', unit: 'mg/L as N', min: 0, max: 50, isOptional: true }, alkalinity('measuredAlkalinity', true)],
  },
  {
    title: 'The tank',
    fields: [temp('tankC', 'temperature'), ppt('tankPpt', 'salinity'), alkalinity('tankAlkalinity'), ph('tankPh'), temp('roomC', 'air of the room')],
  },
  {
    title: 'Made ready for them',
    fields: [temp('preparedC', 'temperature', true), ppt('preparedPpt', 'salinity', true), { name: 'spareTank', label: 'a tank to spare for days', min: 0, max: 0, options: ['no', 'yes'] }],
  },
]
export const bagInputs = bagFields.flatMap(({ fields }) => fields)
/** Fields that hold a figure, and those that hold one word of a list. */
export const figureInputs = bagInputs.filter(({ options }) => !options)
export const wordInputs = bagInputs.filter(({ options }) => options)

/** What a field holds until somebody knows better. */
export const bagDefaults: Readonly<Record<string, number>> = { bags: 1, roomC: 22 }

export type BagFigures = Readonly<Record<string, number | undefined>>
export type BagWords = Readonly<Record<string, string>>

/** Puts a question together from figures (base units) and words that were found in order. */
export function toQuestion(figures: BagFigures, words: BagWords, practice?: Practice): AcclimationQuestion {
  const at = (name: string): number => figures[name] ?? NaN
  const some = (fields: Record<string, number | undefined>): Record<string, number> => Object.fromEntries(Object.entries(fields).filter((entry): entry is [string, number] => entry[1] !== undefined))
  const isPrepared = figures.preparedC !== undefined || figures.preparedPpt !== undefined
  return {
    waterClass: words.waterClass as WaterClass,
    told: some({ salinityPpt: figures.toldPpt, ph: figures.toldPh, alkalinityMeqL: figures.toldAlkalinity }),
    measured: withInstruments(words, some({ tempC: figures.measuredC, salinityPpt: figures.measuredPpt, ph: figures.measuredPh, tanMgL: figures.measuredTan, alkalinityMeqL: figures.measuredAlkalinity })),
    guessedC: figures.guessedC ?? at('transitC'),
    guessedFrom: (words.guessedFrom ?? 'skin') as GuessedFrom,
    bag: { fish: at('fish'), massG: at('massG'), waterL: at('waterL'), gasL: at('gasL'), hours: at('hours'), packedC: at('packedC'), transitC: at('transitC'), ...(words.gas === 'air' ? { oxygenAtm: 0.209, headspacePco2Uatm: 600 } : {}) },
    ...{ bags: at('bags'), isFed: words.fed === 'yes', hasSpareTank: words.spareTank === 'yes' },
    prepared: isPrepared ? { tempC: figures.preparedC ?? at('tankC'), salinityPpt: figures.preparedPpt ?? at('tankPpt') } : null,
    tank: { tempC: at('tankC'), salinityPpt: at('tankPpt'), alkalinityMeqL: at('tankAlkalinity'), ph: at('tankPh') },
    tolerance: words.tolerance as Tolerance,
    ...{ roomC: at('roomC'), roomPco2Uatm: 600 },
    ...(practice ? { practice } : {}),
  }
}

/** Says what the readings were taken with, where any were. */
function withInstruments(words: BagWords, measured: AcclimationQuestion['measured']): AcclimationQuestion['measured'] {
  return {
    ...measured,
    ...(measured.salinityPpt === undefined || words.salinityBy === undefined ? {} : { salinityBy: words.salinityBy as SalinityInstrument }),
    ...(measured.ph === undefined || words.phBy === undefined ? {} : { phBy: words.phBy as PhInstrument }),
  }
}

/** Where a figure comes from; what was not measured is shown otherwise than what was. */
export const figureSources = ['measured', 'told', 'list', 'species book', 'system', 'house limit', 'bag’s skin', 'other bags', 'guess'] as const
export type FigureSource = (typeof figureSources)[number]
export const isEstimate = (source: FigureSource | undefined): boolean => source === 'guess' || source === 'house limit' || source === 'bag’s skin' || source === 'other bags' || source === 'species book'
