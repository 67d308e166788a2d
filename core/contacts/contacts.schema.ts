import type { InferType } from 'yup'
import { bounds, choice, identifier, instant, optionalMeasure, optionalText, strictObject, whole, yesNo } from '../fields/fields.schema'
import type { ContactKind } from './contact'

const happenedAtMs = () => instant('Time it happened')

/** Contacts between two waters that somebody writes down; those of moves and tools write themselves. */
export const saidKinds = ['water', 'joined', 'decor', 'hose', 'splash', 'hands'] as const satisfies readonly ContactKind[]
export type SaidKind = (typeof saidKinds)[number]

/** Something went from the water of one tank into that of another. */
export const recordContactSchema = strictObject({
  kind: choice('What happened', saidKinds),
  fromTankId: identifier('Tank'),
  toTankId: identifier('Tank'),
  /** Whether somebody knows that it went this way only; hoses and splashes count both ways else. */
  isOneWay: yesNo('One way').optional(),
  /** Against the rules of the house: splashes, hoses and hands always are. */
  isBreach: yesNo('Breach').optional(),
  litres: optionalMeasure('Water', 'L', 0, 100_000),
  note: optionalText('Note', bounds.note),
  happenedAtMs: happenedAtMs(),
})
export type RecordContact = InferType<typeof recordContactSchema>

/** Two waters that were joined are so no more. */
export const endContactSchema = strictObject({ happenedAtMs: happenedAtMs() })
export type EndContact = InferType<typeof endContactSchema>

/** Takes back what was written down wrongly: it never happened. */
export const undoContactSchema = strictObject({ happenedAtMs: happenedAtMs() })
export type UndoContact = InferType<typeof undoContactSchema>

/** A tool set was in the water of a tank. */
export const useToolsSchema = strictObject({ tankId: identifier('Tank'), isBreach: yesNo('Breach').optional(), note: optionalText('Note', bounds.note), happenedAtMs: happenedAtMs() })
export type UseTools = InferType<typeof useToolsSchema>

/** A tool set goes into its bath, for as long as the label of the product says. */
export const beginBathSchema = strictObject({ needMinutes: whole('Contact time', 1, 10_080, 'min'), agent: optionalText('Agent', bounds.name), happenedAtMs: happenedAtMs() })
export type BeginBath = InferType<typeof beginBathSchema>
export const endBathSchema = strictObject({ happenedAtMs: happenedAtMs() })
export type EndBath = InferType<typeof endBathSchema>

/** An emptied water was sterilised and filled anew. */
export const clearWaterSchema = strictObject({ note: optionalText('Note', bounds.note), happenedAtMs: happenedAtMs() })
export type ClearWater = InferType<typeof clearWaterSchema>
