import type { InferType } from 'yup'
import { bounds, choice, optionalInstant, optionalMeasure, optionalText, strictObject, whole } from '../fields/fields.schema'
import { claimStates } from './claim'

/** Where a claim stands. `version` is the one the person saw, 0 before anything was kept of it. */
export const editClaimSchema = strictObject({
  state: choice('State', claimStates),
  note: optionalText('Note to the supplier', bounds.note),
  settledAmount: optionalMeasure('Amount settled', '', 0, 10_000_000),
  atMs: optionalInstant('Time'),
  version: whole('Version', 0, 1_000_000_000),
}).test('amount', '', (claim, context) =>
  claim?.state === 'settled' && claim.settledAmount === null ? context.createError({ path: 'settledAmount', message: 'Amount settled is missing; 0 when nothing was made good' }) : true,
)
export type EditClaim = InferType<typeof editClaimSchema>
