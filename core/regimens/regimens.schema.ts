import { array, type InferType } from 'yup'
import { day } from '../fields/days.schema'
import { shippedAgents } from '../dosing/agents'
import { waterContents } from '../dosing/doseReasons'
import { bounds, choice, choices, identifier, instant, optionalIdentifier, optionalInstant, optionalMeasure, optionalText, strictObject, text, whole, yesNo } from '../fields/fields.schema'

/** What is done to fish or their water against something, over days: a closed list. */
export const regimenKinds = ['ladder', 'doses', 'medicated feed', 'transfer', 'low salinity'] as const
export type RegimenKind = (typeof regimenKinds)[number]

const required = (label: string, unit: string, min: number, max: number) => optionalMeasure(label, unit, min, max).nonNullable(`${label} is missing`)
const happenedAtMs = () => instant('Time it happened')
const mostTanks = 12

/** An agent is stepped up, kept at its level, and stepped down. */
const ladderPlan = { kind: choice('Regimen', ['ladder'] as const), productId: identifier('Agent'), levelDays: whole('Days at level', 1, 120) }
/** Courses of so many days with pauses between, and how one more is begun on a sign. */
const courseFields = {
  fromOn: day('First day'),
  days: whole('Days', 1, 60),
  pauseDays: whole('Days between', 0, 60),
  times: whole('Times', 1, 12),
  /** Days of a course that a confirmed sign begins; 0 for none. */
  onSignDays: whole('Days after a sign', 0, 60),
  /** So many days at a stretch at most, as the label says; 0 where it says nothing. */
  mostDays: whole('Most days at a stretch', 0, 120),
}
const dosesPlan = { kind: choice('Regimen', ['doses'] as const), productId: identifier('Agent'), ...courseFields }
const feedPlan = { kind: choice('Regimen', ['medicated feed'] as const), foodId: identifier('Food'), ...courseFields }
const transferPlan = {
  kind: choice('Regimen', ['transfer'] as const),
  /** In turn, the first is the one they stand in. */
  tankIds: array().of(identifier('Tank')).typeError('Tanks must be a list').defined('Tanks are missing').nonNullable('Tanks are missing').min(2, 'Name two tanks at least, that take turns').max(mostTanks, `At most ${mostTanks} tanks`),
  transfers: whole('Transfers', 1, 12),
  everyH: whole('Hours between', 24, 96, 'h'),
  lateH: whole('Hours late at most', 0, 24, 'h'),
  cleanDryH: whole('Hours to clean and dry', 1, 240, 'h'),
}
const salinityPlan = {
  kind: choice('Regimen', ['low salinity'] as const),
  startOn: day('First day'),
  lowPpt: required('Low salinity', 'ppt', 5, 30),
  housePpt: required('Salinity of the house', 'ppt', 5, 42),
  holdDays: whole('Days low', 1, 90),
  fallPerDay: required('Fall a day', 'ppt', 0.5, 20),
  upPerDay: required('Rise a day', 'ppt', 0.5, 10),
  /** Of the water that is added on the way down, and made up for the way up. */
  downPpt: required('Water added on the way down', 'ppt', 0, 30),
  upPpt: required('Water made up for the way up', 'ppt', 5, 60),
  evapLPerDay: required('Evaporation a day', 'L', 0, 1000),
}
export const planSchemas = { ladder: strictObject(ladderPlan), doses: strictObject(dosesPlan), 'medicated feed': strictObject(feedPlan), transfer: strictObject(transferPlan), 'low salinity': strictObject(salinityPlan) } as const
export type LadderPlan = InferType<(typeof planSchemas)['ladder']>
export type DosesPlan = InferType<(typeof planSchemas)['doses']>
export type FeedPlan = InferType<(typeof planSchemas)['medicated feed']>
export type TransferPlan = InferType<(typeof planSchemas)['transfer']>
export type SalinityPlan = InferType<(typeof planSchemas)['low salinity']>
export type RegimenPlan = LadderPlan | DosesPlan | FeedPlan | TransferPlan | SalinityPlan

