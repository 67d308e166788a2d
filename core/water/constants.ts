import { seawaterDensity } from './density'

/**
 * Equilibrium constants of water at one salinity and temperature, total pH scale, mol/kg. One set covers fresh to sea
 * water: salinity 0 to 40, 5 to 35 °C.
 */
export interface WaterConstants {
  /** Solubility of carbon dioxide, mol/kg/atm. */
  k0: number
  k1: number
  k2: number
  kw: number
  kb: number
  /** Total borate, mol/kg. */
  boron: number
  /** Acid constant of ammonium. */
  kn: number
  /** Kilograms in a litre. */
  kgPerL: number
  /** Meter pH minus total pH. */
  phOffset: number
}

const kelvin = (tempC: number): number => tempC + 273.15

/** pKa of ammonium in fresh water, 0 to 50 °C (Emerson, Russo, Lund & Thurston 1975). */
export const ammoniumPkaFresh = (tempC: number): number => 0.09018 + 2729.92 / kelvin(tempC)

/** Clegg & Whitfield 1995, total scale, mol/kg sea water; salinity 0 to 40, −2 to 40 °C. */
function cleggWhitfield(s: number, tk: number): number {
  return (
    9.244605 - 2729.33 * (1 / 298.15 - 1 / tk) +
    (0.04203362 - 11.24742 / tk) * s ** 0.25 +
    (-13.6416 + 1.176949 * Math.sqrt(tk) - 0.02860785 * tk + 545.4834 / tk) * Math.sqrt(s) +
    (-0.1462507 + 0.0090226468 * Math.sqrt(tk) - 0.0001471361 * tk + 10.5425 / tk) * s ** 1.5 +
    (0.004669309 - 0.0001691742 * Math.sqrt(tk) - 0.5677934 / tk) * s * s +
    (-2.354039e-5 + 0.009698623 / tk) * s ** 2.5 -
    Math.log10(1 - 0.001005 * s)
  )
}

/**
 * pKa of ammonium on the total scale: Emerson in fresh water, carried into sea water by Clegg & Whitfield, joined exactly
 * at salinity 0.
 * @example ammoniumPka(35, 25) // 9.2476
 */
export const ammoniumPka = (salinityPpt: number, tempC: number): number => ammoniumPkaFresh(tempC) + cleggWhitfield(salinityPpt, kelvin(tempC)) - cleggWhitfield(0, kelvin(tempC))

/** Natural log of the bisulfate constant on the free scale, mol/kg (Dickson 1990). */
export function lnBisulfate(salinityPpt: number, tempC: number): number {
  const tk = kelvin(tempC)
  const ionic = (19.924 * salinityPpt) / (1000 - 1.005 * salinityPpt)
  return (
    -4276.1 / tk + 141.328 - 23.093 * Math.log(tk) +
    (-13856 / tk + 324.57 - 47.986 * Math.log(tk)) * Math.sqrt(ionic) +
    (35474 / tk - 771.54 + 114.723 * Math.log(tk)) * ionic -
    (2698 / tk) * ionic ** 1.5 + (1776 / tk) * ionic ** 2 + Math.log(1 - 0.001005 * salinityPpt)
  )
}

/**
 * What a meter set with NBS or IUPAC buffers shows above the total scale. The first term is exact, the second a fit to
 * electrode data of Takahashi et al. 1982 within 0.023 at salinity 30 to 38; between 2 and 25 it is unsupported (±0.05).
 * The one place where the scales meet.
 */
export function phOffset(salinityPpt: number, tempC: number): number {
  const sulfate = ((0.14 / 96.062) * salinityPpt) / 1.80655
  return Math.log10(1 + sulfate / Math.exp(lnBisulfate(salinityPpt, tempC))) + (0.03 * salinityPpt) / 35
}

/** ln K0, mol/kg/atm (Weiss 1974). */
export function lnK0(salinityPpt: number, tempC: number): number {
  const t = kelvin(tempC) / 100
  return -60.2409 + 93.4517 / t + 23.3585 * Math.log(t) + salinityPpt * (0.023517 - 0.023656 * t + 0.0047036 * t * t)
}

/** ln of the solubility of carbon dioxide by volume, mol/L/atm (Weiss 1974). */
export function lnK0PerLitre(salinityPpt: number, tempC: number): number {
  const t = kelvin(tempC) / 100
  return -58.0931 + 90.5069 / t + 22.294 * Math.log(t) + salinityPpt * (0.027766 - 0.025888 * t + 0.0050578 * t * t)
}

/** pK1 of carbonic acid, total scale (Millero 2010). */
export function pk1(salinityPpt: number, tempC: number): number {
  const [s, tk, root] = [salinityPpt, kelvin(tempC), Math.sqrt(salinityPpt)]
  return -126.34048 + 6320.813 / tk + 19.568224 * Math.log(tk) + 13.4051 * root + 0.03185 * s - 5.218e-5 * s * s + (-531.095 * root - 5.7789 * s) / tk - 2.0663 * root * Math.log(tk)
}

/** pK2 of carbonic acid, total scale (Millero 2010). */
export function pk2(salinityPpt: number, tempC: number): number {
  const [s, tk, root] = [salinityPpt, kelvin(tempC), Math.sqrt(salinityPpt)]
  return -90.18333 + 5143.692 / tk + 14.613358 * Math.log(tk) + 21.5724 * root + 0.1212 * s - 3.714e-4 * s * s + (-798.292 * root - 18.951 * s) / tk - 3.403 * root * Math.log(tk)
}

/** ln of the ion product of water, total scale (Millero 1995; Dickson et al. 2007). */
export function lnKw(salinityPpt: number, tempC: number): number {
  const tk = kelvin(tempC)
  return 148.9652 - 13847.26 / tk - 23.6521 * Math.log(tk) + (118.67 / tk - 5.977 + 1.0495 * Math.log(tk)) * Math.sqrt(salinityPpt) - 0.01615 * salinityPpt
}

/** ln of the boric acid constant, total scale (Dickson 1990). */
export function lnKb(salinityPpt: number, tempC: number): number {
  const [s, tk, root] = [salinityPpt, kelvin(tempC), Math.sqrt(salinityPpt)]
  return (-8966.9 - 2890.53 * root - 77.942 * s + 1.728 * s * root - 0.0996 * s * s) / tk + 148.0248 + 137.1942 * root + 1.62142 * s + (-24.4344 - 25.085 * root - 0.2474 * s) * Math.log(tk) + 0.053105 * root * tk
}

/** Every constant of a water at once. Salinity is held at 0 or above, where the roots exist. */
export function waterConstants(salinity: number, tempC: number): WaterConstants {
  const salinityPpt = Math.max(0, salinity)
  return {
    k0: Math.exp(lnK0(salinityPpt, tempC)),
    k1: 10 ** -pk1(salinityPpt, tempC),
    k2: 10 ** -pk2(salinityPpt, tempC),
    kw: Math.exp(lnKw(salinityPpt, tempC)),
    kb: Math.exp(lnKb(salinityPpt, tempC)),
    // Uppström 1974
    boron: (0.0004157 * salinityPpt) / 35,
    kn: 10 ** -ammoniumPka(salinityPpt, tempC),
    kgPerL: seawaterDensity(salinityPpt, tempC) / 1000,
    phOffset: phOffset(salinityPpt, tempC),
  }
}
