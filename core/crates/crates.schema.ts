import { array, object, type InferType } from 'yup'
import { againstRule, override } from '../placing/override.schema'
import { phInstruments, salinityInstruments } from '../acclimation/instruments'
import { identities } from '../setup/words'
import { fishAndBags, lineDetails } from './lineDetails'
import { listFields, type ListMapping } from './listMapping'
import { bounds, choice, choices, identifier, instant, optionalChoice, optionalIdentifier, optionalInstant, optionalMeasure, optionalText, optionalWhole, strictObject, text, whole, yesNo } from '../fields/fields.schema'
import { partFields, toldFields, waterFields } from './told.schema'

/** The four looks at a bag; one that is named is a concern. */
export const looks = ['clock', 'bag', 'water', 'fish'] as const
export type Look = (typeof looks)[number]
export const bodyConditions = ['thin', 'normal', 'full'] as const
export type BodyCondition = (typeof bodyConditions)[number]
/** How most of the living fish of a bag behave, best first. */
export const behaviours = ['lively', 'subdued', 'distressed', 'on its side'] as const
export type Behaviour = (typeof behaviours)[number]
/** What may be wrong with a bag besides its count: other animals than the list says, or a label that says something else. */
export const mishaps = ['wrong species', 'mislabelled'] as const
export type Mishap = (typeof mishaps)[number]

const version = () => whole('Version', 1, 1_000_000_000)

/** One line of a packing list, ready to be written. */
export const listLineSchema = strictObject({ ...fishAndBags(), tankId: optionalIdentifier('Tank'), override: override(), ...lineDetails(), told: strictObject(toldFields()).nullable().optional().default(undefined) })
export type ListLine = InferType<typeof listLineSchema>

/** Changes a line. Fish and bags of the list stay as they are once one of its bags was opened; a tank that is left out stays as it is. */
export const editLineSchema = strictObject({ ...fishAndBags(), tankId: optionalIdentifier('Tank').optional(), override: override(), ...lineDetails(), version: version() })
export type EditLine = InferType<typeof editLineSchema>

/** Takes a line off the list, while it is on the list alone: no bag opened or pictured, no fish of it in the books. */
export const removeLineSchema = strictObject({ version: version() })
export type RemoveLine = InferType<typeof removeLineSchema>

/** Changes what is known of a crate as a whole. */
export const editCrateSchema = strictObject({
  supplier: text('Supplier', bounds.name),
  expectedAtMs: optionalInstant('Expected'),
  packedAtMs: optionalInstant('Packed'),
  carrier: optionalText('Carrier', bounds.name).optional(),
  note: optionalText('Note', bounds.note),
  version: version(),
})
export type EditCrate = InferType<typeof editCrateSchema>

