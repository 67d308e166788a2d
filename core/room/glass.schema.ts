import { type InferType } from 'yup'
import { bounds, choice, instant, optionalMeasure, optionalText, strictObject, text } from '../fields/fields.schema'
import { addPhotoSchema } from '../crates/photo.schema'
import { markedUnits, showSet, type DisplayUnits, type Quantity } from '../units/units'

/** What is read at a tank. */
export const readingNames = ['tempC', 'salinityPpt', 'ph', 'ammoniaMgL', 'freeAmmoniaMgL', 'nitriteMgL', 'nitrateMgL', 'copperMgL'] as const
export type ReadingKind = (typeof readingNames)[number]

/** Each with its unit (`quantity` where people choose the unit they see it in) and the range that instruments have, in °C, ppt, mg/L. */
export const readingKinds: Readonly<Record<ReadingKind, { label: string; unit: string; quantity?: Quantity; min: number; max: number }>> = {
  tempC: { label: 'temperature', unit: '°C', quantity: 'temperature', min: 0, max: 45 },
  salinityPpt: { label: 'salinity', unit: 'ppt', quantity: 'salinity', min: 0, max: 60 },
  ph: { label: 'pH', unit: '', min: 3, max: 11 },
  ammoniaMgL: { label: 'ammonia, total as N', unit: 'mg/L', min: 0, max: 100 },
  freeAmmoniaMgL: { label: 'free ammonia by badge, as N', unit: 'mg/L', min: 0, max: 10 },
  nitriteMgL: { label: 'nitrite as N', unit: 'mg/L', min: 0, max: 100 },
  nitrateMgL: { label: 'nitrate as N', unit: 'mg/L', min: 0, max: 1000 },
  copperMgL: { label: 'copper', unit: 'mg/L', min: 0, max: 10 },
}

/** What a badge that shows free ammonia by its colour tells apart, mg/L as N; the badge's own card says which colour is which. */
export const badgeSteps = [0, 0.02, 0.05, 0.2, 0.5] as const

/** A reading with its unit, in the units people see. */
export function showReading(what: ReadingKind, value: number, units: DisplayUnits): string {
  const { quantity, unit } = readingKinds[what]
  return quantity ? showSet(quantity, value, units) : `${Number(value.toFixed(3))} ${unit}`.trim()
}

/** Somebody read a figure at a tank; it holds for all of its water. */
export const recordReadingSchema = strictObject({
  what: choice('What was read', readingNames),
  value: optionalMeasure('Reading', '', 0, 1000)
    .nonNullable('Say what was read')
    .test('range', '', (value, { parent, createError }) => {
      const name = readingNames.find((each) => each === (parent as { what?: unknown }).what)
      if (name === undefined || typeof value !== 'number') return true
      const { label, min, max } = readingKinds[name]
      if (value >= min && value <= max) return true
      return createError({ message: `A reading of ${label} lies between ${showReading(name, min, markedUnits)} and ${showReading(name, max, markedUnits)}` })
    }),
  instrument: optionalText('Read with', bounds.name),
  happenedAtMs: instant('Time it happened'),
})
export type RecordReading = InferType<typeof recordReadingSchema>

/** A note that hangs on the glass until somebody takes it off. */
export const pinNoteSchema = strictObject({ words: text('Note', 200) })
export type PinNote = InferType<typeof pinNoteSchema>

/** Takes something off that was put there: a note, a picture, a reading. */
export const takeOffSchema = strictObject({})

export const addTankPhotoSchema = addPhotoSchema
/** Pictures that a tank shows at once. */
export const mostPhotosOfTank = 60
