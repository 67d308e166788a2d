import { salinityFromSg, sgReferences, specificGravity, type SgReference } from '../water/density'

export const temperatureUnits = ['°C', '°F'] as const
export type TemperatureUnit = (typeof temperatureUnits)[number]
export const volumeUnits = ['L', 'gal'] as const
export type VolumeUnit = (typeof volumeUnits)[number]
export const salinityUnits = ['ppt', 'SG'] as const
export type SalinityUnit = (typeof salinityUnits)[number]

/** How figures are shown to people. Records always hold °C, litres and ppt. */
export interface DisplayUnits {
  temperatureUnit: TemperatureUnit
  volumeUnit: VolumeUnit
  salinityUnit: SalinityUnit
  /** Reference pair of the room's hydrometers; only used where salinity is shown as SG. */
  sgReference: SgReference
  /** Leaves a mark of the value in the place of the figure: for sentences that are kept, see `markedUnits`. */
  isMarked?: boolean
}
/**
 * For sentences that are kept, or that do not know who reads them: figures stand in them as values and are written in
 * somebody's units only where they are read, by `wordFigures`.
 */
export const markedUnits: DisplayUnits = { temperatureUnit: '°C', volumeUnit: 'L', salinityUnit: 'ppt', sgReference: '25/25', isMarked: true }
export const baseUnits: DisplayUnits = { temperatureUnit: '°C', volumeUnit: 'L', salinityUnit: 'ppt', sgReference: '25/25' }

/** Litres in one US liquid gallon, by definition (231 cubic inches). */
export const litresPerUsGallon = 3.785411784

export const celsiusToFahrenheit = (tempC: number): number => (tempC * 9) / 5 + 32
export const fahrenheitToCelsius = (tempF: number): number => ((tempF - 32) * 5) / 9
export const litresToUsGallons = (volumeL: number): number => volumeL / litresPerUsGallon
export const usGallonsToLitres = (volumeGal: number): number => volumeGal * litresPerUsGallon

/** What kind of figure it is, which decides the unit it is shown in. */
export type Quantity = 'temperature' | 'volume' | 'salinity'

/** Names the unit a quantity is shown in, e.g. `'SG 25/25'`. */
export function unitLabel(quantity: Quantity, units: DisplayUnits): string {
  if (quantity === 'temperature') return units.temperatureUnit
  if (quantity === 'volume') return units.volumeUnit === 'gal' ? 'US gal' : 'L'
  return units.salinityUnit === 'SG' ? `SG ${units.sgReference}` : 'ppt'
}

/** Turns a figure in base units (°C, L, ppt) into the one people see. */
export function toDisplay(quantity: Quantity, base: number, units: DisplayUnits): number {
  if (quantity === 'temperature') return units.temperatureUnit === '°F' ? celsiusToFahrenheit(base) : base
  if (quantity === 'volume') return units.volumeUnit === 'gal' ? litresToUsGallons(base) : base
  if (units.salinityUnit === 'ppt') return base
  const { sampleC, waterC } = sgReferences[units.sgReference]
  return specificGravity(base, sampleC, waterC)
}

/** Turns a figure as people type it into base units. NaN where the scale has no such value. */
export function fromDisplay(quantity: Quantity, shown: number, units: DisplayUnits): number {
  if (quantity === 'temperature') return units.temperatureUnit === '°F' ? fahrenheitToCelsius(shown) : shown
  if (quantity === 'volume') return units.volumeUnit === 'gal' ? usGallonsToLitres(shown) : shown
  if (units.salinityUnit === 'ppt') return shown
  // 35 typed into a field of specific gravity is ppt by habit; it is not a gravity.
  if (shown < 0.98 || shown > 1.05) return NaN
  const { sampleC, waterC } = sgReferences[units.sgReference]
  return salinityFromSg(shown, sampleC, waterC)
}

/** Digits after the point that a shown figure deserves: what the instruments of a fishroom can tell. */
export function displayDigits(quantity: Quantity, units: DisplayUnits): number {
  if (quantity === 'salinity') return units.salinityUnit === 'SG' ? 4 : 1
  return 1
}

/**
 * Writes a change, or how far two figures lie apart, in the unit people see. Changes of salinity stay in ppt: how far two
 * gravities lie apart says little.
 * @example showChange('temperature', 2, { ...baseUnits, temperatureUnit: '°F' }) // '3.6 °F'
 */
export function showChange(quantity: Quantity, base: number, units: DisplayUnits): string {
  if (units.isMarked) return mark('change', quantity, base)
  if (quantity === 'salinity') return `${base.toFixed(1)} ppt`
  const shown = quantity === 'temperature' && units.temperatureUnit === '°F' ? (base * 9) / 5 : quantity === 'volume' ? toDisplay('volume', base, units) : base
  return `${shown.toFixed(1).replace('-', '−')} ${unitLabel(quantity, units)}`
}

/**
 * Writes a figure in the unit people see, with it.
 * @param base - in base units (°C, L, ppt).
 * @example showFigure('volume', 1.5, baseUnits) // '1.5 L'
 */
export function showFigure(quantity: Quantity, base: number, units: DisplayUnits): string {
  if (units.isMarked) return mark('figure', quantity, base)
  const shown = toDisplay(quantity, base, units)
  const digits = quantity === 'volume' && shown < 1 ? 2 : displayDigits(quantity, units)
  return `${shown.toFixed(digits).replace('-', '−')} ${unitLabel(quantity, units)}`
}

/** As `showFigure`, with whole figures written whole: for what was set and not measured, as a vessel's size or a house aim. */
export const showSet = (quantity: Quantity, base: number, units: DisplayUnits): string => (units.isMarked ? mark('set', quantity, base) : showFigure(quantity, base, units).replace('.0 ', ' '))

const mark = (kind: keyof typeof shows, quantity: Quantity, base: number): string => `⟨${kind} ${quantity} ${Number(base.toFixed(4))}⟩`
const shows = { figure: showFigure, change: showChange, set: showSet }

/**
 * Writes the figures of a sentence that was kept with their values in the units people see.
 * @param text - any text; one without marks comes back as it is. JSON is a text too: what is written needs no escaping.
 * @param units - asked only where there is something to word.
 * @example wordFigures(`at ${showFigure('salinity', 34, markedUnits)}`, () => baseUnits) // 'at 34.0 ppt'
 */
export function wordFigures(text: string, units: () => DisplayUnits): string {
  if (!text.includes('⟨')) return text
  const shown = units()
  return text.replace(/⟨(figure|change|set) (temperature|volume|salinity) (-?\d+(?:\.\d+)?)⟩/g, (_all, kind: string, quantity: string, base: string) => shows[kind as keyof typeof shows](quantity as Quantity, Number(base), shown))
}
