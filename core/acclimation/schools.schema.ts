import { array, number } from 'yup'
import { bounds, choice, optionalIdentifier, strictObject, text, whole, yesNo } from '../fields/fields.schema'
import type { Situation } from './question'
import { handlings, longestSchoolMin, schools as tradeSchools, type School, type SchoolStep } from './schools'

/** Steps that a house puts its own school together from. Crossings stay those of the trade: their ramp follows the limits. */
export const ownSteps = ['float', 'open', 'pour', 'fill', 'add', 'dump', 'wait', 'transfer'] as const
export type OwnStep = (typeof ownSteps)[number]

/** What each step asks for; shares are of the water one began with. */
export const stepFields: Record<OwnStep, readonly ('minutes' | 'times' | 'share' | 'handling')[]> = {
  float: [],
  open: ['minutes'],
  pour: [],
  fill: ['times', 'minutes', 'handling'],
  add: ['times'],
  dump: ['share'],
  wait: ['minutes', 'handling'],
  transfer: [],
}

const figure = (label: string, min: number, max: number) => number().typeError(`${label} must be a number`).nullable().defined(`${label} is missing (send null when it does not apply)`).min(min, `${label} must be at least ${min}`).max(max, `${label} must be at most ${max}`)

/** One step as it is kept and sent: every field there, null where the step does not ask for it. */
const stepSchema = strictObject({
  step: choice('Step', ownSteps),
  minutes: figure('Minutes', 0.5, 1440),
  times: figure('Times the water', 0.05, 20),
  share: figure('Share', 0.05, 0.95),
  handling: choice('Handling', [...handlings, 'none']),
}).test('complete', '', (value, context) => {
  const missing = (ownSteps.includes(value?.step as OwnStep) ? stepFields[value.step as OwnStep] : []).find((field) => value[field] === null || (field === 'handling' && value.handling === 'none'))
  return missing ? context.createError({ path: `${context.path}.${missing}`, message: `This step needs its ${missing}` }) : true
})
export interface KeptStep {
  step: OwnStep
  minutes: number | null
  times: number | null
  share: number | null
  handling: (typeof handlings)[number] | 'none'
}

const fields = {
  name: text('Name', bounds.name).test('own', 'The trade has a school of this name already', (value) => !tradeSchools.some(({ name }) => name.toLowerCase() === value?.trim().toLowerCase())),
  handsPerBagMin: number().typeError('Minutes must be a number').defined('Minutes are missing').nonNullable('Minutes are missing').min(0, 'Minutes must be at least 0').max(600, 'Minutes must be at most 600'),
  handsPerLotMin: number().typeError('Minutes must be a number').defined('Minutes are missing').nonNullable('Minutes are missing').min(0, 'Minutes must be at least 0').max(600, 'Minutes must be at most 600'),
  steps: array()
    .of(stepSchema)
    .typeError('The steps must be a list')
    .defined('The steps are missing')
    .nonNullable('The steps are missing')
    .min(1, 'A school has at least one step')
    .max(40, 'A school has at most 40 steps')
    .test('long', 'The steps take at most three days together', (value) => (value ?? []).reduce((sum, each) => sum + (typeof each?.minutes === 'number' ? each.minutes : 0), 0) <= longestSchoolMin)
    .test('ends', 'The last step takes the fish into the tank', (value) => !value?.length || value.at(-1)?.step === 'transfer')
    .test('once', 'Fish go into the tank once, at the end', (value) => (value ?? []).filter((each) => each?.step === 'transfer').length <= 1),
}
export interface KeepSchool {
  name: string
  handsPerBagMin: number
  handsPerLotMin: number
  steps: KeptStep[]
}
/** A new school of the house. */
export const addSchoolSchema = strictObject(fields)
/** Changes one; `version` is the one the person saw. */
export const editSchoolSchema = strictObject({ ...fields, version: whole('Version', 1, 1_000_000_000) })
export interface EditSchool extends KeepSchool {
  version: number
}
export const retireSchoolSchema = strictObject({ isRetired: yesNo('Retired'), version: whole('Version', 1, 1_000_000_000) })
export interface RetireSchool {
  isRetired: boolean
  version: number
}

/** Chooses the school a house takes first in a situation; null for what is usual. */
export const chooseDefaultSchema = strictObject({ schoolKey: optionalIdentifier('School'), version: whole('Version', 0, 1_000_000_000) })
export interface ChooseDefault {
  schoolKey: string | null
  version: number
}
/** A first choice as it stands; version 0 while nobody chose. */
export interface DefaultView {
  situation: Situation
  schoolKey: string | null
  version: number
}

/** A school of the house as it is kept. */
export interface HouseSchool extends KeepSchool {
  id: string
  version: number
  retiredAtMs: number | null
}

/** The steps of a kept school as the vessel understands them. */
export function toSchool({ id, name, handsPerBagMin, handsPerLotMin, steps }: HouseSchool): School {
  return { key: id, name, handsPerBagMin, handsPerLotMin, steps: steps.map(toStep) }
}

function toStep({ step, minutes, times, share, handling }: KeptStep): SchoolStep {
  const how = handling === 'none' ? 'bucket' : handling
  switch (step) {
    case 'open':
      return { step, minutes: minutes ?? 1 }
    case 'fill':
      // Said as a person says it: so many times the water runs in; the vessel then holds that and what was there.
      return { step, toTimes: (times ?? 1) > 1 ? (times ?? 1) + 1 : (times ?? 1), minutes: minutes ?? 1, handling: how }
    case 'add':
      return { step, times: times ?? 1 }
    case 'dump':
      return { step, share: share ?? 0.5 }
    case 'wait':
      return { step, minutes: minutes ?? 1, handling: how, nearRoom: true }
    default:
      return { step }
  }
}
