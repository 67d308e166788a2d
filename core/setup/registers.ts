import { meshes } from '../moves/catchCard'
import { sourcesRules } from '../moves/moveRules'
import { sharings, tankCorners, tankDecors, tankKinds, tankPurposes, tankStates, waters } from '../room/room.schema'
import { agentsInWater, firstFoodKinds, mouths } from '../species/speciesWords'
import { choiceField, choicesField, name, note, type FieldGroup, type RegisterField } from './fieldKinds'
import { speciesGroups } from './speciesFields'
import { vesselKinds } from '../vessels/vessels.schema'
import { doseBases, dosedAgents } from '../dosing/agents'
import { filterStates, foodKinds, origins, yesOrNo } from './words'

export type { FieldGroup, RegisterField } from './fieldKinds'

/** Everything a lead keeps lists of. One description of each serves the database check, the form, the table and the CSV file. */
export const registerNames = ['zones', 'toolSets', 'systems', 'tanks', 'vessels', 'suppliers', 'sources', 'species', 'foods', 'feeds', 'agents'] as const
export type RegisterName = (typeof registerNames)[number]

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
  /** The fields in the groups in which a long row is read; none where the row is short. */
  groups?: readonly FieldGroup[]
}

export const registers: Record<RegisterName, Register> = {
  zones: {
    ...{ name: 'zones', title: 'Zones', one: 'zone', key: 'name' },
    about: 'Systems that may share tools. Nothing wet goes from one zone to another.',
    fields: [name, { ...note, isInTable: true }, { ...choiceField('sourcesRule', 'sources that have not met', sourcesRules, 'lead: a lead decides; warn: it is said; off: it is not. Left out, what its tanks are there for decides'), isInTable: true }],
  },
  toolSets: {
    ...{ name: 'toolSets', title: 'Tool sets', one: 'tool set', key: 'name' },
    about: 'Nets, hoses and buckets that belong to one zone, and how they are marked.',
    fields: [
      name,
      { name: 'zoneId', label: 'zone', kind: 'reference', register: 'zones', isInTable: true },
      { name: 'marking', label: 'marking', kind: 'text', max: 80, isInTable: true, hint: 'what tells them apart with wet hands' },
      { name: 'netWidthCm', label: 'width of its net', kind: 'measure', min: 3, max: 100, unit: 'cm', isInTable: true },
      choiceField('netMesh', 'mesh of its net', meshes),
      note,
    ],
  },
  systems: {
    ...{ name: 'systems', title: 'Systems', one: 'system', key: 'name' },
    about: 'Tanks that are kept alike: on one water, or each with its own. A system is retired once its tanks are.',
    fields: [
      name,
      { name: 'water', label: 'water', kind: 'choice', options: waters, isRequired: true, isInTable: true },
      { ...choiceField('sharing', 'water of its tanks', sharings, 'counts as one water until somebody says'), isInTable: true },
      { name: 'sumpL', label: 'sump', kind: 'measure', min: 0, max: 100_000, quantity: 'volume', isInTable: true },
      choiceField('filter', 'biological filter', filterStates, 'how much food its water bears: none, young (some weeks), running'),
      { name: 'zoneId', label: 'zone', kind: 'reference', register: 'zones', isInTable: true },
      { name: 'tempC', label: 'kept at', kind: 'measure', min: 0, max: 45, quantity: 'temperature', isInTable: true },
      { name: 'salinityPpt', label: 'salinity', kind: 'measure', min: 0, max: 42, quantity: 'salinity', isInTable: true },
      { name: 'ph', label: 'pH', kind: 'measure', min: 3, max: 10.5 },
      { name: 'alkalinityMeqL', label: 'alkalinity', kind: 'measure', min: 0, max: 20, unit: 'meq/L' },
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
      { name: 'depthCm', label: 'front to back', kind: 'measure', min: 3, max: 1000, unit: 'cm', hint: 'a net has to turn in it' },
      { name: 'heightCm', label: 'height of its water', kind: 'measure', min: 3, max: 1000, unit: 'cm' },
      choiceField('corners', 'corners', tankCorners),
      choiceField('decor', 'decor', tankDecors, 'rock, wood, plants that a net cannot pass'),
      { name: 'purpose', label: 'purpose', kind: 'choice', options: tankPurposes },
      { name: 'state', label: 'state', kind: 'choice', options: tankStates, hint: 'an empty tank is not a clean tank' },
    ],
  },
  vessels: {
    ...{ name: 'vessels', title: 'Buckets and boxes', one: 'vessel', key: 'name' },
    about: 'What fish stand in for a while: buckets, and boxes that hang in a tank. One is retired when it is empty.',
    fields: [
      name,
      { name: 'kind', label: 'kind', kind: 'choice', options: vesselKinds, isRequired: true, isInTable: true },
      { name: 'litres', label: 'water in it', kind: 'measure', min: 0.1, max: 2000, quantity: 'volume', isRequired: true, isInTable: true },
      { ...choiceField('air', 'air stone', yesOrNo), isInTable: true },
      note,
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
      { ...choiceField('usualWater', 'usually ships in', waters, 'where its salinity is not known; left out for a supplier of several waters'), isInTable: true },
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
    groups: speciesGroups,
    fields: speciesGroups.flatMap(({ fields }) => fields),
  },
  foods: {
    ...{ name: 'foods', title: 'Foods', one: 'food', key: 'name' },
    about: 'What is fed here: how it is kept, what a piece weighs, whom it suits. Its stock is counted in the kitchen.',
    fields: [
      name,
      { name: 'kind', label: 'kind', kind: 'choice', options: foodKinds, isRequired: true, isInTable: true },
      { name: 'thawMinutes', label: 'thaws', kind: 'whole', min: 0, max: 1440, unit: 'min', isInTable: true },
      { name: 'pieceG', label: 'a piece weighs', kind: 'measure', min: 0.01, max: 5000, unit: 'g', isInTable: true, hint: 'a cube, a slab, a scoop. Left out, the rough figure of what it serves as holds' },
      { name: 'dryPercent', label: 'dry matter', kind: 'measure', min: 1, max: 100, unit: '%', hint: 'the pack says; left out as above' },
      { name: 'proteinPercent', label: 'protein of dry matter', kind: 'measure', min: 0, max: 100, unit: '%', hint: 'left out as above' },
      choicesField('mouths', 'for mouths', mouths, 'none chosen, as above'),
      { name: 'outMinutes', label: 'leftovers out after', kind: 'whole', min: 1, max: 1440, unit: 'min' },
      choicesField('servesAs', 'serves as', firstFoodKinds, 'kinds of first food in the species book that this one is'),
      { ...note, isInTable: true },
    ],
  },
  feeds: {
    ...{ name: 'feeds', title: 'Feeds of the day', one: 'feed', key: 'name' },
    about: 'When fish are fed, and how much of the day’s food with each. Without one the whole of it is fed at 10:00.',
    fields: [
      name,
      { name: 'hour', label: 'hour', kind: 'whole', min: 0, max: 23, unit: 'o’clock', isRequired: true, isInTable: true },
      { name: 'minute', label: 'minute', kind: 'whole', min: 0, max: 59, isInTable: true },
      { name: 'dayPercent', label: 'of the day’s food', kind: 'whole', min: 1, max: 100, unit: '%', isRequired: true, isInTable: true },
    ],
  },
  agents: {
    ...{ name: 'agents', title: 'Agents', one: 'agent', key: 'name' },
    about: 'What waters are dosed, and baths and dips are made with, by active ingredient. Figures come from the label of your own product: nothing here is a prescription. Follow the label and a veterinarian; local law decides.',
    fields: [
      { ...name, label: 'active ingredient' },
      { ...choiceField('agent', 'agent', dosedAgents, 'who may be near it, and when; left out, nothing is dosed with it over days'), isInTable: true },
      { ...choiceField('substance', 'counts as', agentsInWater, 'for baths: column of the species book that says who bears it'), isInTable: true },
      { name: 'strengthMgPerMl', label: 'strength', kind: 'measure', min: 0.001, max: 2000, unit: 'mg in a mL', isInTable: true },
      { name: 'activePercent', label: 'of a powder', kind: 'measure', min: 0.001, max: 100, unit: '% is the agent' },
      { ...choiceField('strengthBasis', 'strength counts', doseBases, 'what the figure on the label counts: the product, or what is in it') },
      { name: 'targetMgL', label: 'target', kind: 'measure', min: 0.0001, max: 100_000, unit: 'mg/L', isInTable: true },
      { ...choiceField('targetBasis', 'target counts', doseBases, 'the same as the strength, or no number can be worked out') },
      { name: 'loMgL', label: 'range from', kind: 'measure', min: 0, max: 100_000, unit: 'mg/L' },
      { name: 'hiMgL', label: 'range to, never above', kind: 'measure', min: 0.0001, max: 100_000, unit: 'mg/L' },
      { name: 'partPercent', label: 'part dose', kind: 'measure', min: 1, max: 100, unit: '% of the target', hint: 'stepped in; left out, a half' },
      { name: 'raiseAfterH', label: 'raised after', kind: 'measure', min: 1, max: 240, unit: 'h', hint: 'at the earliest, and only if they eat; left out, 48' },
      { name: 'stepPercent', label: 'stepped out by changes of', kind: 'measure', min: 5, max: 90, unit: '% of the water', hint: 'left out, a quarter' },
      { name: 'doneBelowMgL', label: 'out at or below', kind: 'measure', min: 0, max: 100_000, unit: 'mg/L', hint: 'left out, 0.05' },
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
