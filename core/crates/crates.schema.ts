import { array, type InferType } from 'yup'
import { bounds, choices, identifier, instant, optionalChoice, optionalIdentifier, optionalInstant, optionalMeasure, optionalText, optionalWhole, strictObject, text, whole } from '../fields/fields.schema'

/** The four looks at a bag; one that is named is a concern. */
export const looks = ['clock', 'bag', 'water', 'fish'] as const
export type Look = (typeof looks)[number]
export const bodyConditions = ['thin', 'normal', 'full'] as const
export type BodyCondition = (typeof bodyConditions)[number]

/** One line of a packing list, ready to be written. */
export const listLineSchema = strictObject({
  species: text('Species', bounds.name),
  count: whole('Count', 1, bounds.fishInLine),
  bags: whole('Bags', 1, bounds.bagsInCrate),
  perBag: optionalWhole('Per bag', 1, bounds.fishInBag),
  tankId: optionalIdentifier('Tank'),
})
export type ListLine = InferType<typeof listLineSchema>

/** A crate with its packing list. */
export const createCrateSchema = strictObject({
  supplier: text('Supplier', bounds.name),
  expectedAtMs: optionalInstant('Expected'),
  packedAtMs: optionalInstant('Packed'),
  lines: array()
    .of(listLineSchema)
    .typeError('The list must have lines')
    .defined('The list is missing')
    .nonNullable('The list is missing')
    .min(1, 'The list has no line')
    .max(200, 'A list may have at most 200 lines'),
})
export type CreateCrate = InferType<typeof createCrateSchema>

const bagIds = () =>
  array()
    .of(identifier('Bag'))
    .typeError('Bags must be a list')
    .defined('Bags are missing')
    .nonNullable('Bags are missing')
    .min(1, 'No bag is named')
    .max(200, 'At most 200 bags at once')
    .test('distinct', 'A bag is named twice', (value) => !value || new Set(value).size === value.length)

/** What was found in a bag; the same answers may stand for several bags of one line. */
export const recordBagsSchema = strictObject({
  bagIds: bagIds(),
  alive: whole('Alive', 0, bounds.fishInBag),
  dead: whole('Dead', 0, bounds.fishInBag),
  concerns: choices('Looks', looks),
  body: optionalChoice('Body', bodyConditions),
  skinTempC: optionalMeasure('Skin temperature', '°C', -5, 50),
  waterTempC: optionalMeasure('Water temperature', '°C', -5, 50),
  salinityPpt: optionalMeasure('Salinity', 'ppt', 0, 60),
  note: optionalText('Note', bounds.note),
  happenedAtMs: instant('Time it happened'),
})
export type RecordBags = InferType<typeof recordBagsSchema>

/** Takes back what was recorded for these bags. */
export const undoBagsSchema = strictObject({ bagIds: bagIds(), happenedAtMs: instant('Time it happened') })
export type UndoBags = InferType<typeof undoBagsSchema>

/** Fish go from their bags to the planned tanks: to one of them, or (null) the whole crate. */
export const placeBagsSchema = strictObject({ tankId: optionalIdentifier('Tank'), happenedAtMs: instant('Time it happened') })
export type PlaceBags = InferType<typeof placeBagsSchema>

/** Takes one placing back: all its fish return to their bags, or none do. */
export const undoPlacementSchema = strictObject({ placementKey: identifier('Placing'), happenedAtMs: instant('Time it happened') })
export type UndoPlacement = InferType<typeof undoPlacementSchema>

/** Chooses the tank of a line; `version` is the one the person saw. */
export const chooseTankSchema = strictObject({ tankId: optionalIdentifier('Tank'), version: whole('Version', 1, 1_000_000_000) })
export type ChooseTank = InferType<typeof chooseTankSchema>
