import { molarMass } from './carbonate'
import { seawaterDensity } from './density'

/** Solubility of oxygen, µmol/kg at one atmosphere (Garcia & Gordon 1992, Benson & Krause fit; salinity 0 to 42, to 40 °C). */
export function oxygenSolubilityUmolKg(salinityPpt: number, tempC: number): number {
  const s = salinityPpt
  const t = Math.log((298.15 - tempC) / (273.15 + tempC))
  return Math.exp(
    5.80871 + t * (3.20291 + t * (4.17887 + t * (5.10006 + t * (-9.86643e-2 + t * 3.80369)))) + s * (-7.01577e-3 + t * (-7.70028e-3 + t * (-1.13864e-2 - 9.51519e-3 * t))) - 2.75915e-7 * s * s,
  )
}

/** Pressure of water vapour over water, atm (Weiss & Price 1980). */
export function vapourPressureAtm(salinityPpt: number, tempC: number): number {
  const t = (tempC + 273.15) / 100
  return Math.exp(24.4543 - 67.4509 / t - 4.8489 * Math.log(t) - 0.000544 * salinityPpt)
}

/** Pressure at an altitude in metres, atm (standard atmosphere). */
export const pressureAtAltitudeAtm = (altitudeM: number): number => (1 - 2.25577e-5 * altitudeM) ** 5.25588

/**
 * Oxygen of water in balance with air, mg/L.
 * @param pressureAtm - of the air; 1 at sea level.
 * @example oxygenSaturationMgL(0, 20) // 9.092
 */
export function oxygenSaturationMgL(salinityPpt: number, tempC: number, pressureAtm = 1): number {
  const atOneAtm = oxygenSolubilityUmolKg(salinityPpt, tempC) * seawaterDensity(salinityPpt, tempC) * molarMass.oxygen * 1e-6
  if (pressureAtm === 1) return atOneAtm
  const vapour = vapourPressureAtm(salinityPpt, tempC)
  return (atOneAtm * (pressureAtm - vapour)) / (1 - vapour)
}

/** A stocked vessel: saturation (mg/L), exchange with the air (1/h), demand (mg/L/h). */
export interface StockedVessel {
  saturationMgL: number
  exchangePerH: number
  demandMgLH: number
}

/** An exchange so slow (1/h) that dividing by it would only lose digits. */
const noExchange = 1e-9

const restingMgL = ({ saturationMgL, exchangePerH, demandMgLH }: StockedVessel): number => saturationMgL - demandMgLH / exchangePerH

/** Oxygen (mg/L) after some hours, never below zero. */
export function oxygenAfter(hours: number, startMgL: number, vessel: StockedVessel): number {
  if (vessel.exchangePerH < noExchange) return Math.max(0, startMgL - vessel.demandMgLH * hours)
  const end = restingMgL(vessel)
  return Math.max(0, end + (startMgL - end) * Math.exp(-vessel.exchangePerH * hours))
}

/** Hours until oxygen has fallen to a level; 0 when it is there already, Infinity when it never falls so far. */
export function hoursToOxygen(levelMgL: number, startMgL: number, vessel: StockedVessel): number {
  if (startMgL <= levelMgL) return 0
  if (vessel.exchangePerH < noExchange) return vessel.demandMgLH > 0 ? (startMgL - levelMgL) / vessel.demandMgLH : Infinity
  const end = restingMgL(vessel)
  return end >= levelMgL ? Infinity : -Math.log((levelMgL - end) / (startMgL - end)) / vessel.exchangePerH
}

/** Greatest weight of fish (g) that a vessel holds above a level, at `demandMgGH` mg of oxygen per gram and hour. */
export const greatestBiomassG = ({ saturationMgL, exchangePerH }: Pick<StockedVessel, 'saturationMgL' | 'exchangePerH'>, levelMgL: number, volumeL: number, demandMgGH: number): number =>
  (exchangePerH * (saturationMgL - levelMgL) * volumeL) / demandMgGH
