/** Milligrams that raise a volume from one level to another (mg/L); 0 when it is there. */
export const doseMg = (volumeL: number, fromMgL: number, toMgL: number): number => Math.max(0, volumeL * (toMgL - fromMgL))
/** Grams of a product whose active share is known from its label, e.g. 0.2545 for copper in copper sulphate pentahydrate. */
export const doseProductG = (volumeL: number, fromMgL: number, toMgL: number, activeShare: number): number => doseMg(volumeL, fromMgL, toMgL) / 1000 / activeShare
/** Litres a tank really holds, from a dose and the rise it was measured to make; NaN without a rise. */
export const volumeFromDoseL = (mg: number, beforeMgL: number, afterMgL: number): number => (afterMgL > beforeMgL ? mg / (afterMgL - beforeMgL) : NaN)

/** A tank by its inner measures and what stands in it. */
export interface TankMeasures {
  lengthCm: number
  widthCm: number
  /** Height of the water, not of the glass. */
  heightCm: number
  rockKg?: number
  /** Apparent density: the water inside porous rock counts as water. */
  rockKgPerL?: number
  /** Volume of the bed as it lies. */
  sandL?: number
  sandPorosity?: number
  equipmentL?: number
  sumpL?: number
}

/** Net volume of water, L; not below 0. */
export function netVolumeL({ lengthCm, widthCm, heightCm, rockKg = 0, rockKgPerL = 2.7, sandL = 0, sandPorosity = 0.4, equipmentL = 0, sumpL = 0 }: TankMeasures): number {
  return Math.max(0, (lengthCm * widthCm * heightCm) / 1000 - rockKg / rockKgPerL - sandL * (1 - sandPorosity) - equipmentL + sumpL)
}
