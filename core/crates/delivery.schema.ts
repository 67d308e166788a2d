import { array, type InferType } from 'yup'
import { override } from '../placing/override.schema'
import { identifier, optionalIdentifier, strictObject, text, whole, yesNo } from '../fields/fields.schema'

/** Marks a step of the preparation as done, or as not done after all. */
export const prepareStepSchema = strictObject({ step: text('Step', 200), isDone: yesNo('Done') })
export type PrepareStep = InferType<typeof prepareStepSchema>

/**
 * Plans tanks for lines of a crate, all of them or none. Where a choice breaks a hard rule, a lead says why it is made
 * all the same; the reason is kept.
 */
export const chooseTanksSchema = strictObject({
  choices: array()
    .of(strictObject({ lineId: identifier('Line'), tankId: optionalIdentifier('Tank'), version: whole('Version', 1, 1_000_000_000), override: override() }))
    .typeError('Choices must be a list')
    .defined('Choices are missing')
    .nonNullable('Choices are missing')
    .min(1, 'No line is named')
    .max(200, 'At most 200 lines at once')
    .test('distinct', 'A line is named twice', (choices) => !choices || new Set(choices.map((each) => each?.lineId)).size === choices.length),
})
export type ChooseTanks = InferType<typeof chooseTanksSchema>
