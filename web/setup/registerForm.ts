import { baseUnitOf, registerValuesSchema } from '../../core/setup/registerSchema'
import { registers, type RegisterField, type RegisterName, type RegisterValue, type RegisterValues } from '../../core/setup/registers'
import type { Reading } from '../ui/readingResolver'
import { schemaErrors } from '../ui/schemaErrors'
import { readNumber, type Units } from '../ui/useUnits'

/** What stands in the fields of a form, by field name. */
export type Inputs = Record<string, string | string[]>

/** Name of a field with its unit as the room shows it. */
export const unitOf = (field: RegisterField, units: Units): string => (field.kind === 'measure' && field.quantity ? units.label(field.quantity) : baseUnitOf(field))

const written = (field: RegisterField, value: RegisterValue | undefined, units: Units): string | string[] => {
  if (Array.isArray(value)) return value
  if (value === null || value === undefined) return field.kind === 'choices' ? [] : ''
  return field.kind === 'measure' && field.quantity ? units.figure(field.quantity, Number(value)).replace('−', '-').replace(/\.0$/, '') : String(value)
}

/** Puts the values of a row into form fields, in the room's units. */
export const toInputs = (register: RegisterName, values: RegisterValues, units: Units): Inputs => Object.fromEntries(registers[register].fields.map((field) => [field.name, written(field, values[field.name], units)]))

/**
 * Reads form fields back into values in base units. A field nobody touched keeps its exact figure, so that looking at a
 * row in °F does not change it.
 */
export function fromInputs(register: RegisterName, inputs: Inputs, before: RegisterValues, units: Units): Reading<RegisterValues> {
  const { fields } = registers[register]
  const read = (field: RegisterField): RegisterValue => {
    const typed = inputs[field.name] ?? ''
    if (Array.isArray(typed)) return typed
    if (typed === written(field, before[field.name], units)) return before[field.name] ?? null
    if (typed.trim() === '') return null
    if (field.kind === 'measure' && field.quantity) return units.doubt(field.quantity, typed) ? NaN : units.read(field.quantity, typed)
    if (field.kind === 'measure' || field.kind === 'whole') return readNumber(typed)
    return field.name === 'code' || field.name === 'rack' ? typed.trim().toUpperCase() : typed.trim()
  }
  const values = Object.fromEntries(fields.map((field) => [field.name, read(field)]))
  const errors = { ...schemaErrors(registerValuesSchema(register), values), ...unitErrors(fields, values, units) }
  return Object.keys(errors).length === 0 ? { ok: true, values } : { ok: false, errors }
}

/** Bounds are said in the unit that was typed. */
function unitErrors(fields: readonly RegisterField[], values: RegisterValues, units: Units): Record<string, string> {
  return Object.fromEntries(
    fields.flatMap((field) => {
      const value = values[field.name]
      if (field.kind !== 'measure' || !field.quantity || typeof value !== 'number' || (value >= field.min && value <= field.max)) return []
      return [[field.name, `This must be a number between ${units.figure(field.quantity, field.min)} and ${units.show(field.quantity, field.max)}`]]
    }),
  )
}
