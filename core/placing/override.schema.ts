import { bounds, optionalText, yesNo } from '../fields/fields.schema'

/** Why fish are planned for a tank against a hard rule; a lead says so, and it is left out where none is broken. */
export const override = () => optionalText('Reason', bounds.note).optional()

/** The same for fish in the hand: in distress a keeper alone may go on as well, and a lead looks at it later. */
export const againstRule = () => ({ override: override(), isRescue: yesNo('Rescue').optional() })
