import { array, type InferType } from 'yup'
import { againstRule } from '../placing/override.schema'
import { recordLossSchema } from '../ledger/ledger.schema'
import { choice, identifier, instant, optionalChoice, optionalIdentifier, optionalText, strictObject, text, whole, yesNo, bounds } from '../fields/fields.schema'
import { fightHarms } from './fightWeight'

const happenedAtMs = () => instant('Time it happened')

/** As people tell them apart. */
export const sexes = ['male', 'female'] as const
export type Sex = (typeof sexes)[number]

/** Fish of one kind that are to be moved; `lotIds` are those they can only have been. */
export const movedFishSchema = strictObject({
  speciesId: identifier('Species'),
  strain: optionalText('Strain', bounds.name),
  lotIds: array().of(identifier('Lot')).typeError('Lots must be a list').max(50, 'At most 50 lots at once').optional(),
  quantity: whole('Number of fish', 1, bounds.fishInLine),
  /** Those that somebody chose one by one; the ledger counts them with the others. */
  chosen: array()
    .of(strictObject({ sex: optionalChoice('Sex', sexes), mark: optionalText('Mark', bounds.name) }))
    .typeError('Chosen fish must be a list')
    .max(50, 'At most 50 chosen fish at once')
    .test('few', 'More fish are chosen than go', (chosen, { parent }) => {
      const { quantity } = parent as { quantity?: unknown }
      // What is no number is said beside the number.
      return !chosen || typeof quantity !== 'number' || chosen.length <= quantity
    })
    .optional(),
})
export type MovedFish = InferType<typeof movedFishSchema>

export const movedTogether = () => array().of(movedFishSchema).typeError('Fish must be a list').defined('Fish are missing').nonNullable('Fish are missing').min(1, 'No fish is named').max(20, 'At most 20 kinds at once')

/** What a move check is asked about. */
export const moveCheckSchema = strictObject({ fish: movedTogether() })

export const standKinds = ['tank', 'vessel'] as const
export type StandKind = (typeof standKinds)[number]
/** Where fish stand: in a tank, or for a while in a bucket or a box. */
const standing = (label: string) => strictObject({ kind: choice(label, standKinds), id: identifier(label) }).required(`${label} is missing`)

/** Fish of one kind or several go together from one place to another: all of them or none. */
export const moveTogetherSchema = strictObject({
  from: standing('From'),
  to: standing('To'),
  fish: movedTogether(),
  toolSetId: optionalIdentifier('Tool set'),
  waterGoesAlong: yesNo('Water goes along'),
  /** The plan that this carries out. */
  planId: optionalIdentifier('Plan').optional(),
  ...againstRule(),
  note: optionalText('Note', bounds.note),
  happenedAtMs: happenedAtMs(),
})
export type MoveTogether = InferType<typeof moveTogetherSchema>

/** Fish died in a bucket or a box. */
export const loseInVesselSchema = recordLossSchema

/** A net, cup or bag was lifted in a tank. */
export const recordLiftSchema = strictObject({ happenedAtMs: happenedAtMs() })
export type RecordLift = InferType<typeof recordLiftSchema>

/** Two kinds fought; the same kind twice where it fights itself. */
export const recordFightSchema = strictObject({ speciesAId: identifier('Fish'), speciesBId: identifier('Fish'), harm: choice('What it did', fightHarms), happenedAtMs: happenedAtMs() })
export type RecordFight = InferType<typeof recordFightSchema>

/** Takes a lift or a fight back that was written down wrongly. */
export const undoSeenSchema = strictObject({ happenedAtMs: happenedAtMs() })

/** What the house wants to be other than shipped, as one JSON object. */
export const changeMoveRulesSchema = strictObject({ rules: text('Rules', 20_000), version: whole('Version', 0, 1_000_000_000) })
export type ChangeMoveRules = InferType<typeof changeMoveRulesSchema>
