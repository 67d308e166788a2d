import { randomBytes } from 'node:crypto'

/** Makes an opaque identifier of 16 characters: letters, digits, `-` and `_`. */
export const newId = (): string => randomBytes(12).toString('base64url')

/** One that is played after all others of its minute: what is out of a water was in it before. */
export const lastId = (): string => `zzzz${newId()}`
