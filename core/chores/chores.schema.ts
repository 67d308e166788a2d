import type { InferType } from 'yup'
import { choice, identifier, optionalMeasure, strictObject, whole } from '../fields/fields.schema'

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
