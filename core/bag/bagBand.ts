import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { quantile } from '../stats/quantile'
import { triangular } from '../stats/triangular'
import { openBag, type OpenedBag, type PackedBag } from './closedBag'
import { metabolismBands } from './metabolism'

export interface BagBand {
  low: number
  median: number
  high: number
}
export const bagFigures = ['tanMgL', 'ph', 'co2MgL', 'unionisedMgL', 'oxygenMgL', 'hoursToHypoxia'] as const satisfies readonly (keyof OpenedBag)[]
const draws = 400

/** 10, 50 and 90 % of what a bag may have become, over the ranges of how fish live in it. The same for the same seed. */
export function bagBand(bag: PackedBag, seed = 1): Record<(typeof bagFigures)[number], BagBand> {
  const generator = xoroshiro128plus(seed)
  const draw = (key: keyof typeof metabolismBands): number => triangular(uniformFloat64(generator), metabolismBands[key])
  const opened = Array.from({ length: draws }, () => openBag(bag, { activity: draw('activity'), respiratoryQuotient: draw('respiratoryQuotient'), ammoniaQuotient: draw('ammoniaQuotient'), alkalinityPerNitrogen: draw('alkalinityPerNitrogen') }))
  return Object.fromEntries(
    bagFigures.map((figure) => {
      const values = opened.map((each) => each[figure])
      return [figure, { low: quantile(values, 0.1), median: quantile(values, 0.5), high: quantile(values, 0.9) }]
    }),
  ) as Record<(typeof bagFigures)[number], BagBand>
}
