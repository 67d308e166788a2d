import { toleranceLevels, type Tolerance } from '../setup/words'
import { temperaments } from '../species/speciesWords'
import type { Limits } from '../limits/houseLimits'

/** What acclimating needs of a species, and how many fish of it there are. */
export interface FishInIt {
  fish: number
  massG: number | null
  phMax: number | null
  tolerance: Tolerance | null
  temperament: string | null
}

/**
 * Takes several species in one vessel as one: the mean fish weighs what they weigh together, and the one that bears least
 * sets the limits.
 * @returns facts as of a single species; null where none of them says anything.
 */
export function speciesTogether(all: readonly FishInIt[], { usualFishG }: Pick<Limits, 'usualFishG'>): Omit<FishInIt, 'fish'> {
  const fish = all.reduce((sum, each) => sum + each.fish, 0)
  const isWeighed = all.some(({ massG }) => massG !== null)
  const massG = all.reduce((sum, each) => sum + each.fish * (each.massG ?? usualFishG), 0) / Math.max(1, fish)
  const last = <T>(order: readonly T[], values: readonly (T | null)[]): T | null => order.findLast((each) => values.includes(each)) ?? null
  const highest = all.flatMap(({ phMax }) => (phMax === null ? [] : [phMax]))
  return {
    massG: isWeighed ? massG : null,
    phMax: highest.length > 0 ? Math.min(...highest) : null,
    tolerance: last(toleranceLevels, all.map(({ tolerance }) => tolerance)),
    temperament: last<string>(temperaments, all.map(({ temperament }) => temperament)),
  }
}
