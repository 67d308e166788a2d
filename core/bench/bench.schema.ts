import { array, number, object, string, type InferType } from 'yup'
import { bounds, choice, identifier, instant, optionalChoice, optionalIdentifier, optionalMeasure, optionalText, strictObject, text, whole, yesNo } from '../fields/fields.schema'
import { schoolVariants, type SchoolVariant } from '../acclimation/schools'
import { lossCauses } from '../ledger/movement'
import { againstRule } from '../placing/override.schema'
import { figureInputs, wordInputs } from './bagFigures'
import { looksAfter } from './expectedCourse'
import { lookOutcomes } from './specialRuns'
import { runKinds } from './runPlan'

/** The figures of a bag and its tank, in base units; null where nobody knows. */
const figuresSchema = object(
  Object.fromEntries(
    figureInputs.map(({ name, label, min, max, unit, quantity, isOptional }) => {
      const where = `${label} must be a number between ${min} and ${max}${unit ? ` ${unit}` : quantity === 'temperature' ? ' °C' : quantity === 'salinity' ? ' ppt' : quantity === 'volume' ? ' L' : ''}`
      const field = number().typeError(where).min(min, where).max(max, where).nullable().defined(`${label} is missing (send null when not known)`)
      return [name, isOptional ? field : field.nonNullable(`Say the ${label}`)]
    }),
  ),
)
  .defined('The figures are missing')
  .nonNullable('The figures are missing')
  .noUnknown('The figures name something that no bag has')
const wordsSchema = object(Object.fromEntries(wordInputs.map(({ name, label, options = [] }) => [name, choice(label, options)])))
  .defined('The words are missing')
  .nonNullable('The words are missing')
  .noUnknown('The words name something that no bag has')

/** `isOfKind`: so many of the kind that this lot is of, whichever lot they are. */
const sourceSchema = strictObject({ placeId: identifier('Place'), lotId: identifier('Lot'), quantity: whole('Number of fish', 1, bounds.fishInLine), isOfKind: yesNo('Of a kind').optional() })
const happenedAtMs = () => instant('Time it happened')

/** Begins a run: which fish, by which school, into which tank. */
export const startRunSchema = strictObject({
  kind: choice('Kind', runKinds),
  schoolKey: string().typeError('School must be named').nullable().defined('School is missing').max(64, 'There is no such school'),
  /** The school done another way; the plain one where left out. */
  variant: optionalChoice('Variant', schoolVariants).optional(),
  agentId: optionalIdentifier('Agent'),
  sources: array().of(sourceSchema).typeError('The fish must be a list').defined('The fish are missing').nonNullable('The fish are missing').min(1, 'No fish are named').max(200, 'At most 200 bags at once'),
  tankId: optionalIdentifier('Tank'),
  ...againstRule(),
  /** Whom the fish go to when they leave the room; null when they stay. */
  toOutside: optionalText('Goes to', bounds.name),
  isPooled: yesNo('Together'),
  vessel: text('Vessel', bounds.name),
  vesselL: number().typeError('Vessel must be a number of litres').defined('Vessel is missing').nonNullable('Vessel is missing').min(0.2, 'A vessel holds at least 0.2 L').max(5000, 'A vessel holds at most 5000 L'),
  dropsPerMl: number().typeError('Drops must be a number').defined('Drops are missing').nonNullable('Drops are missing').min(5, 'A millilitre has at least 5 drops').max(60, 'A millilitre has at most 60 drops'),
  isDark: yesNo('Lights off'),
  figures: figuresSchema,
  words: wordsSchema,
  sentence: optionalText('Recommendation', 2000),
  predicted: strictObject({ worst: number().typeError('Worst must be a number').defined('Worst is missing').nonNullable('Worst is missing').min(0, 'Worst must be at least 0').max(1e6, 'Worst is too large'), binds: text('Limit', 20) }).nullable().defined('Prediction is missing (send null when there is none)'),
  happenedAtMs: happenedAtMs(),
})
export interface StartRun {
  kind: (typeof runKinds)[number]
  schoolKey: string | null
  variant?: SchoolVariant | null
  agentId: string | null
  sources: { placeId: string; lotId: string; quantity: number; isOfKind?: boolean | undefined }[]
  tankId: string | null
  override?: string | null | undefined
  isRescue?: boolean | undefined
  toOutside: string | null
  isPooled: boolean
  vessel: string
  vesselL: number
  dropsPerMl: number
  isDark: boolean
  figures: Record<string, number | null>
  words: Record<string, string>
  sentence: string | null
  predicted: { worst: number; binds: string } | null
  happenedAtMs: number
}

/** The step in hand is done. `stepIndex` is the one the person saw, so that two devices do not do two. */
export const doStepSchema = strictObject({ stepIndex: whole('Step', 0, 500), happenedAtMs: happenedAtMs() })
export type DoStep = InferType<typeof doStepSchema>

