import type { LossCause } from '../ledger/movement'

/** How many times as likely as a settled fish one of so many days is to die: from which day on, how many times. The last band is 1. */
export type HazardByDays = readonly (readonly [fromDay: number, times: number])[]

/** What is shipped, house guidance: docs/pools.md. One curve for all lots, never a supplier's own, which would prove itself. */
export const shippedHazard: HazardByDays = [
  [0, 8],
  [3, 4],
  [7, 2],
  [21, 1],
]

/** Deaths that a settled fish dies as easily as a new one. */
export const evenCauses: readonly LossCause[] = ['jumped', 'eaten', 'pump intake']

/** Why fewer are there than the books said, where the new ones are the likelier to be missing. */
export const hazardReasons: readonly string[] = ['died unseen']

/** Reads the curve at a lot's whole days since it arrived. */
export const hazardAt = (days: number, curve: HazardByDays = shippedHazard): number => curve.findLast(([from]) => days >= from)?.[1] ?? curve[0]?.[1] ?? 1

type WeightOf = (lot: { days: number }) => number

/** How much likelier a loss was a lot's than its number says, by its cause. */
export const weightOfCause = (cause: LossCause, curve = shippedHazard): WeightOf => (evenCauses.includes(cause) ? () => 1 : ({ days }) => hazardAt(days, curve))

/** The same of fish that were counted as missing, by the reason. */
export const weightOfReason = (reason: string, curve = shippedHazard): WeightOf => (hazardReasons.includes(reason) ? ({ days }) => hazardAt(days, curve) : () => 1)

/** Deaths and fish-days seen in one band of days. */
export interface BandSeen {
  deaths: number
  fishDays: number
}

/**
 * Reads a house's own curve from tanks of one lot only, shrunk toward the shipped one as if five deaths more had been seen
 * that fit it: rate = (D + 5) / (F + 5 / (base g)), base = all deaths by all fish-days weighed, divided by the last band.
 * No deaths: as shipped. Source: docs/pools.md.
 * @param bands - as many as the shipped curve has.
 * @throws RangeError for another number of bands.
 * @example hazardCurve([none, none, none, none]) // [8, 4, 2, 1]
 */
export function hazardCurve(bands: readonly BandSeen[], shipped: HazardByDays = shippedHazard): number[] {
  if (bands.length !== shipped.length) throw new RangeError(`${bands.length} bands of days: the curve has ${shipped.length}`)
  const times = shipped.map(([, each]) => each)
  const deaths = bands.reduce((sum, band) => sum + band.deaths, 0)
  const weighed = bands.reduce((sum, { fishDays }, index) => sum + fishDays * (times[index] ?? 1), 0)
  if (deaths === 0 || weighed === 0) return times
  const base = deaths / weighed
  const rates = bands.map((band, index) => (band.deaths + 5) / (band.fishDays + 5 / (base * (times[index] ?? 1))))
  return rates.map((rate) => rate / (rates.at(-1) ?? 1))
}
