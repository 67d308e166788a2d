import type { School } from '../acclimation/schools'
import { isKeptUnderWater, poisonsBag, type Handling } from '../species/handling'
import type { AgentWord } from '../species/speciesWords'

/** What the book says of fish on the bench, as far as it rules schools and agents out. */
export interface BenchFish extends Handling {
  species: string
  /** Every water it lives in; none where the book does not say. */
  waters: readonly string[]
  crossing: string | null
  bearsHunger: string | null
  /** Whether it bears an agent, by the agent's word. */
  agents: Readonly<Partial<Record<string, AgentWord>>>
}

/** A school that is not on offer for these fish, and why. */
export interface Withheld {
  key: string
  why: string
}

/** What a school would do to fish and their water. */
const needsGap = ({ needs }: School): boolean => needs === 'gap' || needs === 'gap and spare tank'
const takesBagWaterAlong = ({ key }: School): boolean => key === 'matched'

/**
 * Names the schools that these fish must not go through.
 * @param tankWater - kind of water they are to go to; null when no tank is planned.
 * @param isSaltier - whether that water is saltier than theirs.
 * By the book's *sensitive to: air*, *poisons*, *waters* and *crossing* (docs/species.md, docs/bench.md).
 */
export function withheldSchools(fish: readonly BenchFish[], schools: readonly School[], tankWater: string | null, isSaltier: boolean): Withheld[] {
  const reasonAgainst = (school: School): string | null => {
    for (const { species, waters, crossing, sensitivities, poisons } of fish) {
      if (isKeptUnderWater({ sensitivities }) && school.key === 'netOver') return `${species} must not be lifted out of the water`
      if (poisonsBag({ poisons }) && takesBagWaterAlong(school)) return `${species} poisons its bag water; none of it goes in`
      if (poisonsBag({ poisons }) && school.isPooled) return `${species} poisons its bag water; bags stay apart`
      if (!needsGap(school)) continue
      if (tankWater !== null && waters.length > 0 && !waters.includes(tankWater)) return `${species} lives in ${waters.join(' and ')} water only; no crossing is offered`
      if (crossing === 'as it grows' && !isSaltier && school.needs === 'gap') return `${species} goes towards the sea as it grows, never quickly back`
    }
    return null
  }
  return schools.flatMap((school) => {
    const why = reasonAgainst(school)
    return why === null ? [] : [{ key: school.key, why }]
  })
}

/** What is usual after a crossing, by the book: said where a gap of salinity is crossed. */
export function crossingWords(fish: readonly Pick<BenchFish, 'species' | 'crossing'>[]): string[] {
  const words: Record<string, string> = { 'as it grows': 'goes towards the sea over weeks as it grows; the slower, the fewer are lost', 'with losses': 'is crossed with losses for weeks afterwards', known: 'is known to bear the crossing' }
  return fish.flatMap(({ species, crossing }) => (crossing !== null && Object.hasOwn(words, crossing) ? [`${species} ${words[crossing]}.`] : []))
}

/** Says whether fish bear an agent, the strictest of them first; null where the book has nothing against it. */
export function agentAgainst(fish: readonly BenchFish[], substance: string | null): { word: 'forbidden' | 'with care'; species: string[] } | null {
  if (substance === null) return null
  for (const word of ['forbidden', 'with care'] as const) {
    const species = [...new Set(fish.filter(({ agents }) => agents[substance] === word).map((each) => each.species))]
    if (species.length > 0) return { word, species }
  }
  return null
}

/** Answers whether any of the fish must stay under water in every step. */
export const staysUnderWater = (fish: readonly Pick<Handling, 'sensitivities'>[]): boolean => fish.some(isKeptUnderWater)
/** Answers whether any of the fish takes harm from a day without food. */
export const isSoonThin = (fish: readonly Pick<BenchFish, 'bearsHunger'>[]): boolean => fish.some(({ bearsHunger }) => bearsHunger === 'a day or two')
/** Answers whether bags of these fish may be poured together. */
export const mayBePooled = (fish: readonly Handling[]): boolean => !fish.some(poisonsBag)