/** Something read from the vessel, by hand or by the simulated meter. */
export const recordRunReadingSchema = strictObject({
  tempC: optionalMeasure('Temperature', '°C', -2, 45),
  salinityPpt: optionalMeasure('Salinity', 'ppt', 0, 45),
  ph: optionalMeasure('pH', '', 4, 10.5),
  tanMgL: optionalMeasure('Total ammonia', 'mg/L as N', 0, 100),
  isSimulated: yesNo('Simulated'),
  happenedAtMs: happenedAtMs(),
}).test('some', 'Nothing was read', ({ tempC, salinityPpt, ph, tanMgL }) => [tempC, salinityPpt, ph, tanMgL].some((value) => value !== null && value !== undefined))
export type RecordRunReading = InferType<typeof recordRunReadingSchema>

/** The flow as it was counted or set. Zero: it was shut. */
export const setFlowSchema = strictObject({ mlPerMin: number().typeError('Flow must be a number of mL a minute').defined('Flow is missing').nonNullable('Flow is missing').min(0, 'Flow must be at least 0 mL a minute').max(50_000, 'Flow must be at most 50 000 mL a minute'), happenedAtMs: happenedAtMs() })
export type SetFlow = InferType<typeof setFlowSchema>

/** Puts an alarm off for a while. */
export const snoozeAlarmSchema = strictObject({ alarm: text('Alarm', 40), happenedAtMs: happenedAtMs() })
export type SnoozeAlarm = InferType<typeof snoozeAlarmSchema>

export const runSwitches = ['air', 'binder'] as const
/** Air stone in or out, binder in the water or worn out. */
export const setRunSwitchSchema = strictObject({ what: choice('Switch', runSwitches), isOn: yesNo('On'), happenedAtMs: happenedAtMs() })
export type SetRunSwitch = InferType<typeof setRunSwitchSchema>

export const noteRunSchema = strictObject({ note: text('Note', bounds.note), happenedAtMs: happenedAtMs() })
export type NoteRun = InferType<typeof noteRunSchema>

/** Takes the newest thing back that was recorded on a run. */
export const undoRunEventSchema = strictObject({ eventId: identifier('Entry'), happenedAtMs: happenedAtMs() })
export type UndoRunEvent = InferType<typeof undoRunEventSchema>

/** Why a count and the books differ: whoever is not there any more was lost somehow, or was counted wrong before. */
export const differenceCauses = ['counted wrong before', 'jumped', 'eaten', 'pump intake', 'not found', 'unknown'] as const
export type DifferenceCause = (typeof differenceCauses)[number]

const countSchema = strictObject({
  lotId: identifier('Lot'),
  /** Fish of the kind that this lot is of, whichever lot they are. */
  isOfKind: yesNo('Of a kind').optional(),
  alive: whole('Alive', 0, bounds.fishInLine),
  dead: whole('Dead', 0, bounds.fishInLine),
  /** Fish of the books that are not there any more. Whoever is neither counted nor missing stays in the vessel. */
  missing: whole('Missing', 0, bounds.fishInLine).optional(),
  difference: optionalChoice('Cause of the difference', differenceCauses).optional(),
})
/** Counts fish out of their bags or vessel into the tank: all of them, or as many as go now. */
export const countOutSchema = strictObject({
  stepIndex: whole('Step', 0, 500),
  counts: array().of(countSchema).typeError('Counts must be a list').defined('Counts are missing').nonNullable('Counts are missing').min(1, 'Nothing was counted').max(200, 'At most 200 lots').test('distinct', 'A lot is counted twice', (value) => !value || new Set(value.map((each) => each?.lotId)).size === value.length),
  /** Another tank than planned; null for the planned one. */
  tankId: optionalIdentifier('Tank'),
  ...againstRule(),
  look: choice('How they look', looksAfter),
  cause: choice('Cause', lossCauses),
  note: optionalText('Note', bounds.note),
  happenedAtMs: happenedAtMs(),
})
export type CountOut = InferType<typeof countOutSchema>

/** Ends a run early. Fish in bags stay there; those in its vessel are in the tank that is named, as many as the books have. */
export const stopRunSchema = strictObject({ because: text('Reason', bounds.note), tankId: optionalIdentifier('Tank').optional(), ...againstRule(), happenedAtMs: happenedAtMs() })
export type StopRun = InferType<typeof stopRunSchema>

/** Ends a look through the bag. */
export const decideLookSchema = strictObject({ outcome: choice('Outcome', lookOutcomes), note: optionalText('Note', bounds.note), happenedAtMs: happenedAtMs() })
export type DecideLook = InferType<typeof decideLookSchema>

/** A recheck was done. */
export const doRecheckSchema = strictObject({ look: choice('How they look', looksAfter), note: optionalText('Note', bounds.note), happenedAtMs: happenedAtMs() })
export type DoRecheck = InferType<typeof doRecheckSchema>

/** Drops in a millilitre of an airline, counted into a measure. */
export const keepAirlineSchema = strictObject({ name: text('Airline', bounds.name), dropsPerMl: number().typeError('Drops must be a number').defined('Drops are missing').nonNullable('Drops are missing').min(5, 'A millilitre has at least 5 drops').max(60, 'A millilitre has at most 60 drops') })
export type KeepAirline = InferType<typeof keepAirlineSchema>
