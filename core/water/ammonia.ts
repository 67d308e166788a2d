import { molarMass, unionisedShare } from './carbonate'
import { waterConstants } from './constants'

/**
 * Share of total ammonia that is un-ionised, in per cent, at the pH a meter or kit shows. The scheme is good to about
 * ±15 %; ±0.1 pH on top is ±25 %.
 * Source: Emerson et al. 1975; Clegg & Whitfield 1995; docs/science.md#ammonia.
 * @example unionisedPercent(8, 20, 0) // 3.807
 */
export function unionisedPercent(meterPh: number, tempC: number, salinityPpt: number): number {
  const c = waterConstants(salinityPpt, tempC)
  return 100 * unionisedShare(meterPh - c.phOffset, c)
}

/** Un-ionised ammonia as nitrogen (mg/L) from total ammonia as nitrogen (mg/L). */
export const unionisedMgL = (tanMgL: number, meterPh: number, tempC: number, salinityPpt: number): number => (tanMgL * unionisedPercent(meterPh, tempC, salinityPpt)) / 100

/** How kits say the same ammonia; factors to nitrogen. The unit belongs to the kit. */
export const ammoniaUnits = { 'NH3-N': 1, NH3: molarMass.nitrogen / molarMass.ammonia, NH4: molarMass.nitrogen / 18.039 } as const
export type AmmoniaUnit = keyof typeof ammoniaUnits

const below = (ph: number, pk: number): number => 1 / (1 + 10 ** (pk - ph))
const above = (ph: number, pk: number): number => 1 / (1 + 10 ** (ph - pk))

/** Acute criterion of EPA 2013 for fresh water, mg TAN-N/L; set for all fresh-water life, not for fish in a bag. */
export function acuteCriterion2013(ph: number, tempC: number): number {
  const salmonids = 0.275 * below(ph, 7.204) + 39 * above(ph, 7.204)
  const mussels = 0.7249 * (0.0114 * below(ph, 7.204) + 1.6181 * above(ph, 7.204)) * 23.12 * 10 ** (0.036 * (20 - tempC))
  return Math.min(salmonids, mussels)
}

/** Chronic criterion of EPA 2013 for fresh water, mg TAN-N/L. */
export const chronicCriterion2013 = (ph: number, tempC: number): number => 0.8876 * (0.0278 * below(ph, 7.688) + 1.1994 * above(ph, 7.688)) * 2.126 * 10 ** (0.028 * (20 - Math.max(tempC, 7)))
