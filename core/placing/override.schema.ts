import { bounds, optionalText } from '../fields/fields.schema'

/** Why a lead puts fish into a tank against a hard rule; left out where none is broken. */
export const override = () => optionalText('Reason', bounds.note).optional()
