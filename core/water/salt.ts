import { seawaterDensity } from './density'

/** Share of a salt mix that is salt and no moisture; an assumption, 0.88 to 1. Calibrate it with one batch. */
export const usualActiveShare = 0.95

/**
 * Grams of salt mix that raise water to a salinity. The volume grows by about one per cent, which is ignored.
 * @param active - share of the mix that is salt, above 0 to 1.
 * @returns 0 when the water is as salty already.
 * @example saltToAddG(100, 0, 35, 25, 1) // 3616
 */
export function saltToAddG(volumeL: number, fromPpt: number, toPpt: number, tempC: number, active = usualActiveShare): number {
  const waterKg = ((volumeL * seawaterDensity(fromPpt, tempC)) / 1000) * (1 - fromPpt / 1000)
  return Math.max(0, (1000 * waterKg * (toPpt / (1000 - toPpt) - fromPpt / (1000 - fromPpt))) / active)
}

/** Litres to take out and replace by water of `freshPpt`, so that the volume stays; 0 when nothing is to be lowered. */
export const litresToSwap = (volumeL: number, fromPpt: number, toPpt: number, freshPpt = 0): number => (fromPpt <= toPpt ? 0 : (volumeL * (fromPpt - toPpt)) / (fromPpt - freshPpt))

/** Litres of water of `freshPpt` to add where there is room for it; Infinity when that water is no fresher than the aim. */
export const litresToDilute = (volumeL: number, fromPpt: number, toPpt: number, freshPpt = 0): number =>
  fromPpt <= toPpt ? 0 : freshPpt >= toPpt ? Infinity : (volumeL * (fromPpt - toPpt)) / (toPpt - freshPpt)
