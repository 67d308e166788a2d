import { string, type InferType } from 'yup'
import { instant, strictObject } from '../fields/fields.schema'

/** Longest text of a picture in a request: about 1.4 MB of picture. */
export const mostImageText = 1_900_000
/** Pictures that a bag may have. */
export const mostPhotosOfBag = 6

/** A picture of a bag, as base64 of a JPEG, PNG or WebP file. */
export const addPhotoSchema = strictObject({
  image: string()
    .typeError('The picture must be text in base64')
    .defined('The picture is missing')
    .nonNullable('The picture is missing')
    .min(1, 'The picture is empty')
    .max(mostImageText, 'The picture is too large; take a smaller one')
    .matches(/^[A-Za-z0-9+/]*={0,2}$/, { message: 'The picture must be text in base64', excludeEmptyString: true }),
  happenedAtMs: instant('Time it happened'),
})
export type AddPhoto = InferType<typeof addPhotoSchema>

/** Takes a picture away; the entry stays in the books. */
export const removePhotoSchema = strictObject({ happenedAtMs: instant('Time it happened') })
export type RemovePhoto = InferType<typeof removePhotoSchema>
