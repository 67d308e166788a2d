import { array, type InferType } from 'yup'
import { againstRule } from '../placing/override.schema'
import { waters } from '../room/room.schema'
import { bounds, choice, identifier, instant, optionalIdentifier, optionalText, strictObject, text, whole, yesNo } from '../fields/fields.schema'
import { lossCauses, releaseReasons } from './movement'

const quantity = () => whole('Number of fish', 1, bounds.fishInLine)
const note = () => optionalText('Note', bounds.note)
const happenedAtMs = () => instant('Time it happened')

/**
 * Which fish are meant: those of a kind that stand together, or of a lot where somebody knows it. `lotIds` are those they can
 * only have been, where it is one of several.
 */
const whichFish = () => ({
  lotId: optionalIdentifier('Lot')
    .optional()
    .test('which', 'Say which fish: a species, or a lot', (lotId, { parent }) => [lotId, parent.speciesId, parent.lotIds?.[0]].some((each) => typeof each === 'string' && each !== '')),
  lotIds: array().of(identifier('Lot')).typeError('Lots must be a list').max(50, 'At most 50 lots at once').optional(),
  speciesId: optionalIdentifier('Species').optional(),
  strain: optionalText('Strain', bounds.name).optional(),
})
export interface WhichFish {
  lotId?: string | null | undefined
  lotIds?: string[] | undefined
  speciesId?: string | null | undefined
  strain?: string | null | undefined
}

/** Some fish go from this tank to another one. */
export const moveFishSchema = strictObject({ ...whichFish(), quantity: quantity(), toTankId: identifier('Tank'), toolSetId: optionalIdentifier('Tool set').optional(), waterGoesAlong: yesNo('Water goes along').optional(), ...againstRule(), note: note(), happenedAtMs: happenedAtMs() })
export type MoveFish = InferType<typeof moveFishSchema>

/** Fish are lost from this tank. */
export const recordLossSchema = strictObject({ ...whichFish(), quantity: quantity(), cause: choice('Cause', lossCauses), note: note(), happenedAtMs: happenedAtMs() })
export type RecordLoss = InferType<typeof recordLossSchema>

/** Fish leave the room alive. `heldBecause` says why such as are in their hold go all the same. */
export const releaseFishSchema = strictObject({ ...whichFish(), heldBecause: optionalText('Reason', bounds.note).optional(), quantity: quantity(), reason: choice('Reason', releaseReasons), note: note(), happenedAtMs: happenedAtMs() })
export type ReleaseFish = InferType<typeof releaseFishSchema>

/** Fish of a kind, or of a lot, were counted: `expected` is what the screen showed, so that a count is never set against a figure nobody saw. */
export const correctCountSchema = strictObject({
  ...whichFish(),
  expected: whole('Number on screen', 0, bounds.fishInLine),
  counted: whole('Number counted', 0, bounds.fishInLine),
  reason: text('Reason', bounds.note),
  happenedAtMs: happenedAtMs(),
})
export type CorrectCount = InferType<typeof correctCountSchema>

/** Fish that were written off here without being seen dead stand here again, or in another tank: there they have been since they were missed. */
export const findFishSchema = strictObject({ speciesId: identifier('Species'), strain: optionalText('Strain', bounds.name), foundInTankId: optionalIdentifier('Tank').optional(), quantity: quantity(), happenedAtMs: happenedAtMs() })
export type FindFish = InferType<typeof findFishSchema>

export const additions = ['born', 'brought-in'] as const

/** Fish that came by no crate: born here, or already here when the books began. They become a lot of their own. */
export const addFishSchema = strictObject({
  species: text('Species', bounds.name),
  quantity: quantity(),
  how: choice('Where from', additions),
  note: note(),
  happenedAtMs: happenedAtMs(),
})
export type AddFish = InferType<typeof addFishSchema>

/** Says which water fish of some lots live in, where the species book does not. */
export const sayWaterSchema = strictObject({ lotIds: array().of(identifier('Lot')).typeError('Lots must be a list').defined('Lots are missing').nonNullable('Lots are missing').min(1, 'No lot is named').max(200, 'At most 200 lots at once'), water: choice('Water', waters) })
export type SayWater = InferType<typeof sayWaterSchema>

/** A lot is something else than it was taken for. What was counted stays. */
export const renameLotSchema = strictObject({ species: text('Species', bounds.name), strain: optionalText('Strain', bounds.name), note: optionalText('Why', bounds.note), happenedAtMs: happenedAtMs() })
export type RenameLot = InferType<typeof renameLotSchema>

/** Takes one movement back; `isWhole` all that was written with it. */
export const reverseMovementSchema = strictObject({ isWhole: yesNo('All of it').optional(), reason: optionalText('Reason', bounds.note), happenedAtMs: happenedAtMs() })
export type ReverseMovement = InferType<typeof reverseMovementSchema>
