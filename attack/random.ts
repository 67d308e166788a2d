import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'

/** Chance that is the same each time, so that what was found can be found again. */
export function createRandom(seed: number) {
  const generator = xoroshiro128plus(seed)
  const share = (): number => uniformFloat64(generator)
  const below = (most: number): number => Math.floor(share() * most)
  return {
    share,
    below,
    chance: (odds: number): boolean => share() < odds,
    pick: <T>(values: readonly T[]): T => values[below(values.length)] as T,
  }
}
export type Random = ReturnType<typeof createRandom>
