import { bisect } from './density'

/**
 * Practical salinity from conductivity and back (PSS-78: UNESCO 1981, Technical Papers in Marine Science 37; Lewis 1980),
 * with the term of Hill, Dauphinee & Woods 1986 below salinity 2, used throughout so that nothing jumps.
 */
const a = [0.008, -0.1692, 25.3851, 14.0941, -7.0261, 2.7081] as const
const b = [0.0005, -0.0056, -0.0066, -0.0375, 0.0636, -0.0144] as const

/** Conductivity of standard sea water (35, 15 °C), mS/cm (Culkin & Smith 1980). */
export const standardConductivityMsCm = 42.914
/** Highest conductivity looked at when salinity is turned into conductivity, mS/cm. */
const maxMsCm = 120

const ratioOfStandard = (tempC: number): number => 0.6766097 + tempC * (2.00564e-2 + tempC * (1.104259e-4 + tempC * (-6.9698e-7 + tempC * 1.0031e-9)))
const temperatureTerm = (tempC: number): number => (tempC - 15) / (1 + 0.0162 * (tempC - 15))
const series = (coefficients: readonly number[], ratio: number): number => coefficients.reduce((sum, coefficient, power) => sum + coefficient * ratio ** (power / 2), 0)
const plainSalinity = (ratio: number, tempC: number): number => series(a, ratio) + temperatureTerm(tempC) * series(b, ratio)

/**
 * Practical salinity from the ratio of a sample's conductivity to that of standard sea water at 15 °C, plain PSS-78.
 * @param pressureDbar - pressure above the atmosphere; only for the published check values.
 * @returns NaN for a ratio below zero.
 */
export function salinityFromRatio(ratio: number, tempC: number, pressureDbar = 0): number {
  if (!(ratio >= 0)) return NaN
  const p = pressureDbar
  const rp = 1 + (p * (2.07e-5 - 6.37e-10 * p + 3.989e-15 * p * p)) / (1 + 3.426e-2 * tempC + 4.464e-4 * tempC * tempC + (4.215e-1 - 3.107e-3 * tempC) * ratio)
  return plainSalinity(ratio / (rp * ratioOfStandard(tempC)), tempC)
}

/**
 * Practical salinity from conductivity in mS/cm at the sample's own temperature (0 to 42; −2 to 35 °C).
 * @returns NaN for a conductivity below zero; 0 where the formula would fall below it.
 * @example salinityFromConductivity(1, 25) // 0.492
 */
export function salinityFromConductivity(msCm: number, tempC: number): number {
  if (!(msCm >= 0)) return NaN
  const ratio = msCm / standardConductivityMsCm / ratioOfStandard(tempC)
  const [x, y] = [400 * ratio, 100 * ratio]
  return Math.max(0, plainSalinity(ratio, tempC) - 0.008 / (1 + 1.5 * x + x * x) - (0.0005 * temperatureTerm(tempC)) / (1 + Math.sqrt(y) + y ** 1.5))
}

/** Conductivity (mS/cm) that water of a salinity has at its own temperature; NaN beyond what 120 mS/cm can mean. */
export const conductivityFromSalinity = (salinityPpt: number, tempC: number): number => bisect((msCm) => salinityFromConductivity(msCm, tempC) - salinityPpt, 0, maxMsCm, 1e-9)

/** Usual temperature coefficient of meters that refer to 25 °C, 1/K; editable where the meter says another. */
export const usualCompensationPerK = 0.0191

/**
 * Conductivity at the sample's temperature from a meter that shows it referred to 25 °C already. Such a reading must not be
 * compensated twice.
 */
export const uncompensated = (msCm25: number, tempC: number, perK = usualCompensationPerK): number => msCm25 * (1 + perK * (tempC - 25))
