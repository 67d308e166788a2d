import { molarMass } from './carbonate'
import { waterConstants } from './constants'
import { oxygenSaturationMgL } from './oxygen'

/**
 * The same chemistry as carbonate.ts for the many thousand waters of a Monte Carlo: constants out of a table, the root by
 * Newton from where it was last. Held against the plain path by tests (0.0005 in pH).
 */

// The table is even in the root of salinity, because the constants go with it near fresh water.
const rootStep = 0.1
const rootCount = 67
const tempStepC = 0.5
const tempCount = 93
export const slot = { co2PerUatm: 0, k1: 1, k2: 2, kw: 3, kb: 4, kn: 5, kgPerL: 6, phOffset: 7, oxygen: 8 } as const
const width = 9
let table: Float64Array | null = null

function makeTable(): Float64Array {
  const made = new Float64Array(rootCount * tempCount * width)
  for (let row = 0; row < rootCount; row += 1) {
    for (let column = 0; column < tempCount; column += 1) {
      const [salinityPpt, tempC] = [(row * rootStep) ** 2, column * tempStepC]
      const c = waterConstants(salinityPpt, tempC)
      made.set([c.k0 * 1e-6, c.k1, c.k2, c.kw, c.kb, c.kn, c.kgPerL, c.phOffset, oxygenSaturationMgL(salinityPpt, tempC)], (row * tempCount + column) * width)
    }
  }
  return made
}

// Looked up once: this runs ten million times.
const { floor, sqrt, exp, min, max } = Math

/** Constants of a water, written into `out` (see `slot`); salinity 0 to 43, 0 to 45 °C, held to these. */
export function lookUp(salinityPpt: number, tempC: number, out: Float64Array): void {
  table ??= makeTable()
  const x = min(rootCount - 1.000001, sqrt(max(0, salinityPpt)) / rootStep)
  const y = min(tempCount - 1.000001, max(0, tempC / tempStepC))
  const row = floor(x)
  const column = floor(y)
  const u = x - row
  const v = y - column
  const at = (row * tempCount + column) * width
  const below = at + tempCount * width
  const a = (1 - u) * (1 - v)
  const b = (1 - u) * v
  const c = u * (1 - v)
  const d = u * v
  const from = table
  for (let each = 0; each < width; each += 1) {
    out[each] = a * (from[at + each] as number) + b * (from[at + width + each] as number) + c * (from[below + each] as number) + d * (from[below + width + each] as number)
  }
}

export const makeConstants = (): Float64Array => new Float64Array(width)
const boronPerPpt = 0.0004157 / 35
const closeEnough = 1e-8
const mostSteps = 30

/**
 * Hydrogen ion concentration (total scale, mol/kg) of a water by Newton in its logarithm.
 * @param guess - where to begin; the water of a moment ago is two steps away.
 */
export function hydrogenOf(alkalinityMeqL: number, dicMmolL: number, tanMgL: number, salinityPpt: number, k: Float64Array, guess: number): number {
  const perKg = 1e-3 / (k[6] as number)
  const a = alkalinityMeqL * perKg
  const carbon = dicMmolL * perKg
  const tan = (tanMgL / molarMass.nitrogen) * perKg
  const k1 = k[1] as number
  const k2 = k[2] as number
  const kw = k[3] as number
  const kb = k[4] as number
  const kn = k[5] as number
  const boron = boronPerPpt * salinityPpt
  let h = guess
  for (let nth = 0; nth < mostSteps; nth += 1) {
    const bottom = h * h + k1 * h + k1 * k2
    const hb = kb + h
    const hn = kn + h
    const excess = (carbon * k1 * (h + 2 * k2)) / bottom + (boron * kb) / hb + kw / h - h + (tan * kn) / hn - a
    const buffer = (carbon * k1 * h * (h * h + 4 * k2 * h + k1 * k2)) / (bottom * bottom) + (boron * kb * h) / (hb * hb) + kw / h + h + (tan * kn * h) / (hn * hn)
    // A step of more than a few pH would only overshoot.
    const change = max(-3, min(3, excess / buffer))
    h *= exp(change)
    if (change < closeEnough && change > -closeEnough) return h
  }
  return h
}

/** Hydrogen ion concentration of a water in balance with air, ammonia left out. */
export function hydrogenAtAir(alkalinityMeqL: number, pco2Uatm: number, salinityPpt: number, k: Float64Array, guess: number): number {
  const k1 = k[1] as number
  const k2 = k[2] as number
  const kw = k[3] as number
  const kb = k[4] as number
  const a = (alkalinityMeqL * 1e-3) / (k[6] as number)
  const co2 = (k[0] as number) * pco2Uatm
  const boron = boronPerPpt * salinityPpt
  let h = guess
  for (let nth = 0; nth < mostSteps; nth += 1) {
    const hb = kb + h
    const one = (co2 * k1) / h
    const two = (2 * co2 * k1 * k2) / (h * h)
    const excess = one + two + (boron * kb) / hb + kw / h - h - a
    const buffer = one + 2 * two + (boron * kb * h) / (hb * hb) + kw / h + h
    const change = max(-3, min(3, excess / buffer))
    h *= exp(change)
    if (change < closeEnough && change > -closeEnough) return h
  }
  return h
}

/** Free carbon dioxide (mmol/L). */
export const freeCo2 = (dicMmolL: number, h: number, k: Float64Array): number => (dicMmolL * h * h) / (h * h + (k[1] as number) * h + (k[1] as number) * (k[2] as number))
/** Free carbon dioxide (mmol/L) in balance with air. */
export const co2InBalance = (pco2Uatm: number, k: Float64Array): number => (k[0] as number) * pco2Uatm * (k[6] as number) * 1e3
/** Un-ionised ammonia (mg N/L). */
export const unionised = (tanMgL: number, h: number, k: Float64Array): number => (tanMgL * (k[5] as number)) / ((k[5] as number) + h)
