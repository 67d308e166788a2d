import { tankKinds, tankPurposes, tankStates, waters } from '../room/room.schema'
import type { Quantity } from '../units/units'
import { animals, foodKinds, origins, sensitivities, temperaments, toleranceLevels } from './words'

/** Everything a lead keeps lists of. One description of each serves the database check, the form, the table and the CSV file. */
export const registerNames = ['zones', 'toolSets', 'systems', 'tanks', 'suppliers', 'sources', 'species', 'foods', 'agents'] as const
export type RegisterName = (typeof registerNames)[number]

interface FieldBase {
  /** Name in JSON and in the database. */
  name: string
  /** Name in the form, and the column's heading in a CSV file. */
  label: string
  isRequired?: boolean
  /** Stands in the table of the list, not only in the form. */
  isInTable?: boolean
  hint?: string
}
export type RegisterField = FieldBase &
  (
    | { kind: 'text'; max: number; pattern?: { expression: RegExp; remedy: string } }
    | { kind: 'whole'; min: number; max: number; unit?: string }
    /** A figure in base units; `quantity` says which display unit people see, `unit` names one that has no other. */
    | { kind: 'measure'; min: number; max: number; quantity?: Quantity; unit?: string }
    | { kind: 'choice'; options: readonly string[] }
    | { kind: 'choices'; options: readonly string[] }
    /** Names a row of another list. */
    | { kind: 'reference'; register: RegisterName }
  )

export interface Register {
  name: RegisterName
  title: string
  /** One of them, in a sentence. */
  one: string
  /** Field by which a row of a file is matched with one in the room; with `keyWithin`, together with that reference. */
  key: string
  keyWithin?: string
  about: string
  fields: readonly RegisterField[]
}

const name = { name: 'name', label: 'name', kind: 'text', max: 80, isRequired: true, isInTable: true } as const
const note = { name: 'note', label: 'note', kind: 'text', max: 500 } as const
const share = (field: string, label: string, hint: string) => ({ name: field, label, kind: 'whole', min: 0, max: 100, unit: '%', hint }) as const
const days = (field: string, label: string, hint: string) => ({ name: field, label, kind: 'whole', min: 0, max: 365, unit: 'days', hint }) as const
const range = (field: string, label: string, min: number, max: number, more: { quantity?: Quantity; unit?: string } = {}) =>
  [
    { name: `${field}Min`, label: `${label} from`, kind: 'measure', min, max, ...more },
    { name: `${field}Max`, label: `${label} to`, kind: 'measure', min, max, ...more },
  ] as const

