import { array, type InferType } from 'yup'
import { bounds, choice, choices, identifier, instant, optionalIdentifier, optionalText, optionalWhole, strictObject, whole, yesNo } from '../fields/fields.schema'

/** Signs that the card of a round shows. */
export const cardSigns = ['hiding', 'fast breathing', 'clamped fins', 'pale', 'spots', 'film', 'frayed fins', 'wound', 'thin', 'chased', 'stringy faeces', 'gasping', 'on its side'] as const
/** Everything that can be seen on fish; a closed list. */
export const signs = [...cardSigns, 'at the surface', 'dark', 'rubbing', 'redness', 'cloudy eye', 'swollen', 'spits food', 'on the bottom', 'listing', 'chasing'] as const
export type Sign = (typeof signs)[number]
/** 1: slight, or one fish; 2: clear, or several. */
export type Severity = 1 | 2
/** Signs that call for somebody at once. */
export const graveSigns: readonly Sign[] = ['gasping', 'on its side']

export const ateAnswers = ['all', 'most', 'some', 'none', 'not fed'] as const
/** Answers that the card of a round shows. */
export const cardAnswers = ['all', 'some', 'none', 'not fed'] as const
/** Answers of fish that ate something. */
export const mealAnswers: readonly Ate[] = ['all', 'most', 'some']
export type Ate = (typeof ateAnswers)[number]

/** More is nothing that anybody says of one tank. */
const mostMarks = 100

/** What is known of a sign more closely; one that has no mark is slight and of the whole tank. */
const markSchema = strictObject({ sign: choice('Sign', signs), severity: whole('Severity', 1, 2), lotId: optionalIdentifier('Lot') })

/** Marks as far as they are any; what is none is refused by their own rule. */
const marksIn = (marks: unknown): { sign: Sign; lotId: string | null }[] => (Array.isArray(marks) ? marks.filter((mark) => mark !== null && typeof mark === 'object') : [])

/** One look at one tank. `seen` is null when nobody counted; `replacesId` names a check of this round that it corrects. */
export const recordCheckSchema = strictObject({
  tankId: identifier('Tank'),
  /** The round it was entered in, whatever day it is sent on. Devices of an earlier version name its number alone. */
  roundId: identifier('Round').optional(),
  roundNumber: whole('Round', 1, 99),
  ate: choice('Feeding', ateAnswers),
  signs: choices('Signs', signs),
  marks: array().of(markSchema).typeError('Marks must be a list').nonNullable('Marks must be a list').max(mostMarks, `At most ${mostMarks} marks`).optional(),
  seen: optionalWhole('Number seen', 0, bounds.fishInLine),
  note: optionalText('Note', bounds.note),
  replacesId: optionalIdentifier('Check'),
  happenedAtMs: instant('Time it happened'),
})
  .test('marks', ({ signs: named, marks }, context) => {
    const all = marksIn(marks)
    const isStray = Array.isArray(named) && !all.every(({ sign }) => named.includes(sign))
    const isTwice = new Set(all.map(({ sign, lotId }) => JSON.stringify([sign, lotId]))).size < all.length
    if (isStray) return context.createError({ path: 'marks', message: 'A mark names a sign that is not among the signs' })
    return isTwice ? context.createError({ path: 'marks', message: 'A sign is marked twice for one lot' }) : true
  })
export type RecordCheck = InferType<typeof recordCheckSchema>

/** Somebody leaves a round before its end. */
export const leaveRoundSchema = strictObject({ happenedAtMs: instant('Time it happened') })
export type LeaveRound = InferType<typeof leaveRoundSchema>

/** Ends a round, whatever was not checked in it, or opens it again. */
export const closeRoundSchema = strictObject({ isClosed: yesNo('Closed'), happenedAtMs: instant('Time it happened') })
export type CloseRound = InferType<typeof closeRoundSchema>
