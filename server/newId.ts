import { randomBytes } from 'node:crypto'

/** Makes an opaque identifier of 16 characters: letters, digits, `-` and `_`. */
export const newId = (): string => randomBytes(12).toString('base64url')