/** How the columns of a list were read, to be remembered for its supplier. */
const listMappingSchema = strictObject({
  heading: array().of(optionalText('Heading', 200)).defined('The heading is missing').nonNullable('The heading is missing').max(100, 'A list may have at most 100 columns'),
  mapping: object(Object.fromEntries(listFields.map((field) => [field, optionalWhole('Column', 0, 99).optional()])))
    .defined('The mapping is missing')
    .nonNullable('The mapping is missing')
    .noUnknown('The mapping names a field that no list has'),
})
export interface RememberedMapping {
  heading: string[]
  mapping: ListMapping
}

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
    .max(200, 'A list may have at most 200 lines'),
  carrier: optionalText('Carrier', bounds.name).optional(),
  /** False when the crate comes without a list; then it has no lines yet. */
  hasList: yesNo('List').optional(),
  note: optionalText('Note', bounds.note).optional(),
  /** What the sender says of their water and how to take the fish in, and which of several lists this is: version 2 of the packing list. */
  told: strictObject({ water: waterFields().nullable().optional().default(undefined), method: optionalText('Method', bounds.note).optional(), part: partFields().nullable().optional().default(undefined) })
    .nullable()
    .optional()
    .default(undefined),
  listMapping: listMappingSchema.nullable().optional().default(undefined),
}).test('lines', '', (crate, context) => {
  const count = crate?.lines?.length ?? 0
  if (crate?.hasList !== false && count === 0) return context.createError({ path: 'lines', message: 'The list has no line' })
  return crate?.hasList === false && count > 0 ? context.createError({ path: 'lines', message: 'A crate without a list has no lines to begin with' }) : true
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

const counts = () => ({ alive: whole('Alive', 0, bounds.fishInBag), dead: whole('Dead', 0, bounds.fishInBag) })
/** What is read and seen of a bag beside its count and the four looks. */
const readings = () => ({
  body: optionalChoice('Body', bodyConditions),
  skinTempC: optionalMeasure('Skin temperature', '°C', -5, 50),
  waterTempC: optionalMeasure('Water temperature', '°C', -5, 50),
  salinityPpt: optionalMeasure('Salinity', 'ppt', 0, 60),
  /** What it was read with; the house's usual where left out. */
  salinityBy: optionalChoice('Salinity read by', salinityInstruments).optional(),
  ph: optionalMeasure('pH', '', 3, 11).optional(),
  phBy: optionalChoice('pH read by', phInstruments).optional(),
  ammoniaMgL: optionalMeasure('Ammonia', 'mg/L as N', 0, 100).optional(),
  hasBinder: yesNo('Binder').nullable().optional(),
  behaviour: optionalChoice('Behaviour', behaviours).optional(),
  mishap: optionalChoice('Mishap', mishaps).optional(),
})

/** The same where all of it may be left out. */
function readingsIfAny() {
  const { body, skinTempC, waterTempC, salinityPpt, ...rest } = readings()
  return { ...rest, body: body.optional(), skinTempC: skinTempC.optional(), waterTempC: waterTempC.optional(), salinityPpt: salinityPpt.optional() }
}

/** What was found in a bag; the same answers may stand for several bags of one line. */
export const recordBagsSchema = strictObject({
  bagIds: bagIds(),
  ...counts(),
  concerns: choices('Looks', looks),
  ...readings(),
  note: optionalText('Note', bounds.note),
  happenedAtMs: instant('Time it happened'),
})
export type RecordBags = InferType<typeof recordBagsSchema>

/**
 * A bag that no line of the list speaks of: an extra one, or any bag of a crate that came without a list. It becomes a
 * line and a lot of its own, or one more bag of `lineId`. Without a name its fish are counted now and named later.
 * `bagIds` are made on the device, so that pictures can be sent after them; several are bags alike.
 */
export const addBagSchema = strictObject({
  species: optionalText('Species', bounds.name),
  lineId: optionalIdentifier('Line').optional(),
  bagIds: bagIds().optional().default(undefined),
  ...counts(),
  concerns: choices('Looks', looks).optional().default(undefined),
  ...readingsIfAny(),
  note: optionalText('Note', bounds.note),
  happenedAtMs: instant('Time it happened'),
}).test('some', 'A bag holds at least one animal', ({ alive, dead }) => [alive, dead].some((count) => typeof count === 'number' && count > 0))
export type AddBag = InferType<typeof addBagSchema>

/** What fish are called until somebody names them. */
export const unidentified = 'Not identified yet'

/** Says what a lot is, and how sure one is. What was counted stays as it is. */
export const identifyLineSchema = strictObject({ species: text('Species', bounds.name), identity: choice('Identity', identities), strain: optionalText('Strain', bounds.name), version: version() })
export type IdentifyLine = InferType<typeof identifyLineSchema>

/** Closes a crate. With fish still in bags, or bags still shut, it needs a reason. */
export const closeCrateSchema = strictObject({ because: optionalText('Reason', bounds.note), version: version() })
export type CloseCrate = InferType<typeof closeCrateSchema>

/** Opens a closed crate again. */
export const reopenCrateSchema = strictObject({ version: version() })
export type ReopenCrate = InferType<typeof reopenCrateSchema>

/** Takes back what was recorded for these bags. */
export const undoBagsSchema = strictObject({ bagIds: bagIds(), happenedAtMs: instant('Time it happened') })
export type UndoBags = InferType<typeof undoBagsSchema>

/** Fish go from their bags to the planned tanks: to one of them, or (null) to all that break no rule. */
export const placeBagsSchema = strictObject({ tankId: optionalIdentifier('Tank'), ...againstRule(), happenedAtMs: instant('Time it happened') })
export type PlaceBags = InferType<typeof placeBagsSchema>

/** Takes one placing back: all its fish return to their bags, or none do. */
export const undoPlacementSchema = strictObject({ placementKey: identifier('Placing'), happenedAtMs: instant('Time it happened') })
export type UndoPlacement = InferType<typeof undoPlacementSchema>

/** Chooses the tank of a line; `version` is the one the person saw. */
export const chooseTankSchema = strictObject({ tankId: optionalIdentifier('Tank'), override: override(), version: version() })
export type ChooseTank = InferType<typeof chooseTankSchema>
