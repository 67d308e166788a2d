/**
 * Closed forms of mixing without heat, gas or sources, in any consistent unit of time. `from` is the figure at the start
 * (salinity, temperature, any concentration), `to` that of the water flowing in, `within` how near is near enough.
 */
export interface Mixing {
  volumeL: number
  /** Flow, L per unit of time. */
  flow: number
  from: number
  to: number
}

const gap = (from: number, to: number): number => Math.abs(from - to)

/** Figure in a vessel that fills up. */
export const fillAfter = (time: number, { volumeL, flow, from, to }: Mixing): number => (volumeL * from + flow * time * to) / (volumeL + flow * time)
/** Time until a filling vessel is near enough; 0 when it is. */
export const fillTime = ({ volumeL, flow, from, to }: Mixing, within: number): number => Math.max(0, (volumeL * (gap(from, to) / within - 1)) / flow)
/** Litres a filling vessel holds in the end; grows with one over `within`, so cap it and suggest overflow. */
export const fillVolumeL = (volumeL: number, from: number, to: number, within: number): number => volumeL * Math.max(1, gap(from, to) / within)
/** Flow that fills a vessel near enough in a time; 0 when it is so already. */
export const fillFlow = (volumeL: number, from: number, to: number, within: number, time: number): number => (volumeL * Math.max(0, gap(from, to) / within - 1)) / time

/** Figure in a vessel that overflows at constant volume, fully mixed. */
export const overflowAfter = (time: number, { volumeL, flow, from, to }: Mixing): number => to + (from - to) * Math.exp((-flow * time) / volumeL)
/** Time until an overflowing vessel is near enough; 0 when it is. */
export const overflowTime = ({ volumeL, flow, from, to }: Mixing, within: number): number => (volumeL / flow) * Math.max(0, Math.log(gap(from, to) / within))
/** Flow that brings an overflowing vessel near enough in a time; 0 when it is so already. */
export const overflowFlow = (volumeL: number, from: number, to: number, within: number, time: number): number => (volumeL * Math.max(0, Math.log(gap(from, to) / within))) / time

/** Overflow with a source of `source` per litre and unit of time, such as ammonia from fish. */
export function overflowWithSource(time: number, { volumeL, flow, from, to }: Mixing, source: number): number {
  const end = to + (source * volumeL) / flow
  return end + (from - end) * Math.exp((-flow * time) / volumeL)
}
/** Temperature in an overflowing vessel that also gives heat to a room of `airC` with time constant `tau`. */
export function overflowTemperature(time: number, { volumeL, flow, from, to }: Mixing, airC: number, tau: number): number {
  const rate = flow / volumeL + 1 / tau
  const end = ((flow / volumeL) * to + airC / tau) / rate
  return end + (from - end) * Math.exp(-rate * time)
}

/** Figure after exchanging a share of the volume so many times. */
export const afterExchanges = (times: number, share: number, from: number, to: number): number => to + (from - to) * (1 - share) ** times
/** Exchanges of a share that bring it near enough; 0 when it is. */
export const exchangesNeeded = (share: number, from: number, to: number, within: number): number => Math.max(0, Math.ceil(Math.log(within / gap(from, to)) / Math.log(1 - share) - 1e-12))

/** Temperature of a floating bag: nears the bath with time constant `tau`. */
export const floatTemperature = (time: number, fromC: number, bathC: number, tau: number): number => bathC + (fromC - bathC) * Math.exp(-time / tau)
/**
 * Time constant of a floating bag from two readings of its water.
 * @returns NaN unless the second is nearer to the bath, on the same side of it.
 */
export function tauFromReadings(time1: number, temp1C: number, time2: number, temp2C: number, bathC: number): number {
  const ratio = (temp1C - bathC) / (temp2C - bathC)
  return ratio > 1 ? (time2 - time1) / Math.log(ratio) : NaN
}
/** Usual time constant of a floating bag in minutes; from half to twice that. An assumption (natural convection, U 50 to 250 W/m²/K). */
export const usualFloatTauMin = (waterL: number): number => 10 * Math.cbrt(waterL)
/** Usual time constant of a bucket in room air, minutes (3 to 6 h for 2 to 10 L). */
export const usualBucketTauMin = 300

/** Nominal drops in a millilitre; 10 to 30 in truth, by tip, salinity and rate. Calibrate each airline. */
export const nominalDropsPerMl = 20
export const dropsToMl = (drops: number, dropsPerMl = nominalDropsPerMl): number => drops / dropsPerMl
export const mlToDrops = (ml: number, dropsPerMl = nominalDropsPerMl): number => ml * dropsPerMl
