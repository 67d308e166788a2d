import { co2AtAir, dicFromPh, freeCo2MmolL, molarMass, totalPh, unionisedShare } from '../water/carbonate'
import { waterConstants } from '../water/constants'
import { oxygenSaturationMgL } from '../water/oxygen'

/** Water in a vessel; every figure per litre at its own temperature. */
export interface VesselState {
  volumeL: number
  tempC: number
  salinityPpt: number
  alkalinityMeqL: number
  dicMmolL: number
  tanMgL: number
  oxygenMgL: number
}

/** A stretch of time in which nothing is done to the vessel but what flows in. */
export interface Stretch {
  minutes: number
  /** `fill` lets the volume grow, `overflow` keeps it. */
  mode: 'none' | 'fill' | 'overflow'
  /** Tank water flowing in, L/min. */
  flowLPerMin?: number
  /** Exchange of carbon dioxide with the air, 1/h. */
  exchangePerH?: number
  /** Time constant towards `bathC`, minutes; left out, no heat is exchanged. */
  tauMin?: number
  bathC?: number
  /** While a bag is shut: share of new carbon dioxide that stays in its water. Oxygen is then held by the gas. */
  sealedShare?: number
}
/** What is done at one moment. */
export type Deed =
  | { dump: number }
  /** Litres of tank water added at once. */
  | { addL: number }
  /** Poured over: this share of the carbon dioxide above balance leaves, and oxygen nears saturation by as much. */
  | { pour: number }
  /** Fish are netted into other water, perhaps together with those of other bags. */
  | { into: VesselState; biomassG: number }
  /** Fish are in the tank's water; the volume is kept. */
  | { transfer: true }
  /** The water was read: from here on it is what was measured. */
  | { read: WaterReading }
export type Phase = Stretch | Deed

/** What was measured in the water around the fish; null for what was not. Total ammonia as nitrogen, pH by meter. */
export interface WaterReading {
  tempC: number | null
  salinityPpt: number | null
  ph: number | null
  tanMgL: number | null
}

/** What the fish in it do, and the air above. */
export interface VesselOptions {
  biomassG: number
  /** mg of oxygen per g and hour. */
  demandMgGH: number
  /** mg of nitrogen per mg of oxygen. */
  nitrogenPerOxygen: number
  /** mmol of carbon dioxide per mg of oxygen. */
  co2PerOxygen: number
  alkalinityPerNitrogen: number
  /** Carbon dioxide of the room's air, µatm. */
  roomPco2Uatm?: number
  /** Longest step, minutes; shorter where something changes fast. */
  stepMin?: number
}
export const usualRoomPco2Uatm = 600

export interface VesselMoment extends VesselState {
  atMin: number
  /** Meter pH. */
  ph: number
  unionisedMgL: number
}

export const isStretch = (phase: Phase): phase is Stretch => 'minutes' in phase
const exchangeOfOxygen = 1.1

/** What changes with the state at one moment, per minute. */
function ratesOf(state: VesselState, stretch: Stretch, tank: VesselState, options: VesselOptions): VesselState {
  const { mode, flowLPerMin = 0, exchangePerH = 0, tauMin, bathC = 0, sealedShare } = stretch
  const flow = mode === 'none' ? 0 : flowLPerMin
  const exchange = flow / state.volumeL
  const used = (options.biomassG * options.demandMgGH) / 60 / state.volumeL
  const nitrogen = used * options.nitrogenPerOxygen
  const toward = (key: 'tempC' | 'salinityPpt' | 'alkalinityMeqL' | 'dicMmolL' | 'tanMgL' | 'oxygenMgL'): number => exchange * (tank[key] - state[key])
  return {
    volumeL: mode === 'fill' ? flow : 0,
    tempC: toward('tempC') + (tauMin ? (bathC - state.tempC) / tauMin : 0),
    salinityPpt: toward('salinityPpt'),
    alkalinityMeqL: toward('alkalinityMeqL') + (nitrogen / molarMass.nitrogen) * options.alkalinityPerNitrogen,
    dicMmolL: toward('dicMmolL') - gasLeaving(state, exchangePerH, options) + used * options.co2PerOxygen * (sealedShare || 1),
    tanMgL: toward('tanMgL') + nitrogen,
    oxygenMgL: sealedShare ? 0 : toward('oxygenMgL') + ((exchangeOfOxygen * exchangePerH) / 60) * (oxygenSaturationMgL(state.salinityPpt, state.tempC) - state.oxygenMgL) - used,
  }
}

/** Carbon dioxide going into the air, mmol/L/min. */
function gasLeaving(state: VesselState, exchangePerH: number, { roomPco2Uatm = usualRoomPco2Uatm }: VesselOptions): number {
  if (exchangePerH === 0) return 0
  const c = waterConstants(state.salinityPpt, state.tempC)
  return (exchangePerH / 60) * (freeCo2MmolL(state.dicMmolL, totalPh(state, c), c) - co2AtAir(roomPco2Uatm, c))
}

