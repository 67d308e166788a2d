import type { School } from '../acclimation/schools'
import { isKeptUnderWater, poisonsBag, type Handling } from '../species/handling'
import type { KeptIn } from '../species/keptIn'
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
  /** Kind of animal; null where the book does not say. */
  animal?: string | null
  /** How many of its kind bear each other. */
  ownKind?: string | null
  temperament?: string | null
  /** Weight of one as it is traded, g. */
  massG?: number | null
  /** What it is kept in. */
  kept?: KeptIn
}

/** Why something is not on offer, as a word that programs read. */
export const refusalCodes = ['kept under water', 'poisons its water', 'fights its own kind', 'sold singly', 'unlike sizes', 'not its water', 'goes to the sea only', 'no fish', 'forbidden agent', 'agent with care', 'temperature', 'pH', 'salinity', 'hardness', 'unlike waters', 'binder'] as const
export type RefusalCode = (typeof refusalCodes)[number]

/** A school that is not on offer for these fish, and why. */
export interface Withheld {
  key: string
  why: string
  code: RefusalCode
}
interface Reason {
  why: string
  code: RefusalCode
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
  const against = poolingAgainst(fish)
  const reasonAgainst = (school: School): Reason | null => {
    if (school.isPooled && against) return against
    for (const { species, waters, crossing, sensitivities, poisons } of fish) {
      if (isKeptUnderWater({ sensitivities }) && school.key === 'netOver') return { why: `${species} must not be lifted out of the water`, code: 'kept under water' }
      if (poisonsBag({ poisons }) && takesBagWaterAlong(school)) return { why: `${species} poisons its bag water; none of it goes in`, code: 'poisons its water' }
      if (!needsGap(school)) continue
      if (tankWater !== null && waters.length > 0 && !waters.includes(tankWater)) return { why: `${species} lives in ${waters.join(' and ')} water only; no crossing is offered`, code: 'not its water' }
      if (tankWater !== null && waters.length === 0) return { why: `nobody knows whether ${species} lives in ${tankWater} water; no crossing is offered`, code: 'not its water' }
      if (crossing === 'as it grows' && !isSaltier && school.needs === 'gap') return { why: `${species} goes towards the sea as it grows, never quickly back`, code: 'goes to the sea only' }
    }
    return null
  }
  return schools.flatMap((school) => {
    const why = reasonAgainst(school)
    return why === null ? [] : [{ key: school.key, ...why }]
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
/** Fish so many times heavier than others hurt or eat them in a bucket. */
const unlikeTimes = 4

/** Says why bags of these fish must not be poured together; null when they may. */
export function poolingAgainst(fish: readonly BenchFish[]): Reason | null {
  for (const { species, poisons, ownKind, temperament } of fish) {
    if (poisonsBag({ poisons })) return { why: `${species} poisons its bag water; bags stay apart`, code: 'poisons its water' }
    if (ownKind === 'one only') return { why: `${species} bears none of its kind beside it; bags stay apart`, code: 'sold singly' }
    if (temperament === 'fights its own kind') return { why: `${species} fights its own kind; bags stay apart`, code: 'fights its own kind' }
  }
  const weights = fish.flatMap(({ massG }) => (massG ? [massG] : []))
  return weights.length > 1 && Math.max(...weights) > unlikeTimes * Math.min(...weights) ? { why: `${fish.map(({ species }) => species).join(' and ')} are of unlike sizes; bags stay apart`, code: 'unlike sizes' } : null
}
/** Answers whether bags of these fish may be poured together. */
export const mayBePooled = (fish: readonly BenchFish[]): boolean => poolingAgainst(fish) === null
/** Answers whether any of them is no fish. */
export const hasInvertebrate = (fish: readonly Pick<BenchFish, 'animal'>[]): boolean => fish.some(({ animal }) => typeof animal === 'string' && animal !== 'fish' && animal !== 'amphibian')
