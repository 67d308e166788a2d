import { molarMass } from '../water/carbonate'
import { co2InBalance, freeCo2, hydrogenAtAir, hydrogenOf, lookUp, makeConstants, unionised } from '../water/fastChemistry'
import { doseFloorMgL } from './summariseRun'
import { isStretch, usualRoomPco2Uatm, withReading, type Deed, type Phase, type Stretch, type VesselOptions, type VesselState } from './vessel'

/** Moments of a run as columns, so that nothing is made anew for each of a hundred thousand runs. */
export interface Series {
  length: number
  /** Whether it ended before the run did, because there was no more room in it. */
  isFull: boolean
  atMin: Float64Array
  tempC: Float64Array
  salinityPpt: Float64Array
  oxygenMgL: Float64Array
  unionisedMgL: Float64Array
  /** pH (meter) the water has by itself, in balance with room air at the tank's temperature. */
  ownPh: Float64Array
  /** What carbon dioxide and temperature add to it. */
  co2Ph: Float64Array
}

const most = 20_000
export const makeSeries = (): Series => {
  const column = (): Float64Array => new Float64Array(most)
  return { length: 0, isFull: false, atMin: column(), tempC: column(), salinityPpt: column(), oxygenMgL: column(), unionisedMgL: column(), ownPh: column(), co2Ph: column() }
}

// The state as a row of numbers: volume, temperature, salinity, alkalinity, carbon, ammonia, oxygen.
const size = 7
const toRow = (state: VesselState, row: Float64Array): void => row.set([state.volumeL, state.tempC, state.salinityPpt, state.alkalinityMeqL, state.dicMmolL, state.tanMgL, state.oxygenMgL])
const at = (row: Float64Array, index: number): number => row[index] as number
const fromRow = (row: Float64Array): VesselState => ({ volumeL: at(row, 0), tempC: at(row, 1), salinityPpt: at(row, 2), alkalinityMeqL: at(row, 3), dicMmolL: at(row, 4), tanMgL: at(row, 5), oxygenMgL: at(row, 6) })
/** How far a step may go against what changes fastest; as in the reference, so that no peak falls between two moments. */
const stepShare = 0.1
/** By how much of itself ammonia above the floor may move within a step: the ends of a step then give its dose to a quarter of a per cent. */
const ammoniaShare = 0.15
const moveFar = (from: number, to: number): boolean => Math.max(from, to) > doseFloorMgL && Math.abs(to - from) > ammoniaShare * Math.max(from, to)

/**
 * Makes a run that follows a vessel as `runVessel` does, with the chemistry of fastChemistry.ts and steps as long as the
 * figures allow.
 * @param longestStepMin - longest step of stretches of an hour and more: 1 in ordinary schools, 4 in crossings. Shorter
 *   stretches go by the minute, because windows of five minutes need that many moments.
 */
