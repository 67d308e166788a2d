import { array, type InferType } from 'yup'
import { identifier, optionalText, strictObject, whole, bounds } from '../fields/fields.schema'

/** Fish of one kind that are to be moved; `lotIds` are those they can only have been. */
export const movedFishSchema = strictObject({
  speciesId: identifier('Species'),
  strain: optionalText('Strain', bounds.name),
  lotIds: array().of(identifier('Lot')).typeError('Lots must be a list').max(50, 'At most 50 lots at once').optional(),
  quantity: whole('Number of fish', 1, bounds.fishInLine),
})
export type MovedFish = InferType<typeof movedFishSchema>

export const movedTogether = () => array().of(movedFishSchema).typeError('Fish must be a list').defined('Fish are missing').nonNullable('Fish are missing').min(1, 'No fish is named').max(20, 'At most 20 kinds at once')

/** What a move check is asked about. */
export const moveCheckSchema = strictObject({ fish: movedTogether() })
