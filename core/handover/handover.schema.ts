import type { InferType } from 'yup'
import { instant, strictObject, text } from '../fields/fields.schema'

/** Words for those who come after. */
export const leaveWordSchema = strictObject({ words: text('Note', 500) })
export type LeaveWord = InferType<typeof leaveWordSchema>
export const takeWordOffSchema = strictObject({})

/** What happened until then was read. */
export const readHandoverSchema = strictObject({ untilMs: instant('Until') })
export type ReadHandover = InferType<typeof readHandoverSchema>
