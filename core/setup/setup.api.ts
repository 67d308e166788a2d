import { array } from 'yup'
import { answers, command, named, plain, read } from '../commands/declare'
import { bounds, strictObject, text } from '../fields/fields.schema'
import type { Schema } from '../fields/validated'
import type { Water } from '../room/room.schema'
import type { BookChange } from '../species/bookChanges'
import { editRowSchema, importRowsSchema, registerValuesSchema, retireRowSchema, type EditRow, type ImportRows, type RetireRow } from './registerSchema'
import type { RegisterName, RegisterRow, RegisterValues } from './registers'

const adoptSchema = strictObject({ names: array().of(text('Species', bounds.name)).typeError('Names must be a list').defined('Names are missing').nonNullable('Names are missing').min(1, 'No species is named').max(500, 'At most 500 at once') })

/** A species of the shipped book, and whether it is kept here. */
export interface BookSpecies {
  name: string
  scientificName: string
  water: Water
  isHere: boolean
}

/** The shipped species book. */
export const bookApi = named({
  /** the shipped book by name, and what of it is here */
  readBook: read({ path: '/api/species-book', access: 'device', about: () => ['register'], staysMs: Infinity, answer: answers<{ species: BookSpecies[] }>() }),
  /** what the shipped book would change in the species kept here; taken in by `POST /api/setup/species/import` */
  readBookChanges: read({ path: '/api/species-book/changes', access: 'device', about: () => ['register'], staysMs: Infinity, answer: answers<{ rows: BookChange[] }>() }),
  /** out of the book into the room */
  adoptSpecies: command({ method: 'post', path: '/api/setup/species/adoptions', access: 'lead', schema: adoptSchema, touches: () => ['register', 'tank'], answer: answers<{ adopted: number }>() }),
})

/** Rows of these are the room itself; what is changed in them changes what stands in tanks. */
const touched = () => ['register', 'tank'] as const

/** A list that a lead keeps: seven routes for each, alike. Everybody may read them; leads change them. */
function declareRegister(register: RegisterName) {
  const path = `/api/setup/${register}` as const
  return {
    /** rows of a list */
    list: read({ path, access: 'device', about: () => ['register'], staysMs: Infinity, answer: answers<{ rows: RegisterRow[] }>() }),
    /** the same as a file */
    csv: plain({ method: 'get', path: `${path}/csv`, access: 'device' }),
    /** bytes of a file; what taking it in would do */
    preview: plain({ method: 'post', path: `${path}/csv/preview`, access: 'lead', mostBytes: 2_000_000 }),
    add: command({ method: 'post', path, access: 'lead', schema: strictObject({ values: registerValuesSchema(register).required('Values are missing') }) as unknown as Schema<{ values: RegisterValues }>, touches: touched, answer: answers<{ id: string; version: number }>() }),
    /** *rows*: id (null: new), version, values */
    import: command({ method: 'post', path: `${path}/import`, access: 'lead', mostBytes: 8_000_000, schema: importRowsSchema(register) as unknown as Schema<ImportRows>, touches: touched, answer: answers<{ rows: number }>() }),
    edit: command({ method: 'put', path: `${path}/:id`, access: 'lead', schema: editRowSchema(register) as unknown as Schema<EditRow>, touches: touched, answer: answers<{ version: number }>() }),
    retire: command({ method: 'post', path: `${path}/:id/retirement`, access: 'lead', schema: retireRowSchema as unknown as Schema<RetireRow>, touches: touched, answer: answers<{ version: number }>() }),
  }
}
type RegisterApi = ReturnType<typeof declareRegister>

const declared = new Map<RegisterName, RegisterApi>()

/** The routes of a list, by what each does; every one is known by both (`editTanks`). Made once: their schemas have as many fields as the list. */
export function registerApi(register: RegisterName): RegisterApi {
  const known = declared.get(register)
  if (known) return known
  const routes = Object.entries(declareRegister(register)).map(([does, route]) => [does, { ...route, name: `${does}${register.charAt(0).toUpperCase()}${register.slice(1)}` }])
  const made = Object.fromEntries(routes) as unknown as RegisterApi
  declared.set(register, made)
  return made
}
