import { molarMass } from '../water/carbonate'

/** How fish in a bag live: what is assumed, and within which range. */
export interface Metabolism {
  /** Oxygen demand over rest: handling, stress, dark. */
  activity: number
  /** Carbon dioxide made per oxygen used, mol/mol. */
  respiratoryQuotient: number
  /** Ammonia made per oxygen used, mol/mol. */
  ammoniaQuotient: number
  /** Alkalinity gained per nitrogen excreted, eq/mol. */
  alkalinityPerNitrogen: number
}

export type Band = readonly [low: number, likely: number, high: number]

/**
 * Ranges of the assumptions. Activity and the gain of alkalinity are assumptions of ours; respiratory quotient from
 * physiology texts (fat 0.7 to carbohydrate 1); ammonia quotient of fasted fish 0.1 to 0.2, 0.27 all protein (Kutty 1972;
 * van den Thillart & Kesbeke 1978).
 */
export const metabolismBands: Record<keyof Metabolism, Band> = {
  activity: [0.8, 1.3, 2.2],
  respiratoryQuotient: [0.75, 0.9, 1],
  ammoniaQuotient: [0.08, 0.15, 0.27],
  alkalinityPerNitrogen: [0, 0.7, 1],
}
/** Ammonia quotient of fish that were fed before packing. */
export const fedAmmoniaQuotient: Band = [0.15, 0.25, 0.35]

const pick = (which: 0 | 1 | 2): Metabolism => ({
  activity: metabolismBands.activity[which],
  respiratoryQuotient: metabolismBands.respiratoryQuotient[which],
  ammoniaQuotient: metabolismBands.ammoniaQuotient[which],
  alkalinityPerNitrogen: metabolismBands.alkalinityPerNitrogen[which],
})
export const metabolismAt = { low: pick(0), likely: pick(1), high: pick(2) }

/**
 * Oxygen demand of a fish, mg per gram and hour: resting teleosts of Clarke & Johnston 1999 taken to 25 °C, doubling with
 * every 10 °C.
 * @param massG - one fish.
 * @example oxygenDemandMgGH(1, 25) // 0.3341
 */
export const oxygenDemandMgGH = (massG: number, tempC: number, activity = metabolismBands.activity[1]): number => 0.257 * activity * massG ** -0.2 * 2 ** ((tempC - 25) / 10)

/** Nitrogen (mg) excreted with every mg of oxygen. */
export const nitrogenPerOxygen = (ammoniaQuotient: number): number => (ammoniaQuotient * molarMass.nitrogen) / molarMass.oxygen
/** Carbon dioxide (mmol) made with every mg of oxygen. */
export const co2PerOxygen = (respiratoryQuotient: number): number => respiratoryQuotient / molarMass.oxygen
