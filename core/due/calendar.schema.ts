import { string, type InferType } from 'yup'
import { strictObject } from '../fields/fields.schema'

/** Makes the recorder an address for a calendar; one they had is void from then on. The secret is made on the device. */
export const makeCalendarSchema = strictObject({ secret: string().defined('The secret is missing').nonNullable('The secret is missing').matches(/^[A-Za-z0-9_-]{43}$/, 'The secret must be 43 letters, digits, - or _') })
export type MakeCalendar = InferType<typeof makeCalendarSchema>

/** Voids the recorder's address. */
export const revokeCalendarSchema = strictObject({})

/** Whether the recorder has an address, and since when. */
export interface CalendarView {
  sinceMs: number | null
}
