import type { InferType } from 'yup'
import { bounds, choice, choices, identifier, instant, optionalIdentifier, optionalText, optionalWhole, strictObject, whole, yesNo } from '../fields/fields.schema'

export const signs = ['hiding', 'fast breathing', 'clamped fins', 'pale', 'spots', 'film', 'frayed fins', 'wound', 'thin', 'chased', 'stringy faeces', 'gasping', 'on its side'] as const
export type Sign = (typeof signs)[number]
/** Signs that call for somebody at once. */
export const graveSigns: readonly Sign[] = ['gasping', 'on its side']

export const ateAnswers = ['all', 'some', 'none', 'not fed'] as const
export type Ate = (typeof ateAnswers)[number]

/** One look at one tank. `seen` is null when nobody counted; `replacesId` names a check of this round that it corrects. */
export const recordCheckSchema = strictObject({
  tankId: identifier('Tank'),
  /** The round it was entered in, whatever day it is sent on. Devices of an earlier version name its number alone. */
  roundId: identifier('Round').optional(),
  roundNumber: whole('Round', 1, 99),
  ate: choice('Feeding', ateAnswers),
  signs: choices('Signs', signs),
  seen: optionalWhole('Number seen', 0, bounds.fishInLine),
  note: optionalText('Note', bounds.note),
  replacesId: optionalIdentifier('Check'),
  happenedAtMs: instant('Time it happened'),
})
export type RecordCheck = InferType<typeof recordCheckSchema>

/** Somebody leaves a round before its end. */
export const leaveRoundSchema = strictObject({ happenedAtMs: instant('Time it happened') })
export type LeaveRound = InferType<typeof leaveRoundSchema>

/** Ends a round, whatever was not checked in it, or opens it again. */
export const closeRoundSchema = strictObject({ isClosed: yesNo('Closed'), happenedAtMs: instant('Time it happened') })
export type CloseRound = InferType<typeof closeRoundSchema>
