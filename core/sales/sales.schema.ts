import { array, object, number, type InferType } from 'yup'
import { bounds, identifier, instant, optionalIdentifier, optionalText, strictObject, text, whole, yesNo } from '../fields/fields.schema'
import { saleFields } from './readSales'

const column = () => number().integer().min(0).max(99).optional()
const mapping = object(Object.fromEntries(saleFields.map((field) => [field, column()]))).noUnknown('A column holds nothing that is known here').required('The columns are missing')

/** One row of a till's list as somebody looked it over. Without a species it is no fish. */
const saleRow = strictObject({
  key: text('Key', 400),
  item: text('What was sold', bounds.name),
  on: text('Day', 10),
  count: whole('Number of fish', 1, bounds.fishInLine),
  speciesId: optionalIdentifier('Species'),
  strain: optionalText('Strain', bounds.name),
  /** Booked although a row just like it was booked before. */
  isAgain: yesNo('Again'),
  parts: array().of(strictObject({ tankId: identifier('Tank'), quantity: whole('Number of fish', 1, bounds.fishInLine) })).typeError('Tanks must be a list').defined('Tanks are missing').nonNullable('Tanks are missing').max(50, 'At most 50 tanks'),
})

/** A day's sales, all in one. How its columns were read and what its words mean is remembered. */
export const bookSalesSchema = strictObject({
  rows: array().of(saleRow).typeError('Rows must be a list').defined('Rows are missing').nonNullable('Rows are missing').min(1, 'There is no row').max(2000, 'At most 2000 rows'),
  heading: text('Heading', 2000),
  mapping,
  heldBecause: optionalText('Reason', bounds.note),
  happenedAtMs: instant('Time it happened'),
})
export type BookSales = InferType<typeof bookSalesSchema>

/** Takes all of a list back. */
export const unbookSalesSchema = strictObject({ happenedAtMs: instant('Time it happened') })
export type UnbookSales = InferType<typeof unbookSalesSchema>
