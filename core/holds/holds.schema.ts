import { array, number, string, type InferType } from 'yup'
import { bounds, choice, identifier, instant, optionalIdentifier, optionalText, strictObject, text, whole } from '../fields/fields.schema'

const happenedAtMs = () => instant('Time it happened')

/** Fish of one lot where they stand: a tank, or a bucket. */
const heldFish = () => strictObject({ lotId: identifier('Lot'), placeId: identifier('Place') })
/** No room holds more groups of fish at once. */
export const mostHeld = 500
const fishList = () => array().of(heldFish().required('Fish are missing')).typeError('Fish must be a list').required('Fish are missing').min(1, 'Choose the fish').max(mostHeld, `At most ${mostHeld} at once`)

/** What somebody says of signs of one word in one tank, or of a breach, that holds wait for. */
export const heldDecisions = ['confirmed', 'dismissed'] as const
export type HeldDecision = (typeof heldDecisions)[number]
const whyNone = ({ decision, note }: { decision?: string; note?: string | null | undefined }): boolean => decision !== 'dismissed' || (typeof note === 'string' && note.trim() !== '')

export const decideHeldSignSchema = strictObject({ tankId: identifier('Tank'), word: text('Sign', 40), decision: choice('Decision', heldDecisions), note: optionalText('Reason', bounds.note), happenedAtMs: happenedAtMs() })
  .test('why', (value, context) => whyNone(value) || context.createError({ path: 'note', message: 'Say why it is no sign' }))
export type DecideHeldSign = InferType<typeof decideHeldSignSchema>
export const decideBreachSchema = strictObject({ decision: choice('Decision', heldDecisions), note: optionalText('Reason', bounds.note) })
  .test('why', (value, context) => whyNone(value) || context.createError({ path: 'note', message: 'Say why nothing can have come across' }))
export type DecideBreach = InferType<typeof decideBreachSchema>

/** Ends holds: of what is ready by anybody, of others by a lead who says why. */
export const endHoldsSchema = strictObject({ fish: fishList(), reason: optionalText('Reason', bounds.note), happenedAtMs: happenedAtMs() })
export type EndHolds = InferType<typeof endHoldsSchema>

/** Another policy from now on, at its first phase unless one is named; or a first one for fish that have none. */
export const changeHoldSchema = strictObject({ fish: fishList(), policyId: text('Policy', 40), phase: optionalText('Phase', 40), reason: text('Reason', bounds.note), happenedAtMs: happenedAtMs() })
export type ChangeHold = InferType<typeof changeHoldSchema>

export const lengthenHoldSchema = strictObject({ fish: fishList(), days: whole('Days', 1, 365), reason: text('Reason', bounds.note), happenedAtMs: happenedAtMs() })
export type LengthenHold = InferType<typeof lengthenHoldSchema>

/** How well fleshed fish are, by the eye. */
export const bodyStates = ['thin', 'normal', 'full'] as const
export type BodyState = (typeof bodyStates)[number]
export const recordBodySchema = strictObject({ tankId: identifier('Tank'), lotId: optionalIdentifier('Lot'), state: choice('Body', bodyStates), happenedAtMs: happenedAtMs() })
export type RecordBody = InferType<typeof recordBodySchema>

/** An agent is in a water no more. */
export const recordClearedSchema = strictObject({ tankId: identifier('Tank'), agent: text('Agent', 80), happenedAtMs: happenedAtMs() })
export type RecordCleared = InferType<typeof recordClearedSchema>

export const undoHoldEntrySchema = strictObject({})

/** A few fish of two groups that stand together in a tank apart: how many there are of each, the books know. */
export const startPairingSchema = strictObject({
  lotA: identifier('First group'),
  lotB: identifier('Second group'),
  tankId: identifier('Tank'),
  looksH: array().of(number().typeError('Hours must be numbers').integer('Hours must be whole').min(1, 'Hours must be at least 1').max(2000, 'Hours must be at most 2000').required('Hours are missing')).typeError('Looks must be a list of hours').required('Looks are missing').min(1, 'Plan at least one look').max(20, 'At most 20 looks'),
  happenedAtMs: happenedAtMs(),
})
  .test('apart', ({ lotA, lotB }, context) => lotA !== lotB || context.createError({ path: 'lotB', message: 'Name two groups' }))
export type StartPairing = InferType<typeof startPairingSchema>
export const endPairingSchema = strictObject({ reason: text('Reason', bounds.note), happenedAtMs: happenedAtMs() })
export type EndPairing = InferType<typeof endPairingSchema>

/** A policy as it is typed: JSON is read by `readPolicy`, since gates and phases have many shapes. */
export const savePolicySchema = strictObject({ policy: text('Policy', 20_000), version: whole('Version', 0, 1_000_000_000) })
export type SavePolicy = InferType<typeof savePolicySchema>
export const retirePolicySchema = strictObject({ isRetired: whole('Out of use', 0, 1), version: whole('Version', 0, 1_000_000_000) })
export type RetirePolicy = InferType<typeof retirePolicySchema>

const maybe = (label: string) => string().typeError(`${label} must be text`).max(120, `${label} may have at most 120 characters`).optional()
export const saveHoldRulesSchema = strictObject({
  rules: array()
    .of(strictObject({ policy: text('Policy', 40), water: maybe('Water'), group: maybe('Group'), supplier: maybe('Supplier'), origin: maybe('Origin') }).required('A rule is missing'))
    .typeError('Rules must be a list')
    .required('Rules are missing')
    .max(100, 'At most 100 rules'),
  version: whole('Version', 0, 1_000_000_000),
})
export type SaveHoldRules = InferType<typeof saveHoldRulesSchema>
