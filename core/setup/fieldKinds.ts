import type { Quantity } from '../units/units'
import type { RegisterName } from './registers'

interface FieldBase {
  /** Name in JSON and in the database. */
  name: string
  /** Name in the form, and the column's heading in a CSV file. */
  label: string
  isRequired?: boolean
  /** Stands in the table of the list, not only in the form. */
  isInTable?: boolean
  hint?: string
  /** What its column was called before; files of that time are still read. */
  formerLabel?: string
}
/** One field of a register: database check, form, table and CSV column in one. */
export type RegisterField = FieldBase &
  (
    | { kind: 'text'; max: number; pattern?: { expression: RegExp; remedy: string } }
    | { kind: 'whole'; min: number; max: number; unit?: string }
    /** A figure in base units; `quantity` says which display unit people see, `unit` names one that has no other. */
    | { kind: 'measure'; min: number; max: number; quantity?: Quantity; unit?: string }
    | { kind: 'choice'; options: readonly string[] }
    /** `moved` are words that stood here before, and what to do with them now. */
    | { kind: 'choices'; options: readonly string[]; moved?: { words: readonly string[]; remedy: string } }
    /** Names a row of another list. */
    | { kind: 'reference'; register: RegisterName }
  )

/** Fields of a long row that are read together, and what they are used for. */
export interface FieldGroup {
  title: string
  about: string
  fields: readonly RegisterField[]
}

export const name = { name: 'name', label: 'name', kind: 'text', max: 80, isRequired: true, isInTable: true } as const
export const note = { name: 'note', label: 'note', kind: 'text', max: 500 } as const
export const share = (field: string, label: string, hint: string) => ({ name: field, label, kind: 'whole', min: 0, max: 100, unit: '%', hint }) as const
export const days = (field: string, label: string, hint: string) => ({ name: field, label, kind: 'whole', min: 0, max: 365, unit: 'days', hint }) as const
export const range = (field: string, label: string, min: number, max: number, more: { quantity?: Quantity; unit?: string } = {}) =>
  [
    { name: `${field}Min`, label: `${label} from`, kind: 'measure', min, max, ...more },
    { name: `${field}Max`, label: `${label} to`, kind: 'measure', min, max, ...more },
  ] as const
export const choiceField = (field: string, label: string, options: readonly string[], hint?: string): RegisterField => ({ name: field, label, kind: 'choice', options, ...(hint ? { hint } : {}) })
export const choicesField = (field: string, label: string, options: readonly string[], hint?: string): RegisterField => ({ name: field, label, kind: 'choices', options, ...(hint ? { hint } : {}) })
