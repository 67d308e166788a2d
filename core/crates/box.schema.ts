import type { InferType } from 'yup'
import { bounds, optionalChoice, optionalText, strictObject, whole, yesNo } from '../fields/fields.schema'

export const packStates = ['working', 'spent', 'none'] as const
export const packings = ['good', 'poor', 'bad'] as const

/** What was seen of the box itself. Null is "not looked at". */
export const boxFactsSchema = strictObject({
  isSound: yesNo('Sound').nullable(),
  isWet: yesNo('Wet').nullable(),
  packs: optionalChoice('Heat or cold packs', packStates),
  packing: optionalChoice('Packing', packings),
  hasCareSheet: yesNo('Care sheet').nullable(),
  hasFoodSample: yesNo('Food sample').nullable(),
  note: optionalText('Note', bounds.note),
})
export type BoxFacts = InferType<typeof boxFactsSchema>

/** A box nobody looked at yet. */
export const unseenBox: BoxFacts = { isSound: null, isWet: null, packs: null, packing: null, hasCareSheet: null, hasFoodSample: null, note: null }

/** Records what was seen of the box; `version` is the one the person saw. */
export const recordBoxSchema = strictObject({ box: boxFactsSchema.required('The facts of the box are missing'), version: whole('Version', 1, 1_000_000_000) })
export type RecordBox = InferType<typeof recordBoxSchema>
