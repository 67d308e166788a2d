import { array, type InferType } from 'yup'
import { againstRule } from '../placing/override.schema'
import { bounds, choice, identifier, instant, optionalChoice, optionalIdentifier, optionalText, optionalWhole, strictObject, yesNo } from '../fields/fields.schema'
import { introductionEvents, lookLevels } from './introductionState'
import { movedTogether } from './moves.schema'

const happenedAtMs = () => instant('Time it happened')

/** Fish of a kind that come in, as they were when the introduction began. */
export type Newcomers = { speciesId: string; strain: string | null; lotIds: string[]; name: string; quantity: number }[]

/** Begins an introduction: its plan is made anew from what stands in the books then. */
export const beginIntroductionSchema = strictObject({
  tankId: identifier('Tank'),
  fromTankId: identifier('Tank'),
  fish: movedTogether(),
  hasMirror: yesNo('Mirror'),
  hasDivider: yesNo('Divider'),
  /** Kinds that somebody knows to rule the tank; none leaves it to a guess by their size. */
  dominants: array().of(identifier('Fish')).typeError('Dominants must be a list').defined('Dominants are missing').nonNullable('Dominants are missing').max(20, 'At most 20 kinds'),
  happenedAtMs: happenedAtMs(),
})
export type BeginIntroduction = InferType<typeof beginIntroductionSchema>

/**
 * Something happened: a step was done, newcomers went in, somebody looked, a bully went into its box and came back. What
 * moves fish goes through the check of moves.
 */
export const recordIntroductionSchema = strictObject({
  kind: choice('What happened', [...introductionEvents, 'step'] as const),
  stepIndex: optionalWhole('Step', 0, 100),
  /** Which kind of fish it was about. */
  who: optionalText('Fish', bounds.name),
  level: optionalChoice('What was seen', lookLevels),
  /** The box a bully goes into. */
  vesselId: optionalIdentifier('Box'),
  /** Where newcomers that are taken out go. */
  toTankId: optionalIdentifier('Tank'),
  ...againstRule(),
  note: optionalText('Note', bounds.note),
  happenedAtMs: happenedAtMs(),
})
export type RecordIntroduction = InferType<typeof recordIntroductionSchema>

/** Takes the newest entry of an introduction back, with the fish it moved. */
export const undoIntroductionSchema = strictObject({ happenedAtMs: happenedAtMs() })
/** Closes one that goes on no more. */
export const endIntroductionSchema = strictObject({ happenedAtMs: happenedAtMs() })