const startOf = <Shape extends Parameters<typeof strictObject>[0]>(plan: Shape) => strictObject({ tankId: identifier('Tank'), note: optionalText('Note', bounds.note), happenedAtMs: happenedAtMs(), ...plan })
/** One for each kind: what is begun says how it goes. */
export const startLadderSchema = startOf(ladderPlan)
export const startDosesSchema = startOf(dosesPlan)
export const startFeedSchema = startOf(feedPlan)
export const startTransferSchema = startOf(transferPlan)
export const startSalinitySchema = startOf(salinityPlan)

export const endRegimenSchema = strictObject({ reason: text('Reason', bounds.note), happenedAtMs: happenedAtMs() })
export type EndRegimen = InferType<typeof endRegimenSchema>

/** What stands in a water besides fish; everything that is not named is not there. */
export const recordContentsSchema = strictObject({ contents: choices('What is in the water', waterContents), binderUntilMs: optionalInstant('Binder until') })
  .test('binder', '', ({ contents, binderUntilMs }, { createError }) => !Array.isArray(contents) || contents.includes('binder') === (binderUntilMs !== null) || createError({ path: 'binderUntilMs', message: 'Say until when the binder works, as its label does' }))
export type RecordContents = InferType<typeof recordContentsSchema>

const mostMg = 1e9
/** What went into a water, as it was given; whether that was what the screen offered, the server says. */
export const recordDoseSchema = strictObject({
  productId: identifier('Agent'),
  regimenId: optionalIdentifier('Regimen'),
  /** Milliliters or grams of the product. */
  given: required('Given', '', 0.001, 1e6),
  /** The level that the dose went for, mg/L; null for the label's target. */
  towardsMgL: optionalMeasure('Level', 'mg/L', 0, mostMg),
  /** What was said and is done all the same. */
  ticked: array().of(text('What was said', 40).required('What was said is missing')).typeError('What was ticked must be a list').defined('What was ticked is missing').nonNullable('What was ticked is missing').max(40, 'At most 40 at once'),
  /** Of a lead who goes on where it is refused. */
  reason: optionalText('Reason', bounds.note),
  /** It is in the water already, whatever anybody says of it now. */
  isDone: yesNo('Given already'),
  happenedAtMs: happenedAtMs(),
})
export type RecordDose = InferType<typeof recordDoseSchema>

/** Part of a water was swapped. */
export const recordWaterChangeSchema = strictObject({
  litres: required('Litres', 'L', 0.1, 100_000),
  /** What the new water was mixed with, and to which level, mg/L; null for none. */
  productId: optionalIdentifier('Agent'),
  mixMgL: optionalMeasure('Level of the new water', 'mg/L', 0, mostMg),
  salinityPpt: optionalMeasure('Salinity of the new water', 'ppt', 0, 60),
  regimenId: optionalIdentifier('Regimen'),
  happenedAtMs: happenedAtMs(),
})
  .test('mix', '', ({ productId, mixMgL }, { createError }) => (productId === null) === (mixMgL === null) || createError({ path: 'mixMgL', message: 'Say the level of what was mixed into the new water' }))
export type RecordWaterChange = InferType<typeof recordWaterChangeSchema>

/** Something stands in a water that nobody here dosed, as far as is written down. */
export const recordFoundSchema = strictObject({ agent: choice('Agent', Object.keys(shippedAgents)), happenedAtMs: happenedAtMs() })
export type RecordFound = InferType<typeof recordFoundSchema>

/** Steps that are neither dose, change nor move: a tank of a transfer was cleaned, medicated food was given, a day’s salinity was read. */
export const regimenStepKinds = ['cleaned', 'feed'] as const
export type RegimenStepKind = (typeof regimenStepKinds)[number]
export const recordStepSchema = strictObject({ kind: choice('Step', regimenStepKinds), tankId: identifier('Tank'), happenedAtMs: happenedAtMs() })
export type RecordStep = InferType<typeof recordStepSchema>
export const undoStepSchema = strictObject({})