export const registers: Record<RegisterName, Register> = {
  zones: {
    ...{ name: 'zones', title: 'Zones', one: 'zone', key: 'name' },
    about: 'Systems that may share tools. Nothing wet goes from one zone to another.',
    fields: [name, { ...note, isInTable: true }],
  },
  toolSets: {
    ...{ name: 'toolSets', title: 'Tool sets', one: 'tool set', key: 'name' },
    about: 'Nets, hoses and buckets that belong to one zone, and how they are marked.',
    fields: [name, { name: 'zoneId', label: 'zone', kind: 'reference', register: 'zones', isInTable: true }, { name: 'marking', label: 'marking', kind: 'text', max: 80, isInTable: true, hint: 'what tells them apart with wet hands' }, note],
  },
  systems: {
    ...{ name: 'systems', title: 'Systems', one: 'system', key: 'name' },
    about: 'One system is one body of water. A system is retired once its tanks are.',
    fields: [
      name,
      { name: 'water', label: 'water', kind: 'choice', options: waters, isRequired: true, isInTable: true },
      { name: 'sumpL', label: 'sump', kind: 'measure', min: 0, max: 100_000, quantity: 'volume', isInTable: true },
      { name: 'zoneId', label: 'zone', kind: 'reference', register: 'zones', isInTable: true },
      { name: 'tempC', label: 'kept at', kind: 'measure', min: 0, max: 45, quantity: 'temperature', isInTable: true },
      { name: 'salinityPpt', label: 'salinity', kind: 'measure', min: 0, max: 42, quantity: 'salinity', isInTable: true },
      { name: 'ph', label: 'pH', kind: 'measure', min: 3, max: 10.5 },
      { name: 'alkalinityMeqL', label: 'alkalinity', kind: 'measure', min: 0, max: 20, unit: 'meq/L' },
      { name: 'agents', label: 'in the water now', kind: 'choices', options: sensitivities.filter((each) => ['copper', 'salt', 'formalin', 'medicine dyes'].includes(each)) },
      note,
    ],
  },
  tanks: {
    ...{ name: 'tanks', title: 'Tanks', one: 'tank', key: 'code' },
    about: 'Glass or tub, where it stands and how much water is in it. A tank is retired when it is empty.',
    fields: [
      { name: 'code', label: 'code', kind: 'text', max: 12, isRequired: true, isInTable: true, pattern: { expression: /^[A-Z][A-Z0-9-]{0,11}$/, remedy: 'must be capital letters, digits and dashes, such as R1-01' } },
      { name: 'systemId', label: 'system', kind: 'reference', register: 'systems', isRequired: true, isInTable: true },
      { name: 'kind', label: 'kind', kind: 'choice', options: tankKinds, isRequired: true, isInTable: true },
      { name: 'rack', label: 'rack', kind: 'text', max: 8, isRequired: true, isInTable: true },
      { name: 'shelf', label: 'row', kind: 'whole', min: 1, max: 99, isRequired: true, isInTable: true, hint: 'shelf from the top' },
      { name: 'position', label: 'position', kind: 'whole', min: 1, max: 99, isRequired: true, isInTable: true, hint: 'from the left' },
      { name: 'grossVolumeL', label: 'gross volume', kind: 'measure', min: 0.5, max: 100_000, quantity: 'volume', isInTable: true },
      { name: 'netVolumeL', label: 'net volume', kind: 'measure', min: 0.5, max: 100_000, quantity: 'volume', isInTable: true, hint: 'the water that is really in it' },
      { name: 'purpose', label: 'purpose', kind: 'choice', options: tankPurposes },
      { name: 'state', label: 'state', kind: 'choice', options: tankStates, hint: 'an empty tank is not a clean tank' },
    ],
  },
  suppliers: {
    ...{ name: 'suppliers', title: 'Suppliers', one: 'supplier', key: 'name' },
    about: 'Who sends crates, and the water they usually ship in.',
    fields: [
      name,
      { name: 'shippingTempC', label: 'shipping temperature', kind: 'measure', min: 0, max: 45, quantity: 'temperature', isInTable: true },
      { name: 'shippingSalinityPpt', label: 'shipping salinity', kind: 'measure', min: 0, max: 42, quantity: 'salinity', isInTable: true },
      { name: 'shippingPh', label: 'shipping pH', kind: 'measure', min: 4, max: 10, isInTable: true },
      { name: 'shippingAlkalinityMeqL', label: 'shipping alkalinity', kind: 'measure', min: 0, max: 20, unit: 'meq/L' },
      { name: 'transitHours', label: 'usual time in the bag', kind: 'measure', min: 0, max: 200, unit: 'h', isInTable: true },
      { name: 'claimWindowHours', label: 'losses claimed within', kind: 'measure', min: 0, max: 720, unit: 'h', hint: 'after arrival' },
      { name: 'claimRules', label: 'claim rules', kind: 'text', max: 500, hint: 'what the supplier wants to see' },
      note,
    ],
  },
  sources: {
    ...{ name: 'sources', title: 'Sources', one: 'source', key: 'name', keyWithin: 'supplierId' },
    about: 'Where a supplier’s fish come from: a hatchery of their own, a pond, a collector.',
    fields: [{ name: 'supplierId', label: 'supplier', kind: 'reference', register: 'suppliers', isRequired: true, isInTable: true }, name, { name: 'origin', label: 'origin', kind: 'choice', options: origins, isRequired: true, isInTable: true }, note],
  },
  species: {
    ...{ name: 'species', title: 'Species', one: 'species', key: 'name' },
    about: 'What the room knows about its fish. General knowledge to begin with; correct it by what you see.',
    fields: [
      name,
      { name: 'scientificName', label: 'scientific name', kind: 'text', max: 80, isInTable: true },
      { name: 'strains', label: 'strains', kind: 'text', max: 200, hint: 'separated by commas' },
      { name: 'water', label: 'water', kind: 'choice', options: waters, isInTable: true },
      { name: 'animal', label: 'animal', kind: 'choice', options: animals },
      { name: 'adultCm', label: 'adult size', kind: 'measure', min: 0.2, max: 200, unit: 'cm' },
      { name: 'swallowsCm', label: 'swallows animals up to', kind: 'measure', min: 0, max: 100, unit: 'cm', hint: 'how long, when it is adult' },
      { name: 'minTankL', label: 'tank of at least', kind: 'measure', min: 0, max: 100_000, quantity: 'volume', hint: 'while it is held here' },
      { name: 'usualMassG', label: 'usual weight when traded', kind: 'measure', min: 0.01, max: 5000, unit: 'g' },
      ...range('tempC', 'temperature', 0, 45, { quantity: 'temperature' }),
      ...range('ph', 'pH', 3, 10.5),
      ...range('salinityPpt', 'salinity', 0, 42, { quantity: 'salinity' }),
      { name: 'groupMin', label: 'kept at least', kind: 'whole', min: 1, max: 100, unit: 'fish' },
      { name: 'temperament', label: 'temperament', kind: 'choice', options: temperaments, isInTable: true },
      { name: 'tolerance', label: 'tolerance', kind: 'choice', options: toleranceLevels, isInTable: true, hint: 'scales the limits of acclimation' },
      { name: 'sensitivities', label: 'sensitive to', kind: 'choices', options: sensitivities },
      share('shareSeenPercent', 'usual share seen', 'of a settled group, at one look'),
      days('firstMealDays', 'usual days to first meal', 'after arrival'),
      { name: 'firstFoods', label: 'first foods', kind: 'text', max: 200 },
      { name: 'basis', label: 'known from', kind: 'text', max: 200, hint: 'kind of source' },
      note,
    ],
  },
  foods: {
    ...{ name: 'foods', title: 'Foods', one: 'food', key: 'name' },
    about: 'What is fed here, and how long it has to thaw.',
    fields: [name, { name: 'kind', label: 'kind', kind: 'choice', options: foodKinds, isRequired: true, isInTable: true }, { name: 'thawMinutes', label: 'thaws', kind: 'whole', min: 0, max: 1440, unit: 'min', isInTable: true }, { ...note, isInTable: true }],
  },
  agents: {
    ...{ name: 'agents', title: 'Agents', one: 'agent', key: 'name' },
    about: 'What baths and dips are made with, by active ingredient. Figures come from the label of your own product: nothing here is a prescription. Follow the label and a veterinarian; local law decides.',
    fields: [
      { ...name, label: 'active ingredient' },
      { name: 'strengthMgPerMl', label: 'strength', kind: 'measure', min: 0.001, max: 2000, unit: 'mg in a mL', isInTable: true },
      { name: 'bathMgL', label: 'bath', kind: 'measure', min: 0.001, max: 100_000, unit: 'mg/L', isInTable: true },
      { name: 'bathMinutes', label: 'bath lasts', kind: 'measure', min: 0.5, max: 1440, unit: 'min', isInTable: true },
      { name: 'dipMgL', label: 'entry dip', kind: 'measure', min: 0.001, max: 100_000, unit: 'mg/L' },
      { name: 'dipMinutes', label: 'entry dip lasts', kind: 'measure', min: 0.1, max: 120, unit: 'min', hint: 'only for fish that arrive strong' },
      { name: 'cautions', label: 'cautions', kind: 'text', max: 500, hint: 'for people and for fish' },
      note,
    ],
  },
}

/** A field's value as JSON and as the database keeps it; several choices are a list. */
export type RegisterValue = string | number | string[] | null
export type RegisterValues = Record<string, RegisterValue>
export interface RegisterRow {
  id: string
  version: number
  /** Null while in use. */
  retiredAtMs: number | null
  values: RegisterValues
}

/** Answers whether a word names a register. */
export const isRegisterName = (word: string): word is RegisterName => (registerNames as readonly string[]).includes(word)
