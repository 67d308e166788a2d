import { waterConstants, type WaterConstants } from './constants'

/** Grams in a mole. */
export const molarMass = { nitrogen: 14.007, carbonDioxide: 44.009, oxygen: 31.998, ammonia: 17.031 } as const

/** What water holds, per litre at its own temperature. These mix by volume; pH does not. */
export interface Dissolved {
  /** Total alkalinity, meq/L. */
  alkalinityMeqL: number
  /** Dissolved inorganic carbon, mmol/L. */
  dicMmolL: number
  /** Total ammonia as nitrogen, mg/L. */
  tanMgL: number
}

/** Amounts in mol/kg, as the equilibria need them. */
const perKg = (perLitre: number, c: WaterConstants): number => (perLitre * 1e-3) / c.kgPerL
const tanPerKg = (tanMgL: number, c: WaterConstants): number => perKg(tanMgL / molarMass.nitrogen, c)

/** Alkalinity (mol/kg) that is no carbonate, at a hydrogen ion concentration: borate, hydroxide, ammonia. */
const otherAlkalinity = (h: number, tan: number, c: WaterConstants): number => (c.boron * c.kb) / (c.kb + h) + c.kw / h - h + (tan * c.kn) / (c.kn + h)

/** Total alkalinity (mol/kg) of water with so much carbon and ammonia (mol/kg) at total pH. */
function alkalinityAt(ph: number, carbon: number, tan: number, c: WaterConstants): number {
  const h = 10 ** -ph
  return (carbon * (c.k1 * h + 2 * c.k1 * c.k2)) / (h * h + c.k1 * h + c.k1 * c.k2) + otherAlkalinity(h, tan, c)
}

/** Finds total pH by halving [2, 12] until it is known to 1e-10: slow, and never wrong. */
function bisectPh(excess: (ph: number) => number): number {
  let [low, high] = [2, 12]
  while (high - low > 1e-10) {
    const middle = (low + high) / 2
    if (excess(middle) > 0) high = middle
    else low = middle
  }
  return (low + high) / 2
}

/**
 * Total-scale pH of water. Rises with alkalinity, falls with carbon.
 * @param c - constants of the water's salinity and temperature.
 */
export function totalPh({ alkalinityMeqL, dicMmolL, tanMgL }: Dissolved, c: WaterConstants): number {
  const [alkalinity, carbon, tan] = [perKg(alkalinityMeqL, c), perKg(dicMmolL, c), tanPerKg(tanMgL, c)]
  return bisectPh((ph) => alkalinityAt(ph, carbon, tan, c) - alkalinity)
}

/** Free carbon dioxide in mmol/L at total pH. */
export function freeCo2MmolL(dicMmolL: number, ph: number, c: WaterConstants): number {
  const h = 10 ** -ph
  return (dicMmolL * h * h) / (h * h + c.k1 * h + c.k1 * c.k2)
}

/** Share of total ammonia that is un-ionised at total pH. */
export const unionisedShare = (ph: number, c: WaterConstants): number => 1 / (1 + 10 ** -ph / c.kn)

/** Free carbon dioxide (mmol/L) of water in balance with air. */
export const co2AtAir = (pco2Uatm: number, c: WaterConstants): number => c.k0 * c.kgPerL * 1e3 * pco2Uatm * 1e-6

interface WaterState extends Dissolved {
  salinityPpt: number
  tempC: number
}

/**
 * Meter pH from what water holds.
 * @example meterPh({ alkalinityMeqL: 2.3536, dicMmolL: 2.0466, tanMgL: 0, salinityPpt: 35, tempC: 25 }) // 8.186
 */
export function meterPh({ salinityPpt, tempC, ...dissolved }: WaterState): number {
  const c = waterConstants(salinityPpt, tempC)
  return totalPh(dissolved, c) + c.phOffset
}

/**
 * Inorganic carbon (mmol/L) from alkalinity and meter pH. Poor at low pH: 0.2 pH is a factor of 1.6 in carbon dioxide.
 * @returns 0 where the alkalinity leaves nothing for carbonate, as at a pH above what it can hold.
 */
export function dicFromPh(meter: number, alkalinityMeqL: number, salinityPpt: number, tempC: number, tanMgL = 0): number {
  const c = waterConstants(salinityPpt, tempC)
  const h = 10 ** -(meter - c.phOffset)
  const carbonate = perKg(alkalinityMeqL, c) - otherAlkalinity(h, tanPerKg(tanMgL, c), c)
  if (!(carbonate > 0)) return 0
  const carbon = (carbonate * (h * h + c.k1 * h + c.k1 * c.k2)) / (c.k1 * h + 2 * c.k1 * c.k2)
  return carbon * c.kgPerL * 1e3
}

/** Total pH of water in balance with air: what is left to it once carbon dioxide has settled. */
export function totalPhAtAir(alkalinityMeqL: number, tanMgL: number, pco2Uatm: number, c: WaterConstants): number {
  const [alkalinity, tan, co2] = [perKg(alkalinityMeqL, c), tanPerKg(tanMgL, c), c.k0 * pco2Uatm * 1e-6]
  return bisectPh((ph) => {
    const h = 10 ** -ph
    return (co2 * (c.k1 * h + 2 * c.k1 * c.k2)) / (h * h) + otherAlkalinity(h, tan, c) - alkalinity
  })
}

/**
 * Meter pH of water in balance with air. 420 µatm outdoors, 600 in a usual room, 1000 to 1500 in a closed one.
 * @example equilibriumMeterPh(2.5, 420, 35, 25) // 8.181
 */
export function equilibriumMeterPh(alkalinityMeqL: number, pco2Uatm: number, salinityPpt: number, tempC: number, tanMgL = 0): number {
  const c = waterConstants(salinityPpt, tempC)
  return totalPhAtAir(alkalinityMeqL, tanMgL, pco2Uatm, c) + c.phOffset
}

/** Partial pressure of carbon dioxide over the water, µatm. */
export function pco2Uatm(state: WaterState): number {
  const c = waterConstants(state.salinityPpt, state.tempC)
  return (perKg(freeCo2MmolL(state.dicMmolL, totalPh(state, c), c), c) / c.k0) * 1e6
}

/** Free carbon dioxide, mg/L. */
export function co2MgL(state: WaterState): number {
  const c = waterConstants(state.salinityPpt, state.tempC)
  return freeCo2MmolL(state.dicMmolL, totalPh(state, c), c) * molarMass.carbonDioxide
}

/**
 * Inorganic carbon (mmol/L) of water in balance with air.
 */
export function dicAtAir(alkalinityMeqL: number, pco2: number, salinityPpt: number, tempC: number): number {
  const c = waterConstants(salinityPpt, tempC)
  const h = 10 ** -totalPhAtAir(alkalinityMeqL, 0, pco2, c)
  return (co2AtAir(pco2, c) * (h * h + c.k1 * h + c.k1 * c.k2)) / (h * h)
}
