import { planDrip } from '../acclimation/planDrip'
import { flowWords } from '../bench/flowWords'
import { doseMg, doseProductG, netVolumeL } from '../dosing/dose'
import { afterChange, changesNeeded } from '../dosing/waterChange'
import { unionisedMgL, unionisedPercent } from '../water/ammonia'
import { salinityFromConductivity, uncompensated } from '../water/conductivity'
import { floatExpansionPerK, salinityFromHydrometer, salinityFromSg, sgReferenceNames, sgReferences, type SgReference } from '../water/density'
import { litresToDilute, litresToSwap, saltToAddG } from '../water/salt'
import type { Quantity } from '../units/units'

/** One figure that a calculation asks for. */
export interface DeskInput {
  name: string
  label: string
  /** Shown in the room's unit when it has one, else in `unit`. */
  quantity?: Quantity
  unit?: string
  min: number
  max: number
  isOptional?: boolean
  /** A closed list instead of a figure. */
  options?: readonly string[]
  hint?: string
}

export interface DeskLine {
  label: string
  /** In base units when `quantity` says so; text is shown as it is. */
  value: number | string
  quantity?: Quantity
  unit?: string
  digits?: number
}

export interface Calculation {
  key: string
  title: string
  inputs: readonly DeskInput[]
  formula: string
  source: string
  range: string
  /** What the number does not say. */
  caution: string
  /** Whether a dose comes out, with all that has to be said then. */
  isDose?: boolean
  compute(input: Readonly<Record<string, number>>, words: Readonly<Record<string, string>>): DeskLine[]
}

const temperature = { name: 'tempC', label: 'temperature', quantity: 'temperature', min: 5, max: 35 } as const
const salinityIn = (name: string, label: string) => ({ name, label, quantity: 'salinity', min: 0, max: 40 }) as const
const volume = (name: string, label: string, max = 100_000) => ({ name, label, quantity: 'volume', min: 0.01, max }) as const
const at = (input: Readonly<Record<string, number>>, name: string): number => input[name] ?? NaN
const within = (salinityPpt: number): DeskLine['value'] => (Number.isFinite(salinityPpt) ? salinityPpt : 'beyond the scale of this formula')