export function createFastRun() {
  const k = makeConstants()
  const atTank = makeConstants()
  const [row, target, probe] = [new Float64Array(size), new Float64Array(size), new Float64Array(size)]
  const slopes = [0, 1, 2, 3].map(() => new Float64Array(size))
  const before = [1, 2, 3, 4, 5].map(() => new Float64Array(size))
  let [h, hAir, now] = [1e-7, 1e-8, 0]
  let options: VesselOptions
  let room = usualRoomPco2Uatm

  function note(series: Series, tankC: number): void {
    const n = series.length
    if (n >= most) return void (series.isFull = true)
    lookUp(at(row, 2), at(row, 1), k)
    h = hydrogenOf(at(row, 3), at(row, 4), at(row, 5), at(row, 2), k, h)
    lookUp(at(row, 2), tankC, atTank)
    hAir = hydrogenAtAir(at(row, 3), room, at(row, 2), atTank, hAir)
    const own = -Math.log10(hAir) + (atTank[7] as number)
    series.atMin[n] = now
    series.tempC[n] = at(row, 1)
    series.salinityPpt[n] = at(row, 2)
    series.oxygenMgL[n] = at(row, 6)
    series.unionisedMgL[n] = unionised(at(row, 5), h, k)
    series.ownPh[n] = own
    series.co2Ph[n] = -Math.log10(h) + (k[7] as number) - own
    series.length = n + 1
  }

  // What the phase in hand is like; read once, not for each of its steps.
  let flow = 0
  let fillFlow = 0
  let exchange = 0
  let warmth = 0
  let bathC = 0
  let co2Share = 1
  let isSealed = false
  function begin({ mode, flowLPerMin = 0, exchangePerH = 0, tauMin, bathC: bath = 0, sealedShare }: Stretch): void {
    flow = mode === 'none' ? 0 : flowLPerMin
    fillFlow = mode === 'fill' ? flow : 0
    exchange = exchangePerH / 60
    warmth = tauMin ? 1 / tauMin : 0
    bathC = bath
    co2Share = sealedShare || 1
    isSealed = Boolean(sealedShare)
  }

  /** What changes per minute; the reference in vessel.ts says why. */
  function rates(y: Float64Array, out: Float64Array): void {
    const volume = y[0] as number
    const share = flow / volume
    const used = (options.biomassG * options.demandMgGH) / 60 / volume
    const nitrogen = used * options.nitrogenPerOxygen
    const temp = y[1] as number
    const carbon = y[4] as number
    const oxygen = y[6] as number
    out[0] = fillFlow
    out[1] = share * ((target[1] as number) - temp) + warmth * (bathC - temp)
    out[2] = share * ((target[2] as number) - (y[2] as number))
    out[3] = share * ((target[3] as number) - (y[3] as number)) + (nitrogen / molarMass.nitrogen) * options.alkalinityPerNitrogen
    let carbonRate = share * ((target[4] as number) - carbon) + used * options.co2PerOxygen * co2Share
    out[5] = share * ((target[5] as number) - (y[5] as number)) + nitrogen
    let oxygenRate = share * ((target[6] as number) - oxygen) - used
    if (exchange > 0) {
      // The constants are those of the step's beginning: within a step of a minute they hardly move.
      h = hydrogenOf(y[3] as number, carbon, y[5] as number, y[2] as number, k, h)
      carbonRate -= exchange * (freeCo2(carbon, h, k) - co2InBalance(room, k))
      oxygenRate += 1.1 * exchange * ((k[8] as number) - oxygen)
    }
    out[4] = carbonRate
    out[6] = isSealed ? 0 : oxygenRate
  }

  function clamp(y: Float64Array): void {
    if (at(y, 4) < 1e-9) y[4] = 1e-9
    if (at(y, 6) < 0) y[6] = 0
  }

  function step(length: number): void {
    const [k1, k2, k3, k4] = slopes as [Float64Array, Float64Array, Float64Array, Float64Array]
    const from = (slope: Float64Array, by: number): void => {
      for (let each = 0; each < size; each += 1) probe[each] = at(row, each) + by * at(slope, each)
      clamp(probe)
    }
    rates(row, k1)
    from(k1, length / 2)
    rates(probe, k2)
    from(k2, length / 2)
    rates(probe, k3)
    from(k3, length)
    rates(probe, k4)
    for (let each = 0; each < size; each += 1) row[each] = at(row, each) + (length / 6) * (at(k1, each) + 2 * at(k2, each) + 2 * at(k3, each) + at(k4, each))
    clamp(row)
  }

  /**
   * Goes on by one step and notes where it led: or by two of half its length, where ammonia above the floor moves so far
   * within it that a straight line between its ends says little of the dose.
   * @param halvings - how often the step may still be halved.
   */
  function advance(toMin: number, tankC: number, series: Series, halvings = before.length): void {
    const fromMin = now
    before[halvings - 1]?.set(row)
    step(toMin - fromMin)
    now = toMin
    note(series, tankC)
    if (series.isFull || halvings === 0 || !moveFar(at(series.unionisedMgL, series.length - 2), at(series.unionisedMgL, series.length - 1))) return
    row.set(before[halvings - 1] as Float64Array)
    lookUp(at(row, 2), at(row, 1), k)
    now = fromMin
    series.length -= 1
    advance((fromMin + toMin) / 2, tankC, series, halvings - 1)
    advance(toMin, tankC, series, halvings - 1)
  }

  function act(deed: Deed): void {
    if ('dump' in deed) row[0] = at(row, 0) * (1 - deed.dump)
    else if ('transfer' in deed) for (let each = 1; each < size; each += 1) row[each] = at(target, each)
    else if ('into' in deed) {
      toRow(deed.into, row)
      options = { ...options, biomassG: deed.biomassG }
    } else if ('read' in deed) toRow(withReading(fromRow(row), deed.read), row)
    else if ('addL' in deed) {
      const volume = at(row, 0) + deed.addL
      for (let each = 1; each < size; each += 1) row[each] = (at(row, each) * at(row, 0) + at(target, each) * deed.addL) / volume
      row[0] = volume
    } else {
      lookUp(at(row, 2), at(row, 1), k)
      h = hydrogenOf(at(row, 3), at(row, 4), at(row, 5), at(row, 2), k, h)
      row[4] = at(row, 4) - deed.pour * (freeCo2(at(row, 4), h, k) - co2InBalance(room, k))
      row[6] = at(row, 6) + deed.pour * ((k[8] as number) - at(row, 6))
      clamp(row)
    }
  }

  return function run(start: VesselState, tank: VesselState, phases: readonly Phase[], given: VesselOptions, longestStepMin: number, series: Series): Series {
    options = given
    room = given.roomPco2Uatm ?? usualRoomPco2Uatm
    toRow(start, row)
    toRow(tank, target)
    clamp(row)
    ;[h, hAir, now, series.length, series.isFull] = [1e-7, 1e-8, 0, 0, false]
    note(series, tank.tempC)
    for (const phase of phases) {
      if (series.isFull) break
      if (!isStretch(phase)) {
        act(phase)
        note(series, tank.tempC)
        continue
      }
      const fastest = Math.max(phase.mode === 'none' ? 0 : (phase.flowLPerMin ?? 0) / at(row, 0), (1.1 * (phase.exchangePerH ?? 0)) / 60, phase.tauMin ? 1 / phase.tauMin : 0)
      const longest = Math.min(phase.minutes >= 60 ? longestStepMin : 1, fastest > 0 ? stepShare / fastest : Infinity)
      // Whole parts of a minute, so that moments lie five minutes apart where a window begins and ends.
      const count = Math.max(1, Math.ceil((longest < 1 ? phase.minutes * Math.ceil(1 / longest) : phase.minutes / longest) - 1e-9))
      const from = now
      begin(phase)
      for (let nth = 1; nth <= count && !series.isFull; nth += 1) advance(from + (phase.minutes * nth) / count, tank.tempC, series)
    }
    return series
  }
}
export type FastRun = ReturnType<typeof createFastRun>
