import { array, type InferType } from 'yup'
import { day } from '../fields/days.schema'
import { bounds, choice, identifier, instant, optionalIdentifier, optionalMeasure, optionalText, optionalWhole, strictObject, text, whole } from '../fields/fields.schema'
import { stockChangeFields } from '../stock/stock.schema'
import { choreRuleKinds } from './choresDue'

/** Work at one tank that somebody asks for once: another look, readings, a part of its water changed. */
export const askedKinds = ['look', 'readings', 'part change'] as const
export type AskedKind = (typeof askedKinds)[number]

/** What is to be done at a tank, and within how many minutes. A change says how much: litres each, so many times. */
export const askChoreSchema = strictObject({
  tankId: identifier('Tank'),
  kind: choice('Work', askedKinds),
  withinMin: whole('Minutes', 5, 7 * 24 * 60),
  litresEach: optionalMeasure('Litres', 'L', 0.1, 100_000),
  times: whole('Times', 1, 20),
})
export type AskChore = InferType<typeof askChoreSchema>

export const choreEnds = ['done', 'dropped', 'open'] as const
export type ChoreEnd = (typeof choreEnds)[number]
/** It was done by hand, or nobody wants it any more; or it is open again. */
export const endChoreSchema = strictObject({ as: choice('How it ends', choreEnds) })
export type EndChore = InferType<typeof endChoreSchema>

// Work that comes round by itself.

/** What a chore is, for what is asked and said of it. */
export const choreKinds = ['filter bags', 'wipe', 'top-up', 'water change', 'lamp', 'decor', 'visit', 'other'] as const
export type ChoreKind = (typeof choreKinds)[number]
const [mostPlaces, mostItems, mostDays] = [60, 20, 730]

const listOf = (label: string, most: number) => ({ typeError: `${label} must be a list`, most: `${label} may have at most ${most} entries` })

const ruleSchema = strictObject({
  kind: choice('How it comes round', choreRuleKinds),
  days: optionalWhole('Days', 1, mostDays),
  weekdays: array().of(whole('Weekday', 1, 7).required('A weekday is missing')).typeError('Weekdays must be a list').defined('Weekdays are missing').nonNullable('Weekdays are missing').max(7, 'A week has seven days'),
  fish: optionalWhole('Fish', 1, 1_000_000),
  earlyDays: whole('Days of grace', 0, 30),
})
  .required('How it comes round is missing')
  .test('needs', '', ({ kind, days, weekdays, fish }, context) => {
    const missing = (kind === 'every' || kind === 'fixed') && days === null ? (['days', 'Say after how many days'] as const) : kind === 'weekdays' && weekdays?.length === 0 ? (['weekdays', 'Choose a day of the week'] as const) : kind === 'arrivals' && fish === null ? (['fish', 'Say after how many fish'] as const) : null
    return missing === null || context.createError({ path: `${context.path}.${missing[0]}`, message: missing[1] })
  })

const useSchema = strictObject({ item: text('Item', 60), count: whole('Number', 1, 10_000) }).required('An item is missing')
const takenFishSchema = strictObject({ fromTankId: identifier('Tank'), speciesId: identifier('Species'), quantity: whole('Fish', 1, bounds.fishInBag) }).required('Fish are missing')

const placeSchema = strictObject({
  /** Made on the device; what was done there goes by it. */
  id: identifier('Place'),
  tankId: optionalIdentifier('Tank'),
  systemId: optionalIdentifier('System'),
  /** Somewhere that is no tank: the store room, a lamp. */
  label: optionalText('Place', bounds.name),
  uses: array().of(useSchema).typeError(listOf('Items', mostItems).typeError).defined('Items are missing').nonNullable('Items are missing').max(mostItems, listOf('Items', mostItems).most),
  /** Of a water change. */
  litres: optionalMeasure('Litres', 'L', 0.1, 100_000),
  /** The tank whose water is taken for it; null for fresh water. */
  fromTankId: optionalIdentifier('Source'),
  /** Fish that a visit takes along. */
  fish: array().of(takenFishSchema).typeError(listOf('Fish', mostItems).typeError).defined('Fish are missing').nonNullable('Fish are missing').max(mostItems, listOf('Fish', mostItems).most),
})
  .required('A place is missing')
  .test('one', '', ({ tankId, systemId, label }, context) => [tankId, systemId, typeof label === 'string' ? label.trim() || null : label].filter((each) => each !== null && each !== undefined).length === 1 || context.createError({ path: `${context.path}.label`, message: 'Say where: a tank, a system, or in words' }))
export type ChorePlace = InferType<typeof placeSchema>

/** Work that comes round. */
export const saveChoreSchema = strictObject({
  name: text('Name', bounds.name),
  kind: choice('Kind', choreKinds),
  rule: ruleSchema,
  startOn: day('First day'),
  places: array().of(placeSchema).typeError('Places must be a list').defined('Places are missing').nonNullable('Places are missing').min(1, 'Say where').max(mostPlaces, `At most ${mostPlaces} places`).test('distinct', 'A place stands there twice', (value) => !Array.isArray(value) || new Set(value.map((place) => place?.id)).size === value.length),
  note: optionalText('Note', bounds.note),
  /** Of the chore that is changed; 0 for a new one. */
  version: whole('Version', 0, 1_000_000_000),
})
  .test('litres', '', ({ kind, places }, context) => {
    const at = kind === 'water change' && Array.isArray(places) ? places.findIndex((place) => place?.litres === null) : -1
    return at < 0 || context.createError({ path: `places[${at}].litres`, message: 'Say how many litres are changed' })
  })
  .test('visit', '', ({ kind, places }, context) => {
    const at = kind === 'visit' && Array.isArray(places) ? places.findIndex((place) => place?.tankId === null) : -1
    return at < 0 || context.createError({ path: `places[${at}].tankId`, message: 'A visit goes to a tank: choose the customer’s' })
  })
export type SaveChore = InferType<typeof saveChoreSchema>
export const retireChoreSchema = strictObject({ version: whole('Version', 0, 1_000_000_000) })
export type RetireChore = InferType<typeof retireChoreSchema>

/** It is done at one place. */
export const doChoreSchema = strictObject({ placeId: identifier('Place'), happenedAtMs: instant('Time it happened') })
export type DoChore = InferType<typeof doChoreSchema>
export const undoChoreSchema = strictObject({})

/** Consumables in the store room: counted anew, come in, or thrown away. */
export const changeSuppliesSchema = strictObject({ item: text('Item', 60), ...stockChangeFields() })
export type ChangeSupplies = InferType<typeof changeSuppliesSchema>
