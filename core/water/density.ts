/**
 * Density of water, the specific gravity that hydrometers show, and salinity from either.
 * Source: EOS-80 at one atmosphere (Millero & Poisson 1981; UNESCO 1983, Technical Papers in Marine Science 44).
 */

/** Highest salinity the equation of state holds for. */
export const maxSalinityPpt = 42

/** Density of pure water in kg/m³ at `tempC` (−2 to 40 °C). */
export function pureWaterDensity(tempC: number): number {
  return 999.842594 + tempC * (6.793952e-2 + tempC * (-9.09529e-3 + tempC * (1.001685e-4 + tempC * (-1.120083e-6 + tempC * 6.536332e-9))))
}

/**
 * Density of sea water in kg/m³, within 0.004.
 * @param salinityPpt - practical salinity, 0 to 42.
 * @param tempC - −2 to 40 °C.
 * @returns NaN for a salinity below zero.
 * @example seawaterDensity(35, 5) // 1027.67547, the UNESCO check value
 */
export function seawaterDensity(salinityPpt: number, tempC: number): number {
  const a = 8.24493e-1 + tempC * (-4.0899e-3 + tempC * (7.6438e-5 + tempC * (-8.2467e-7 + tempC * 5.3875e-9)))
  const b = -5.72466e-3 + tempC * (1.0227e-4 - tempC * 1.6546e-6)
  return pureWaterDensity(tempC) + salinityPpt * (a + b * Math.sqrt(salinityPpt) + 4.8314e-4 * salinityPpt)
}

/** Grams of salt per litre for a salinity in g/kg at `tempC`; about 2.3 % more than the figure itself in sea water. */
export const saltGramsPerLitre = (salinityPpt: number, tempC: number): number => (salinityPpt * seawaterDensity(salinityPpt, tempC)) / 1000

/**
 * Reference temperatures of a specific gravity: of the sample and of the pure water it is compared with, in °C.
 * The same reading is up to 3 ppt apart between them, so the pair belongs to the instrument.
 */
export const sgReferences = {
  '25/25': { sampleC: 25, waterC: 25 },
  '20/20': { sampleC: 20, waterC: 20 },
  '60F/60F': { sampleC: 15.5556, waterC: 15.5556 },
  '25/60F': { sampleC: 25, waterC: 15.5556 },
  '20/4': { sampleC: 20, waterC: 4 },
} as const
export type SgReference = keyof typeof sgReferences
export const sgReferenceNames = Object.keys(sgReferences) as SgReference[]

/** Specific gravity of water of a salinity: density at `sampleC` over that of pure water at `waterC`. */
export const specificGravity = (salinityPpt: number, sampleC: number, waterC: number): number => seawaterDensity(salinityPpt, sampleC) / pureWaterDensity(waterC)

/**
 * Finds the salinity (ppt) of water of a density in kg/m³.
 * @returns 0 for anything lighter than pure water, NaN beyond 50 ppt.
 */
export function salinityFromDensity(densityKgM3: number, tempC: number): number {
  return bisect((salinity) => seawaterDensity(salinity, tempC) - densityKgM3, 0, 50, 1e-9)
}

/**
 * Finds the salinity (ppt) that a specific gravity stands for.
 * @example salinityFromSg(1.025, 25, 25) // 33.19; the same reading on a 60F/60F glass is 32.59
 */
export const salinityFromSg = (sg: number, sampleC: number, waterC: number): number => salinityFromDensity(sg * pureWaterDensity(waterC), sampleC)

/** Cubic expansion of a hydrometer's float, 1/K. Plastic swing arms: an assumption, 1e-4 to 3e-4. */
export const floatExpansionPerK = { glass: 2.5e-5, plastic: 2e-4 } as const

export interface HydrometerReading {
  reading: number
  /** Temperature of the sample. */
  tempC: number
  /** Temperature the scale is made for. */
  scaleC: number
  /** Temperature of the water the scale compares with; the scale's own where the label gives one figure. */
  waterC?: number
  expansionPerK?: number
}

/**
 * Salinity (ppt) from a hydrometer read at another temperature than its own: the water is denser or lighter there, and
 * the float itself larger or smaller.
 * @example salinityFromHydrometer({ reading: 1.025, tempC: 20, scaleC: 25 }) // 31.51
 */
export function salinityFromHydrometer({ reading, tempC, scaleC, waterC = scaleC, expansionPerK = floatExpansionPerK.glass }: HydrometerReading): number {
  return salinityFromDensity((reading * pureWaterDensity(waterC)) / (1 + expansionPerK * (tempC - scaleC)), tempC)
}

/**
 * Finds where a rising function crosses zero by halving the interval.
 * @returns `low` when it is above zero already there, NaN when it is still below at `high`.
 */
export function bisect(rising: (x: number) => number, low: number, high: number, tolerance: number): number {
  if (rising(low) >= 0) return low
  if (!(rising(high) >= 0)) return NaN
  let [from, to] = [low, high]
  while (to - from > tolerance) {
    const middle = (from + to) / 2
    if (rising(middle) < 0) from = middle
    else to = middle
  }
  return (from + to) / 2
}
