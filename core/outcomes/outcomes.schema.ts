import { array, number, type InferType } from 'yup'
import { bounds, identifier, optionalText, strictObject, text, whole, yesNo } from '../fields/fields.schema'

/** A lead answers for an alarm: what was found; an outbreak is named where all deaths of it were one event. */
export const answerAlarmSchema = strictObject({ stream: text('Alarm', 200), found: text('What was found', 500), outbreak: optionalText('Outbreak', 80) })
export type AnswerAlarm = InferType<typeof answerAlarmSchema>

/** Two schools shared out over the crates of some suppliers. */
export const startTrialSchema = strictObject({
  schoolA: text('School', bounds.name),
  schoolB: text('Other school', bounds.name),
  suppliers: array().of(text('Supplier', bounds.name)).typeError('Suppliers must be a list').defined('Suppliers are missing').nonNullable('Suppliers are missing').min(1, 'No supplier is named').max(20, 'At most 20 suppliers'),
  day: whole('Followed to day', 1, 60),
  looks: whole('Looks', 1, 4),
  lossPercentA: whole('Lost now, in a hundred', 1, 90),
  lossPercentB: whole('Lost otherwise, in a hundred', 1, 90),
  note: optionalText('Note', 500),
})
export type StartTrial = InferType<typeof startTrialSchema>

const ratio = (label: string) => number().typeError(`${label} must be a number`).defined(`${label} is missing`).nonNullable(`${label} is missing`).min(0, `${label} must be at least 0`).max(1e6, `${label} is too large`)

/** A crate takes its place in the schedule: how near either school comes to a limit of the house for it, as the bench reckoned. */
export const takePartSchema = strictObject({ crateId: identifier('Crate'), worstA: ratio('Worst of the first school'), worstB: ratio('Worst of the other school'), hasBinder: yesNo('Binder') })
export type TakePart = InferType<typeof takePartSchema>

/** A lead's word to a pause, or the end of a trial. */
export const answerPauseSchema = strictObject({ crateId: identifier('Crate'), words: text('Why it goes on', 500) })
export type AnswerPause = InferType<typeof answerPauseSchema>
export const endTrialSchema = strictObject({ because: text('Why it ends', 500) })
export type EndTrial = InferType<typeof endTrialSchema>

/** The words of a month's sheet are kept as they are. */
export const keepSheetSchema = strictObject({ month: text('Month', 7).matches(/^\d{4}-(0[1-9]|1[0-2])$/, 'Month must be as 2031-05') })
export type KeepSheet = InferType<typeof keepSheetSchema>

/** What is meant stands in the address. */
export const nothingMoreSchema = strictObject({})
