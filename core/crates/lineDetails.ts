import { bounds, optionalChoice, optionalMeasure, optionalText, optionalWhole, text, whole } from '../fields/fields.schema'
import { identities, origins, type Identity, type Origin } from '../setup/words'

/** What every line says, as it is sent or stands in a file. */
export const fishAndBags = () => ({
  species: text('Species', bounds.name),
  count: whole('Count', 1, bounds.fishInLine),
  bags: whole('Bags', 1, bounds.bagsInCrate),
  perBag: optionalWhole('Per bag', 1, bounds.fishInBag),
})

/** What else may be known of a line, beside its fish and bags; null when nobody said. */
export interface LineDetails {
  origin: Origin | null
  strain: string | null
  identity: Identity | null
  promisedTo: string | null
  /** Fish on the invoice. */
  billed: number | null
  /** Size of one animal as it is sent. */
  sizeCm: number | null
  priceEach: number | null
  capture: string | null
  ateBefore: string | null
  note: string | null
}

/** The same as it is sent or stands in a file; whatever is left out counts as not said. */
export const lineDetails = () => ({
  origin: optionalChoice('Origin', origins).optional(),
  strain: optionalText('Strain', bounds.name).optional(),
  identity: optionalChoice('Identity', identities).optional(),
  promisedTo: optionalText('Promised to', bounds.name).optional(),
  billed: optionalWhole('Billed', 0, bounds.fishInLine).optional(),
  sizeCm: optionalMeasure('Size', 'cm', 0.2, 200).optional(),
  priceEach: optionalMeasure('Price of one', '', 0, 1_000_000).optional(),
  capture: optionalText('Capture', bounds.name).optional(),
  ateBefore: optionalText('Seen eating', bounds.name).optional(),
  note: optionalText('Note', bounds.note).optional(),
})
