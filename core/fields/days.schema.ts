import { optionalText, text } from './fields.schema'

/** Whether a text names a day of the calendar, such as 2031-05-04; the thirtieth of February is none. */
export const isDay = (value: string): boolean => /^\d{4}-\d{2}-\d{2}$/.test(value) && !Number.isNaN(Date.parse(value)) && new Date(Date.parse(value)).toISOString().startsWith(value)

const words = (label: string): string => `${label} must be a day such as 2031-05-04`
/** A calendar day. */
export const day = (label: string) => text(label, 10).test('day', words(label), (value) => typeof value !== 'string' || value === '' || isDay(value))
/** A calendar day that may be left out. */
export const optionalDay = (label: string) => optionalText(label, 10).test('day', words(label), (value) => typeof value !== 'string' || isDay(value))
