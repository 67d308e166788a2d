import { dicFromPh, freeCo2MmolL, molarMass, unionisedShare } from '../water/carbonate'
import { lnK0PerLitre, waterConstants } from '../water/constants'
import { bisect } from '../water/density'
import { oxygenSaturationMgL, vapourPressureAtm } from '../water/oxygen'
import { co2PerOxygen, metabolismAt, nitrogenPerOxygen, oxygenDemandMgGH, type Metabolism } from './metabolism'

/** A bag as it was packed and travelled. */
export interface PackedBag {
  fish: number
  /** One fish, g. */
  massG: number
  waterL: number
  gasL: number
  hours: number
  packedC: number
  transitC: number
  openedC: number
  /** Meter pH when packed. */
  ph: number
  alkalinityMeqL: number
  salinityPpt: number
  /** Total ammonia when packed, mg N/L. */
  tanMgL?: number
  /** Partial pressure of oxygen in the gas, atm: 0.95 filled with oxygen, 0.209 air. */
  oxygenAtm?: number
  /** Carbon dioxide of the gas when packed, µatm. */
  headspacePco2Uatm?: number
  /** Oxygen below which it counts as hypoxia, mg/L. */
  hypoxiaMgL?: number
}

/** A bag at the moment it is opened. */
export interface OpenedBag {
  tanMgL: number
  alkalinityMeqL: number
  dicMmolL: number
  /** Meter pH. */
  ph: number
  pco2Uatm: number
  co2MgL: number
  unionisedShare: number
  unionisedMgL: number
  oxygenMgL: number
  /** Hours after packing at which oxygen falls below the hypoxia level; carbon dioxide and ammonia end a trip long before. */
  hoursToHypoxia: number
  hoursToNoOxygen: number
  /** Oxygen demand in transit, mg/g/h. */
  demandMgGH: number
  biomassG: number
  oxygenUsedMg: number
}

/** Gas constant, L·atm/mol/K. */
export const gasConstant = 0.082057366
const kelvin = (tempC: number): number => tempC + 273.15
/** Oxygen (mg) in a litre of gas at one atmosphere. */
const oxygenInGas = (tempC: number): number => (1000 * molarMass.oxygen) / (gasConstant * kelvin(tempC))

/** Share of new carbon dioxide that stays in the water of a shut bag; the rest goes into its gas. */
export function waterShareOfCo2(waterL: number, gasL: number, salinityPpt: number, tempC: number): number {
  const ostwald = Math.exp(lnK0PerLitre(salinityPpt, tempC)) * gasConstant * kelvin(tempC)
  return (waterL * ostwald) / (waterL * ostwald + gasL)
}

/**
 * Computes what a shut bag has become when it is opened: ammonia, carbon dioxide, pH, oxygen. Gas and water are taken to be
 * in balance. Leaks, bacteria, faeces and binders are left out; with a binder at work the figures for ammonia mean nothing.
 * Source: docs/science.md#bag.
 */
export function openBag(bag: PackedBag, metabolism: Metabolism = metabolismAt.likely): OpenedBag {
  const { waterL, gasL, hours, transitC, openedC, salinityPpt, tanMgL = 0 } = bag
  const biomassG = bag.fish * bag.massG
  const demandMgGH = oxygenDemandMgGH(bag.massG, transitC, metabolism.activity)
  const oxygen = oxygenIn(bag, biomassG * demandMgGH)
  const oxygenUsedMg = Math.min(biomassG * demandMgGH * hours, oxygen.startMg)
  const tanRise = (oxygenUsedMg * nitrogenPerOxygen(metabolism.ammoniaQuotient)) / waterL
  const tan = tanMgL + tanRise
  const alkalinityMeqL = bag.alkalinityMeqL + (metabolism.alkalinityPerNitrogen * tanRise) / molarMass.nitrogen
  const carbonMmol = carbonPacked(bag) + oxygenUsedMg * co2PerOxygen(metabolism.respiratoryQuotient)

  const c = waterConstants(salinityPpt, openedC)
  const dicAt = (ph: number): number => dicFromPh(ph + c.phOffset, alkalinityMeqL, salinityPpt, openedC, tan)
  const pco2At = (ph: number): number => (freeCo2MmolL(dicAt(ph), ph, c) * 1e-3) / c.kgPerL / c.k0
  // The total falls as pH rises, so its negative rises.
  const ph = bisect((each) => carbonMmol - dicAt(each) * waterL - (1000 * pco2At(each) * gasL) / (gasConstant * kelvin(openedC)), 3, 11.5, 1e-10)
  const dicMmolL = dicAt(ph)
  const share = unionisedShare(ph, c)
  return {
    ...{ tanMgL: tan, alkalinityMeqL, dicMmolL, ph: ph + c.phOffset, pco2Uatm: pco2At(ph) * 1e6 },
    co2MgL: freeCo2MmolL(dicMmolL, ph, c) * molarMass.carbonDioxide,
    ...{ unionisedShare: share, unionisedMgL: tan * share },
    oxygenMgL: (oxygen.perAtm * (oxygen.startMg - oxygenUsedMg)) / oxygen.capacity,
    hoursToHypoxia: oxygen.hoursToHypoxia,
    hoursToNoOxygen: oxygen.hoursToNone,
    ...{ demandMgGH, biomassG, oxygenUsedMg },
  }
}

/** Oxygen of water and gas together, at constant gas volume. */
function oxygenIn({ waterL, gasL, packedC, transitC, salinityPpt, oxygenAtm = 0.95, hypoxiaMgL = 3 }: PackedBag, demandMgH: number) {
  const perAtm = oxygenSaturationMgL(salinityPpt, transitC) / (0.20946 * (1 - vapourPressureAtm(salinityPpt, transitC)))
  const startMg = oxygenAtm * gasL * oxygenInGas(packedC) + oxygenSaturationMgL(salinityPpt, packedC) * waterL
  const capacity = perAtm * waterL + oxygenInGas(transitC) * gasL
  return { perAtm, startMg, capacity, hoursToHypoxia: Math.max(0, (startMg - (hypoxiaMgL / perAtm) * capacity) / demandMgH), hoursToNone: startMg / demandMgH }
}

/** Inorganic carbon (mmol) that was packed in water and gas. */
function carbonPacked({ waterL, gasL, packedC, ph, alkalinityMeqL, salinityPpt, tanMgL = 0, headspacePco2Uatm = 0 }: PackedBag): number {
  return dicFromPh(ph, alkalinityMeqL, salinityPpt, packedC, tanMgL) * waterL + (1000 * headspacePco2Uatm * 1e-6 * gasL) / (gasConstant * kelvin(packedC))
}