/** Every calculation of the Water desk, in the order in which it is asked for. */
export const calculations: readonly Calculation[] = [
  {
    ...{ key: 'gravity', title: 'Salinity from specific gravity', formula: 'EOS-80, equation of state of sea water', source: 'Millero & Poisson 1981; UNESCO 1983', range: 'salinity 0 to 42, −2 to 40 °C' },
    caution: 'A gravity without its reference pair is no salinity. Refractometers correct for temperature by themselves; calibrate them at 35 with a sea-water standard.',
    inputs: [
      { name: 'sg', label: 'reading', unit: 'SG', min: 0.99, max: 1.05 },
      { name: 'pair', label: 'reference pair printed on the instrument', min: 0, max: 0, options: ['not known', ...sgReferenceNames] },
    ],
    compute: (input, words) => {
      const shown = (pair: SgReference): DeskLine => ({ label: `on a scale of ${pair}`, value: within(salinityFromSg(at(input, 'sg'), sgReferences[pair].sampleC, sgReferences[pair].waterC)), unit: 'ppt', digits: 1 })
      const known = sgReferenceNames.find((pair) => pair === words.pair)
      return known ? [shown(known)] : sgReferenceNames.map(shown)
    },
  },
  {
    ...{ key: 'hydrometer', title: 'Hydrometer at another temperature', formula: 'EOS-80 with the float’s own expansion', source: 'Millero & Poisson 1981; expansion of glass 2.5e-5 /K, of plastic 2e-4 /K (assumption)', range: 'salinity 0 to 42, 5 to 35 °C' },
    caution: 'Bubbles on the float and a dirty glass do more than temperature. Swing-arm instruments vary from piece to piece.',
    inputs: [
      { name: 'sg', label: 'reading', unit: 'SG', min: 0.99, max: 1.05 },
      { ...temperature, label: 'temperature of the sample' },
      { name: 'scaleC', label: 'temperature the scale is made for', quantity: 'temperature', min: 4, max: 30 },
      { name: 'float', label: 'float', min: 0, max: 0, options: ['glass', 'plastic'] },
    ],
    compute: (input, words) => [{ label: 'salinity', value: within(salinityFromHydrometer({ reading: at(input, 'sg'), tempC: at(input, 'tempC'), scaleC: at(input, 'scaleC'), expansionPerK: floatExpansionPerK[words.float === 'plastic' ? 'plastic' : 'glass'] })), unit: 'ppt', digits: 1 }],
  },
  {
    ...{ key: 'conductivity', title: 'Salinity from conductivity', formula: 'PSS-78 with the low-salinity term', source: 'UNESCO 1981; Hill, Dauphinee & Woods 1986', range: 'salinity 0 to 42, −2 to 35 °C' },
    caution: 'Most meters refer to 25 °C by themselves; say so, or it is compensated twice. In fresh water the figure only counts ions.',
    inputs: [
      { name: 'msCm', label: 'conductivity', unit: 'mS/cm', min: 0, max: 80 },
      temperature,
      { name: 'meter', label: 'the meter shows', min: 0, max: 0, options: ['referred to 25 °C', 'at the sample’s temperature'] },
    ],
    compute: (input, words) => {
      const raw = words.meter === 'at the sample’s temperature' ? at(input, 'msCm') : uncompensated(at(input, 'msCm'), at(input, 'tempC'))
      return [{ label: 'salinity', value: salinityFromConductivity(raw, at(input, 'tempC')), unit: 'ppt', digits: 2 }]
    },
  },
  {
    ...{ key: 'ammonia', title: 'Un-ionised ammonia', formula: 'dissociation of ammonium, pH taken to the total scale', source: 'Emerson et al. 1975; Clegg & Whitfield 1995', range: 'pH 5 to 10, 5 to 35 °C, salinity 0 to 40' },
    caution: 'Good to ±15 %; a pH that is off by 0.1 is another 25 %, a colour kit’s 0.2 a factor of 1.6. Levels are guidance set for days and hours, not for minutes in a bucket. While a binder works, neither the kit nor this figure means anything.',
    inputs: [
      { name: 'tan', label: 'total ammonia', unit: 'mg/L as N', min: 0, max: 50, hint: 'kits in NH3 read 1.22 times as much, in NH4 1.29 times' },
      { name: 'ph', label: 'pH', unit: '', min: 5, max: 10 },
      temperature,
      salinityIn('salinityPpt', 'salinity'),
    ],
    compute: (input) => {
      const share = unionisedPercent(at(input, 'ph'), at(input, 'tempC'), at(input, 'salinityPpt'))
      const part = (ph: number): number => unionisedMgL(at(input, 'tan'), ph, at(input, 'tempC'), at(input, 'salinityPpt'))
      return [
        { label: 'un-ionised ammonia', value: part(at(input, 'ph')), unit: 'mg/L as N', digits: 4 },
        { label: 'share of all ammonia', value: share, unit: '%', digits: 2 },
        { label: 'with a pH 0.2 lower to 0.2 higher', value: `${part(at(input, 'ph') - 0.2).toFixed(4)} to ${part(at(input, 'ph') + 0.2).toFixed(4)} mg/L as N` },
      ]
    },
  },
  {
    ...{ key: 'salt', title: 'Salt to add, or water to dilute', formula: 'balance of salt by weight', source: 'density of EOS-80; the share of a mix that is salt is an assumption (0.95, from 0.88 to 1)', range: 'salinity 0 to 40, 5 to 35 °C' },
    caution: 'Dissolve and measure before fish meet it. Fish take a new salinity in hours to days: see the house limits.',
    inputs: [volume('volumeL', 'volume'), salinityIn('fromPpt', 'salinity now'), salinityIn('toPpt', 'salinity wanted'), temperature, { name: 'freshPpt', label: 'salinity of the water to dilute with', quantity: 'salinity', min: 0, max: 40, isOptional: true }],
    compute: (input) => {
      const [v, from, to, fresh] = [at(input, 'volumeL'), at(input, 'fromPpt'), at(input, 'toPpt'), input.freshPpt ?? 0]
      if (to > from) return [{ label: 'salt mix', value: saltToAddG(v, from, to, at(input, 'tempC')), unit: 'g', digits: 0 }, { label: 'if the mix is dry, or very moist', value: `${saltToAddG(v, from, to, at(input, 'tempC'), 1).toFixed(0)} to ${saltToAddG(v, from, to, at(input, 'tempC'), 0.88).toFixed(0)} g` }]
      if (to === from) return [{ label: 'nothing to do', value: 'the salinity is as wanted' }]
      if (fresh >= to) return [{ label: 'not possible', value: 'the water to dilute with is as salty as what is wanted' }]
      return [{ label: 'take out and replace', value: litresToSwap(v, from, to, fresh), quantity: 'volume' }, { label: 'or add, where there is room', value: litresToDilute(v, from, to, fresh), quantity: 'volume' }]
    },
  },
  {
    ...{ key: 'change', title: 'Water changes', formula: 'dilution by equal changes', source: 'balance of mass', range: 'any level; changes of 1 to 99 %' },
    caution: 'What rises again between changes (nitrate, say) is not in here.',
    inputs: [
      { name: 'level', label: 'level now', unit: 'any', min: 0, max: 1e6 },
      { name: 'target', label: 'level wanted', unit: 'same', min: 0, max: 1e6 },
      { name: 'percent', label: 'one change', unit: '%', min: 1, max: 99 },
      { name: 'fresh', label: 'level of the new water', unit: 'same', min: 0, max: 1e6, isOptional: true },
    ],
    compute: (input) => {
      const [share, fresh] = [at(input, 'percent') / 100, input.fresh ?? 0]
      const [level, target] = [at(input, 'level'), at(input, 'target')]
      if (target > level && fresh <= level) return [{ label: 'not by changes', value: 'the level wanted is above what there is, and the new water does not bring it: it is dosed, not changed' }]
      const changes = changesNeeded(level, target, share, fresh)
      return [
        { label: 'after one change', value: afterChange(level, share, fresh), unit: '', digits: 3 },
        { label: 'changes needed', value: Number.isFinite(changes) ? changes : 'the new water itself does not reach it', unit: '', digits: 0 },
      ]
    },
  },
  {
    ...{ key: 'drip', title: 'Drip rate', formula: 'filling or overflowing vessel, fully mixed', source: 'balance of mass; 20 drops in a mL is nominal, 10 to 30 in truth', range: 'vessels that are mixed' },
    caution: 'Count the drops into a measured 5 mL once for each airline. A drip near the outlet does less than it seems. It says nothing of ammonia: the longer it takes, the longer fish are in opened bag water.',
    inputs: [volume('waterL', 'bag water', 200), volume('vesselL', 'vessel', 1000), salinityIn('fromPpt', 'salinity of the bag'), salinityIn('toPpt', 'salinity of the tank'), { name: 'withinPpt', label: 'near enough', unit: 'ppt', min: 0.05, max: 10 }, { name: 'minutes', label: 'time', unit: 'min', min: 1, max: 3000 }, { name: 'dropsPerMl', label: 'drops in a mL', unit: '', min: 5, max: 60, isOptional: true }],
    compute: (input) => {
      const plan = planDrip({ waterL: at(input, 'waterL'), vesselL: at(input, 'vesselL'), fromPpt: at(input, 'fromPpt'), toPpt: at(input, 'toPpt'), withinPpt: at(input, 'withinPpt'), minutes: at(input, 'minutes'), dropsPerMl: input.dropsPerMl ?? 20 })
      if (!plan.ok) return [{ label: 'not possible', value: plan.reason }]
      return [
        { label: plan.way === 'fill' ? 'flow, vessel filling' : 'flow, vessel overflowing', value: plan.flowMlPerMin, unit: 'mL/min', digits: 0 },
        { label: 'how to set it', value: flowWords(plan.flowMlPerMin, input.dropsPerMl ?? 20) },
        { label: 'in the vessel at the end', value: plan.finalL, quantity: 'volume' },
        { label: 'tank water used', value: plan.tankWaterL, quantity: 'volume' },
        ...(plan.advice ? [{ label: 'note', value: plan.advice }] : []),
      ]
    },
  },
  {
    ...{ key: 'volume', title: 'Net volume of a tank', formula: 'inner measures less what stands in it', source: 'rock 2.7 kg/L, sand 40 % pores (assumptions)', range: 'boxes' },
    caution: 'Measure inside, up to the water. Water inside porous rock counts as water, so use its apparent density. A dose and its measured rise tell the volume better.',
    inputs: [
      { name: 'lengthCm', label: 'length', unit: 'cm', min: 1, max: 2000 },
      { name: 'widthCm', label: 'width', unit: 'cm', min: 1, max: 2000 },
      { name: 'heightCm', label: 'height of the water', unit: 'cm', min: 1, max: 1000 },
      { name: 'rockKg', label: 'rock', unit: 'kg', min: 0, max: 5000, isOptional: true },
      { name: 'sandL', label: 'sand bed', quantity: 'volume', min: 0, max: 5000, isOptional: true },
      { name: 'sumpL', label: 'sump', quantity: 'volume', min: 0, max: 100_000, isOptional: true },
    ],
    compute: (input) => [{ label: 'net volume', value: netVolumeL({ lengthCm: at(input, 'lengthCm'), widthCm: at(input, 'widthCm'), heightCm: at(input, 'heightCm'), rockKg: input.rockKg ?? 0, sandL: input.sandL ?? 0, sumpL: input.sumpL ?? 0 }), quantity: 'volume' }],
  },
  {
    ...{ key: 'dose', title: 'Dose of one substance', formula: 'volume times rise, over the active share of the product', source: 'balance of mass', range: 'well-mixed water', isDose: true },
    caution: 'Rock, sand and filter media take some up. Test before and after; never add on a reading older than a day. Copper harms invertebrates and several groups of fish; soft water makes it worse.',
    inputs: [volume('volumeL', 'net volume'), { name: 'from', label: 'level now, by test', unit: 'mg/L', min: 0, max: 10_000 }, { name: 'to', label: 'level on the product’s label', unit: 'mg/L', min: 0, max: 10_000 }, { name: 'active', label: 'active share of the product', unit: '%', min: 0.01, max: 100, isOptional: true }, { name: 'mgPerMl', label: 'or, of a liquid, active substance in a mL', unit: 'mg', min: 0.001, max: 2000, isOptional: true }],
    compute: (input) => [
      { label: 'active substance', value: doseMg(at(input, 'volumeL'), at(input, 'from'), at(input, 'to')), unit: 'mg', digits: 1 },
      ...(input.mgPerMl === undefined ? [] : [{ label: 'liquid product', value: doseMg(at(input, 'volumeL'), at(input, 'from'), at(input, 'to')) / input.mgPerMl, unit: 'mL', digits: 2 }]),
      ...(input.active === undefined ? [] : [{ label: 'product', value: doseProductG(at(input, 'volumeL'), at(input, 'from'), at(input, 'to'), at(input, 'active') / 100), unit: 'g', digits: 3 }]),
    ],
  },
]

export type DeskAnswer = { ok: true; lines: DeskLine[] } | { ok: false; errors: Record<string, string> }

/** Reads what was typed (base units; NaN is no figure, undefined nothing) and computes, or says by field what stands in the way. */
export function calculate(calculation: Calculation, input: Readonly<Record<string, number | undefined>>, words: Readonly<Record<string, string>>, shown: (field: DeskInput, base: number) => string): DeskAnswer {
  const errors: Record<string, string> = {}
  for (const field of calculation.inputs) {
    if (field.options) continue
    const value = input[field.name]
    if (value === undefined && !field.isOptional) errors[field.name] = `Say the ${field.label}`
    else if (value !== undefined && !(value >= field.min && value <= field.max)) errors[field.name] = `This must be a number between ${shown(field, field.min)} and ${shown(field, field.max)}`
  }
  if (Object.keys(errors).length > 0) return { ok: false, errors }
  const given = Object.fromEntries(Object.entries(input).filter((entry): entry is [string, number] => entry[1] !== undefined))
  return { ok: true, lines: calculation.compute(given, words) }
}
