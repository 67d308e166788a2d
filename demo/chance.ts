import { uniformInt } from 'pure-rand/distribution/uniformInt'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'

/** Chance from a seed: the same seed gives the same four months. */
export interface Chance {
  from<T>(values: readonly T[]): T
  within(min: number, max: number): number
  oneIn(n: number): boolean
}

/** Opens the chance of a seed. */
export function createChance(seed: number): Chance {
  const generator = xoroshiro128plus(seed)
  const within = (min: number, max: number): number => uniformInt(generator, min, max)
  return { within, oneIn: (n) => within(1, n) === 1, from: (values) => values[within(0, values.length - 1)] as (typeof values)[number] }
}
