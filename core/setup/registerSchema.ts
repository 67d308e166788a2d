import { array, type AnyObject, type ObjectSchema } from 'yup'
import { choices, identifier, optionalChoice, optionalIdentifier, optionalMeasure, optionalText, optionalWhole, strictObject, choice, text, whole, yesNo } from '../fields/fields.schema'
import { capital } from '../words/capital'
import { registers, type RegisterField, type RegisterName, type RegisterValues } from './registers'

function fieldSchema(field: RegisterField) {
  const label = capital(field.label)
  switch (field.kind) {
    case 'text': {
      const base = field.isRequired ? text(label, field.max) : optionalText(label, field.max)
      return field.pattern ? base.matches(field.pattern.expression, { message: `${label} ${field.pattern.remedy}`, excludeEmptyString: true }) : base
    }
    case 'whole':
      return field.isRequired ? whole(label, field.min, field.max, field.unit) : optionalWhole(label, field.min, field.max, field.unit)
    case 'measure': {
      const figure = optionalMeasure(label, field.unit ?? baseUnitOf(field), field.min, field.max)
      return field.isRequired ? figure.required(`${label} is missing`) : figure
    }
    case 'choice':
      return field.isRequired ? choice(label, field.options) : optionalChoice(label, field.options)
    case 'choices':
      return choices(label, field.options)
    case 'reference':
      return field.isRequired ? identifier(label) : optionalIdentifier(label)
  }
}

/** Unit in which a figure is stored. */
export const baseUnitOf = (field: RegisterField): string => {
  if (field.kind === 'whole') return field.unit ?? ''
  if (field.kind !== 'measure') return ''
  if (field.quantity) return { temperature: '°C', volume: 'L', salinity: 'ppt' }[field.quantity]
  return field.unit ?? ''
}

/** A lower end must not stand above its upper end. */
function withRanges(register: RegisterName, schema: ObjectSchema<AnyObject>): ObjectSchema<AnyObject> {
  const lows = registers[register].fields.filter((field) => field.name.endsWith('Min') && registers[register].fields.some((each) => each.name === field.name.replace(/Min$/, 'Max')))
  return lows.reduce((all, low) => {
    const highName = low.name.replace(/Min$/, 'Max')
    return all.test(low.name, '', (values, context) => {
      const [from, to] = [(values as RegisterValues)[low.name], (values as RegisterValues)[highName]]
      if (typeof from !== 'number' || typeof to !== 'number' || from <= to) return true
      return context.createError({ path: context.path ? `${context.path}.${highName}` : highName, message: `${capital(low.label).replace(/ from$/, '')} ends below where it begins` })
    })
  }, schema)
}

/** Checks the values of one row of a register. */
export const registerValuesSchema = (register: RegisterName): ObjectSchema<AnyObject> =>
  withRanges(register, strictObject(Object.fromEntries(registers[register].fields.map((field) => [field.name, fieldSchema(field)]))) as ObjectSchema<AnyObject>)

const version = () => whole('Version', 1, 1_000_000_000)

export interface EditRow {
  version: number
  values: RegisterValues
}
/** Changes a row; `version` is the one the person saw. */
export const editRowSchema = (register: RegisterName) => strictObject({ version: version(), values: registerValuesSchema(register).required('Values are missing') })

export interface RetireRow {
  version: number
  isRetired: boolean
}
/** Takes a row out of use or brings it back. Nothing is ever deleted: old entries go on naming it. */
export const retireRowSchema = strictObject({ version: version(), isRetired: yesNo('Retired') })

export interface ImportRows {
  rows: { id: string | null; version: number | null; values: RegisterValues }[]
}
/** What a file adds (`id` null) and changes, as the preview showed it: all of it, or nothing. */
export const importRowsSchema = (register: RegisterName) =>
  strictObject({
    rows: array()
      .of(strictObject({ id: optionalIdentifier('Row'), version: optionalWhole('Version', 1, 1_000_000_000), values: registerValuesSchema(register).required('Values are missing') }))
      .typeError('The rows must be a list')
      .defined('The rows are missing')
      .nonNullable('The rows are missing')
      .min(1, 'There is nothing to take in')
      .max(2000, 'At most 2,000 rows at once'),
  })
