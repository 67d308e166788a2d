import { showChange, showFigure, type DisplayUnits, type Quantity } from '../units/units'

/** What a species is kept in, by the book; null where it does not say. */
export interface KeptIn {
  tempCMin: number | null
  tempCMax: number | null
  phMin: number | null
  phMax: number | null
  salinityPptMin: number | null
  salinityPptMax: number | null
  hardness: string | null
}

/** Of a species the book says nothing of. */
export const notKept: KeptIn = { tempCMin: null, tempCMax: null, phMin: null, phMax: null, salinityPptMin: null, salinityPptMax: null, hardness: null }

/** Water of a tank; what nobody knows is left out. */
export interface TankFigures {
  tempC?: number | undefined
  salinityPpt?: number | undefined
  ph?: number | undefined
  alkalinityMeqL?: number | undefined
}

/** A figure of a tank outside what a species is kept in. */
export interface OutsideKept {
  code: 'temperature' | 'salinity' | 'pH' | 'hardness'
  /** With the difference, in the room's units. */
  why: string
}

/** Alkalinity from which water is hard, and below which it is soft, meq/L; house guidance. */
export const [hardFromMeqL, softBelowMeqL] = [4, 1] as const

/** Says by how much a tank lies outside what a species is kept in; empty where it does not, or nobody knows. */
export function outsideKept(species: string, kept: KeptIn, { tempC, salinityPpt, ph, alkalinityMeqL }: TankFigures, units: DisplayUnits): OutsideKept[] {
  const measure = (quantity: Quantity) => ({ show: (value: number) => showFigure(quantity, value, units), change: (value: number) => showChange(quantity, value, units) })
  const plain = { show: (value: number) => value.toFixed(1), change: (value: number) => value.toFixed(1) }
  const off = (code: OutsideKept['code'], value: number | undefined, low: number | null, high: number | null, [less, more]: readonly [string, string], { show, change }: typeof plain): OutsideKept[] => {
    if (value === undefined || !Number.isFinite(value)) return []
    const by = low !== null && value < low ? low - value : high !== null && value > high ? value - high : 0
    if (by <= 0) return []
    return [{ code, why: `${species} is kept at ${low === null ? `up to ${show(high ?? 0)}` : high === null ? `${show(low)} and above` : `${show(low)} to ${show(high)}`}; this tank stands at ${show(value)}, ${change(by)} too ${low !== null && value < low ? less : more}` }]
  }
  const isHardnessOff = alkalinityMeqL !== undefined && ((kept.hardness === 'soft' && alkalinityMeqL >= hardFromMeqL) || (kept.hardness === 'hard' && alkalinityMeqL < softBelowMeqL))
  return [
    ...off('temperature', tempC, kept.tempCMin, kept.tempCMax, ['cold', 'warm'], measure('temperature')),
    ...off('salinity', salinityPpt, kept.salinityPptMin, kept.salinityPptMax, ['fresh', 'salty'], measure('salinity')),
    ...off('pH', ph, kept.phMin, kept.phMax, ['low', 'high'], plain),
    ...(isHardnessOff ? [{ code: 'hardness' as const, why: `${species} is kept in ${kept.hardness} water; this tank holds ${(alkalinityMeqL ?? 0).toFixed(1)} meq/L` }] : []),
  ]
}
