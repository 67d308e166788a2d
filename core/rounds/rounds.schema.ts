import { array, type InferType } from 'yup'
import { bounds, choice, choices, identifier, instant, optionalIdentifier, optionalText, optionalWhole, strictObject, whole, yesNo } from '../fields/fields.schema'

/** Everything that can be seen on fish, by where one looks; a closed list. */
export const signPlaces = [
  { place: 'breathing', signs: ['fast breathing', 'at the surface', 'gasping'] },
  { place: 'fins', signs: ['clamped fins', 'frayed fins'] },
  { place: 'colour', signs: ['pale', 'dark', 'redness'] },
  { place: 'skin', signs: ['spots', 'film', 'rubbing', 'wound'] },
  { place: 'eyes', signs: ['cloudy eye'] },
  { place: 'body', signs: ['thin', 'swollen', 'spits food'] },
  { place: 'posture', signs: ['hiding', 'on the bottom', 'listing', 'on its side'] },
  { place: 'company', signs: ['chased', 'chasing'] },
  { place: 'faeces', signs: ['stringy faeces'] },
] as const
export const signs = signPlaces.flatMap((each): readonly (typeof signPlaces)[number]['signs'][number][] => each.signs)
export type Sign = (typeof signs)[number]
/** 1: slight, or one fish; 2: clear, or several. */
export type Severity = 1 | 2
/** Signs that call for somebody at once. */
export const graveSigns: readonly Sign[] = ['gasping', 'on its side']

export const ateAnswers = ['all', 'most', 'some', 'none', 'not fed'] as const
/** Answers of fish that ate something. */
export const mealAnswers: readonly Ate[] = ['all', 'most', 'some']
export type Ate = (typeof ateAnswers)[number]

/** More is nothing that anybody says of one tank. */
const mostMarks = 100

/** What is known of a sign more closely; one that has no mark is slight and of the whole tank. */
const markSchema = strictObject({ sign: choice('Sign', signs), severity: whole('Severity', 1, 2), lotId: optionalIdentifier('Lot') })

/** Marks as far as they are any; what is none is refused by their own rule. */
const marksIn = (marks: unknown): { sign: Sign; lotId: string | null }[] => (Array.isArray(marks) ? marks.filter((mark) => mark !== null && typeof mark === 'object') : [])

/** How one lot ate, where the tank as a whole ate otherwise. */
const ownAnswerSchema = strictObject({ lotId: identifier('Lot'), ate: choice('Feeding', ateAnswers) })
/** How many of one kind were seen; any of its lots names it. */
const countSchema = strictObject({ lotId: identifier('Lot'), seen: whole('Number seen', 0, bounds.fishInLine) })
const mostOfTank = 100

/** Answers whether a list names a lot twice; what is no list is refused by its own rule. */
const isTwice = (rows: unknown): boolean => Array.isArray(rows) && new Set(rows.map((row: { lotId?: unknown } | null) => row?.lotId)).size < rows.length

/** One look at one tank. `seen` is null when nobody counted; `replacesId` names a check of this round that it corrects, by its id or by the key it was sent with. */
export const recordCheckSchema = strictObject({
  tankId: identifier('Tank'),
  /** The round it was entered in, whatever day it is sent on. Devices of an earlier version name its number alone. */
  roundId: identifier('Round').optional(),
  roundNumber: whole('Round', 1, 99),
  ate: choice('Feeding', ateAnswers),
  signs: choices('Signs', signs),
  marks: array().of(markSchema).typeError('Marks must be a list').nonNullable('Marks must be a list').max(mostMarks, `At most ${mostMarks} marks`).optional(),
  answers: array().of(ownAnswerSchema.required('A feeding response is missing')).typeError('Answers must be a list').nonNullable('Answers must be a list').max(mostOfTank, `At most ${mostOfTank} answers`).optional(),
  counts: array().of(countSchema.required('A count is missing')).typeError('Counts must be a list').nonNullable('Counts must be a list').max(mostOfTank, `At most ${mostOfTank} counts`).optional(),
  seen: optionalWhole('Number seen', 0, bounds.fishInLine),
  note: optionalText('Note', bounds.note),
  replacesId: optionalIdentifier('Check'),
  happenedAtMs: instant('Time it happened'),
})
  .test('once', (check, context) => {
    const path = (['answers', 'counts'] as const).find((list) => isTwice(check[list]))
    return path === undefined ? true : context.createError({ path, message: 'A lot is named twice' })
  })
  .test('marks', ({ signs: named, marks }, context) => {
    const all = marksIn(marks)
    const isStray = Array.isArray(named) && !all.every(({ sign }) => named.includes(sign))
    const isRepeated = new Set(all.map(({ sign, lotId }) => JSON.stringify([sign, lotId]))).size < all.length
    if (isStray) return context.createError({ path: 'marks', message: 'A mark names a sign that is not among the signs' })
    return isRepeated ? context.createError({ path: 'marks', message: 'A sign is marked twice for one lot' }) : true
  })
export type RecordCheck = InferType<typeof recordCheckSchema>

/** What is decided of a sign: it is one, so that holds begin again; it is none; it is known, and raises nothing for some days. */
export const signDecisions = ['confirmed', 'dismissed', 'known'] as const
export type SignDecisionAs = (typeof signDecisions)[number]
/** Fish found dead are decided about like a sign. */
export const decidedSigns = [...signs, 'death'] as const
export type DecidedSign = (typeof decidedSigns)[number]
/** A sign is known for a week at most: then somebody looks anew. */
export const mostKnownDays = 7

/** What somebody decides of a sign that was seen in a tank; `lotId` null for one of the whole tank. */
export const decideSignSchema = strictObject({
  sign: choice('Sign', decidedSigns),
  lotId: optionalIdentifier('Lot'),
  decision: choice('Decision', signDecisions),
  days: optionalWhole('Days', 1, mostKnownDays),
  note: optionalText('Reason', bounds.note),
  happenedAtMs: instant('Time it happened'),
})
  .test('days', ({ decision, days }, context) => decision !== 'known' || typeof days === 'number' || context.createError({ path: 'days', message: 'Say for how many days it is known' }))
  .test('why', ({ decision, note }, context) => decision !== 'dismissed' || (typeof note === 'string' ? note.trim() !== '' : note !== null && note !== undefined) || context.createError({ path: 'note', message: 'Say why it is no sign' }))
export type DecideSign = InferType<typeof decideSignSchema>
export const undoDecisionSchema = strictObject({})

/** More people stand in each other's way. */
export const mostWalkers = 6
/** A round is walked by so many people; by one, it is split no more. */
export const splitRoundSchema = strictObject({ people: whole('People', 1, mostWalkers), happenedAtMs: instant('Time it happened') })
export type SplitRound = InferType<typeof splitRoundSchema>

/** Somebody leaves a round before its end. */
export const leaveRoundSchema = strictObject({ happenedAtMs: instant('Time it happened') })
export type LeaveRound = InferType<typeof leaveRoundSchema>

/** Ends a round, whatever was not checked in it, or opens it again. */
export const closeRoundSchema = strictObject({ isClosed: yesNo('Closed'), happenedAtMs: instant('Time it happened') })
export type CloseRound = InferType<typeof closeRoundSchema>