const keys = ['volumeL', 'tempC', 'salinityPpt', 'alkalinityMeqL', 'dicMmolL', 'tanMgL', 'oxygenMgL'] as const
const moved = (state: VesselState, by: VesselState, h: number): VesselState => clamped(Object.fromEntries(keys.map((key) => [key, state[key] + h * by[key]])) as unknown as VesselState)
const clamped = (state: VesselState): VesselState => ({ ...state, oxygenMgL: Math.max(0, state.oxygenMgL), dicMmolL: Math.max(1e-9, state.dicMmolL) })

/** One step of the classical fourth-order Runge-Kutta method. */
function step(state: VesselState, h: number, rates: (at: VesselState) => VesselState): VesselState {
  const k1 = rates(state)
  const k2 = rates(moved(state, k1, h / 2))
  const k3 = rates(moved(state, k2, h / 2))
  const k4 = rates(moved(state, k3, h))
  return clamped(Object.fromEntries(keys.map((key) => [key, state[key] + (h / 6) * (k1[key] + 2 * k2[key] + 2 * k3[key] + k4[key])])) as unknown as VesselState)
}

/** Steps of a stretch: short enough for whatever changes fastest, and ending on its end. */
export function stepsOf({ minutes, mode, flowLPerMin = 0, exchangePerH = 0, tauMin }: Stretch, volumeL: number, stepMin: number): number {
  const fastest = Math.max(mode === 'none' ? 0 : flowLPerMin / volumeL, (exchangeOfOxygen * exchangePerH) / 60, tauMin ? 1 / tauMin : 0)
  const longest = Math.min(0.5, fastest > 0 ? 0.1 / fastest : Infinity) * (stepMin / 0.5)
  return Math.max(1, Math.ceil(minutes / longest - 1e-9))
}

function done(state: VesselState, deed: Deed, tank: VesselState, { roomPco2Uatm = usualRoomPco2Uatm }: VesselOptions): VesselState {
  if ('dump' in deed) return { ...state, volumeL: state.volumeL * (1 - deed.dump) }
  if ('transfer' in deed) return { ...tank, volumeL: state.volumeL }
  if ('into' in deed) return deed.into
  if ('read' in deed) return withReading(state, deed.read)
  if ('addL' in deed) {
    const volumeL = state.volumeL + deed.addL
    const mixed = keys.map((key) => [key, key === 'volumeL' ? volumeL : (state[key] * state.volumeL + tank[key] * deed.addL) / volumeL])
    return Object.fromEntries(mixed) as unknown as VesselState
  }
  const c = waterConstants(state.salinityPpt, state.tempC)
  const excess = freeCo2MmolL(state.dicMmolL, totalPh(state, c), c) - co2AtAir(roomPco2Uatm, c)
  const saturation = oxygenSaturationMgL(state.salinityPpt, state.tempC)
  return clamped({ ...state, dicMmolL: state.dicMmolL - deed.pour * excess, oxygenMgL: state.oxygenMgL + deed.pour * (saturation - state.oxygenMgL) })
}

/** Takes what was measured for true; a measured pH tells the carbon, the alkalinity being what it was reckoned to be. */
export function withReading(state: VesselState, { tempC, salinityPpt, ph, tanMgL }: WaterReading): VesselState {
  const read = { ...state, tempC: tempC ?? state.tempC, salinityPpt: salinityPpt ?? state.salinityPpt, tanMgL: tanMgL ?? state.tanMgL }
  return ph === null ? read : clamped({ ...read, dicMmolL: dicFromPh(ph, read.alkalinityMeqL, read.salinityPpt, read.tempC, read.tanMgL) })
}

/** Meter pH and un-ionised ammonia of a water. */
export function readState(state: VesselState): { ph: number; unionisedMgL: number } {
  const c = waterConstants(state.salinityPpt, state.tempC)
  const ph = totalPh(state, c)
  return { ph: ph + c.phOffset, unionisedMgL: state.tanMgL * unionisedShare(ph, c) }
}

/**
 * Follows the water in a vessel through the phases of a method, by the full equations with every constant solved anew: the
 * reference. Waters mix by volume in alkalinity, carbon, ammonia, salinity and temperature; pH is solved, never mixed.
 * @returns every step and every deed, the state after a deed standing beside the one before.
 */
export function runVessel(start: VesselState, tank: VesselState, phases: readonly Phase[], options: VesselOptions): VesselMoment[] {
  const moments: VesselMoment[] = []
  let [state, atMin] = [clamped(start), 0]
  const note = (): void => void moments.push({ ...state, atMin, ...readState(state) })
  note()
  let inIt = options
  for (const phase of phases) {
    if (!isStretch(phase)) {
      if ('into' in phase) inIt = { ...options, biomassG: phase.biomassG }
      state = done(state, phase, tank, options)
      note()
      continue
    }
    const from = atMin
    const count = stepsOf(phase, state.volumeL, options.stepMin ?? 0.5)
    for (let nth = 1; nth <= count; nth += 1) {
      state = step(state, phase.minutes / count, (at) => ratesOf(at, phase, tank, inIt))
      atMin = from + (phase.minutes * nth) / count
      note()
    }
  }
  return moments
}
