import { array, type InferType } from 'yup'
import { optionalDay } from '../fields/days.schema'
import { bounds, choice, identifier, instant, optionalChoice, optionalIdentifier, optionalMeasure, optionalText, optionalWhole, strictObject, whole } from '../fields/fields.schema'
import { movedTogether } from '../moves/moves.schema'
import { readingNames } from '../room/glass.schema'

/** Facts that a plan can be made to wait for today; the others come with what writes them down. */
export const offeredFacts = ['date', 'empty', 'free', 'size', 'hold', 'crate', 'thing', 'count', 'reading', 'done'] as const
export type OfferedFact = (typeof offeredFacts)[number]

/** What each fact has to say. */
const needs: Record<OfferedFact, readonly (readonly [slot: string, words: string])[]> = {
  date: [['on', 'Say the day']],
  empty: [['tankId', 'Say which tank']],
  free: [['tankId', 'Say which tank']],
  size: [['cm', 'Say how long they are to be']],
  hold: [],
  crate: [['crateId', 'Say which crate']],
  thing: [['thing', 'Say what is to come'], ['n', 'Say how many']],
  count: [['tankId', 'Say which tank'], ['n', 'Say how many fish may be left']],
  reading: [['tankId', 'Say which tank'], ['reading', 'Say which reading']],
  done: [['planId', 'Say which plan']],
}

const isBlank = (value: unknown): boolean => value === null || value === undefined || (typeof value === 'string' && value.trim() === '')

/** One thing a plan waits for. *size* and *hold* are of the plan's own fish; `isEstimateEnough` where a reckoned length does. */
export const planFactSchema = strictObject({
  is: choice('What it waits for', offeredFacts),
  on: optionalDay('Day').optional(),
  tankId: optionalIdentifier('Tank').optional(),
  cm: optionalMeasure('Length', 'cm', 0.1, 500).optional(),
  by: optionalChoice('How the length is known', ['entered', 'estimated'] as const).optional(),
  crateId: optionalIdentifier('Crate').optional(),
  thing: optionalText('Thing', bounds.name).optional(),
  n: optionalWhole('Number', 0, 100_000).optional(),
  reading: optionalChoice('Reading', readingNames).optional(),
  min: optionalMeasure('The least', '', 0, 1000).optional(),
  max: optionalMeasure('The most', '', 0, 1000).optional(),
  planId: optionalIdentifier('Plan').optional(),
})
  .required('What it waits for is missing')
  .test('complete', '', (fact, context) => {
    const missing = (offeredFacts.find((each) => each === fact.is) ? needs[fact.is] : []).find(([slot]) => isBlank((fact as Record<string, unknown>)[slot]))
    return missing ? context.createError({ path: `${context.path}.${missing[0]}`, message: missing[1] }) : true
  })
  .test('range', '', ({ is, min, max }, context) => {
    const message = is !== 'reading' ? null : isBlank(min) && isBlank(max) ? 'Say the most, the least or both' : typeof min === 'number' && typeof max === 'number' && min > max ? 'The most is below the least' : null
    return message === null || context.createError({ path: `${context.path}.max`, message })
  })
export type PlanFactInput = InferType<typeof planFactSchema>

/** A move that waits. */
export const makePlanSchema = strictObject({
  fromTankId: identifier('From'),
  toTankId: identifier('To'),
  fish: movedTogether(),
  /** Whether all of it has to be so, or any. */
  join: choice('All or any', ['all', 'any'] as const),
  facts: array().of(planFactSchema).typeError('What it waits for must be a list').defined('What it waits for is missing').nonNullable('What it waits for is missing').min(1, 'Say what it waits for').max(12, 'At most 12 facts in one plan'),
  takes: choice('The tank', ['whole', 'share'] as const),
  untilOn: optionalDay('Last day'),
  note: optionalText('Note', bounds.note),
  /** Why it is kept though it is stuck, or counts on what another plan has: a lead says so. */
  override: optionalText('Reason', bounds.note).optional(),
})
export type MakePlan = InferType<typeof makePlanSchema>

/** A plan is over: somebody carried it out by hand, or nobody wants it any more; or it is open again. */
export const planEnds = ['done', 'dropped', 'open'] as const
export type PlanEnd = (typeof planEnds)[number]
export const endPlanSchema = strictObject({ as: choice('How it ends', planEnds) })
export type EndPlan = InferType<typeof endPlanSchema>

/** So many of something are in the house now. */
export const countThingSchema = strictObject({ thing: optionalText('Thing', bounds.name).test('named', 'Say what was counted', (value) => Boolean(value?.trim())), have: whole('Number', 0, 100_000) })
export type CountThing = InferType<typeof countThingSchema>

/** Fish of a kind in a tank were measured: about so long they are. */
export const recordLengthSchema = strictObject({ speciesId: identifier('Species'), strain: optionalText('Strain', bounds.name), cm: optionalMeasure('Length', 'cm', 0.1, 500).nonNullable('Say how long they are'), happenedAtMs: instant('Time it happened') })
export type RecordLength = InferType<typeof recordLengthSchema>
