import { type InferType } from 'yup'
import { bounds, choice, instant, optionalMeasure, optionalText, strictObject, text } from '../fields/fields.schema'
import { addPhotoSchema } from '../crates/photo.schema'

/** What is read at a tank, with its unit and the range that instruments have. */
export const readingKinds = {
  tempC: { label: 'temperature', unit: '°C', min: 0, max: 45 },
  salinityPpt: { label: 'salinity', unit: 'ppt', min: 0, max: 60 },
  ph: { label: 'pH', unit: '', min: 3, max: 11 },
  ammoniaMgL: { label: 'ammonia, total as N', unit: 'mg/L', min: 0, max: 100 },
  nitriteMgL: { label: 'nitrite as N', unit: 'mg/L', min: 0, max: 100 },
  nitrateMgL: { label: 'nitrate as N', unit: 'mg/L', min: 0, max: 1000 },
} as const
export type ReadingKind = keyof typeof readingKinds
export const readingNames = Object.keys(readingKinds) as ReadingKind[]

/** Somebody read a figure at a tank; it holds for all of its water. */
export const recordReadingSchema = strictObject({
  what: choice('What was read', readingNames),
  value: optionalMeasure('Reading', '', 0, 1000)
    .nonNullable('Say what was read')
    .test('range', '', (value, { parent, createError }) => {
      const name = readingNames.find((each) => each === (parent as { what?: unknown }).what)
      const kind = name === undefined ? null : readingKinds[name]
      if (!kind || typeof value !== 'number' || (value >= kind.min && value <= kind.max)) return true
      return createError({ message: `A reading of ${kind.label} lies between ${kind.min} and ${kind.max}${kind.unit ? ` ${kind.unit}` : ''}` })
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
