import { array, type InferType, type ISchema } from 'yup'
import { bounds, choice, identifier, instant, optionalIdentifier, optionalText, strictObject, text, whole } from '../fields/fields.schema'

/** Why a room is counted: to enter what already swims here, or to hold the books against it. */
export const stocktakeKinds = ['opening', 'count'] as const
export type StocktakeKind = (typeof stocktakeKinds)[number]

/** Why fewer were counted than the books say. */
export const shortReasons = ['sold, not written down', 'died unseen', 'moved', 'miscounted', 'unknown'] as const
/** Why more were counted. */
export const surplusReasons = ['stood here before the books', 'found again', 'born here', 'miscounted', 'unknown'] as const
export type DifferenceReason = (typeof shortReasons)[number] | (typeof surplusReasons)[number]
export const differenceReasons: readonly DifferenceReason[] = [...new Set([...shortReasons, ...surplusReasons])]

const list = <T>(label: string, of: ISchema<T>) => array().of(of).typeError(`${label} must be a list`).defined(`${label} are missing`).nonNullable(`${label} are missing`)
const happenedAtMs = () => instant('Time it happened')

/** Begins to count the room; where somebody is at it already, that one goes on. */
export const beginStocktakeSchema = strictObject({ kind: choice('Kind', stocktakeKinds), happenedAtMs: happenedAtMs() })
export type BeginStocktake = InferType<typeof beginStocktakeSchema>

/** What stands in one tank; counted again, the later count takes the place of the earlier. A kind that is in the books and not named here was not there. */
export const countTankSchema = strictObject({
  tankId: identifier('Tank'),
  kinds: list('Kinds of fish', strictObject({ species: text('Species', bounds.name), strain: optionalText('Strain', bounds.name), counted: whole('Number counted', 0, bounds.fishInLine) })).max(60, 'At most 60 kinds in one tank'),
  source: optionalText('Source', bounds.name),
  happenedAtMs: happenedAtMs(),
})
export type CountTank = InferType<typeof countTankSchema>

/** A list of what stands where, as CSV: all of it becomes counts, or none. */
export const importCountsSchema = strictObject({ csv: text('List', 2_000_000), happenedAtMs: happenedAtMs() })
export type ImportCounts = InferType<typeof importCountsSchema>

/** The differences that somebody saw, each with the reason they take to be right. */
export const bookStocktakeSchema = strictObject({
  parts: list(
    'Differences',
    strictObject({
      tankId: identifier('Tank'),
      speciesId: identifier('Species'),
      strain: optionalText('Strain', bounds.name),
      way: choice('Way', ['fewer', 'more'] as const),
      quantity: whole('Number of fish', 1, bounds.fishInLine),
      reason: choice('Reason', differenceReasons),
      toTankId: optionalIdentifier('Tank they went to'),
    }),
  ).max(5000, 'At most 5000 differences'),
  happenedAtMs: happenedAtMs(),
})
export type BookStocktake = InferType<typeof bookStocktakeSchema>
export type BookPart = BookStocktake['parts'][number]

/** Takes all that a stocktake booked back, or leaves one that was not booked. */
export const endStocktakeSchema = strictObject({ happenedAtMs: happenedAtMs() })
export type EndStocktake = InferType<typeof endStocktakeSchema>
