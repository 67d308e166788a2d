import { inARow } from '../words/inARow'
import { classWater, waterClasses, type WaterClass } from '../acclimation/question'
import type { Water } from '../room/room.schema'
import { quantile } from '../stats/quantile'
import { looksLikeGravity } from '../units/salinityDoubt'

/** Kinds of water as people name them, or by their hardness. */
export type WaterWord = Water | WaterClass

/** What is known of the water in a bag besides its figures. The tank it goes to says nothing of it. */
export interface WaterFacts {
  /** Water of the tank the fish stand in; null for what came in bags. */
  standing: WaterWord | null
  /** What the source usually ships in. */
  usual: WaterWord | null
  /** Every water the species lives in, by the book; none where it does not say. */
  waters: readonly Water[]
  /** Highest pH the species is kept at. */
  phMax: number | null
  /** Hardness the species is kept in. */
  hardness?: string | null
}

/** Figures that say which water it is, and the tank it would be judged against; NaN or undefined where nobody knows. */
export interface WaterFigures {
  measuredPpt?: number | undefined
  /** Lowest and highest of the bags, where several were read. */
  readPpt?: readonly [low: number, high: number] | undefined
  toldPpt?: number | undefined
  alkalinityMeqL?: number | undefined
  /** What a figure that looks like a gravity was said to be; a reading of the screens was asked for already. */
  isSurePpt?: boolean
  targetPpt: number
}

/** What has to be asked before anything can be advised. */
export const asks = ['salinity', 'temperature', 'which water', 'is it SG'] as const
export type Ask = (typeof asks)[number]

export interface BagWater {
  waterClass: WaterClass | 'unknown'
  /** Which fact said so; null where none did. */
  by: 'reading' | 'told' | 'their tank' | 'source' | 'species' | null
  asks: Ask[]
  /** Why it is not known, in words; null where it is. */
  why: string | null
}

const [marineFromPpt, brackishFromPpt] = [15, 3]
/** Alkalinity below which fresh water counts as soft, meq/L. */
const softBelowMeqL = 1.2
/** How far bag and tank may lie apart while nobody knows which water it is, ppt. */
const askFromPpt = 3

/** Names the water of a salinity. */
export const waterOfSalinity = (ppt: number): Water => (ppt > marineFromPpt ? 'marine' : ppt >= brackishFromPpt ? 'brackish' : 'fresh')
/** Names the kind of water of a word that may say its hardness. */
export const waterOf = (word: WaterWord): Water => (word === 'hard' || word === 'soft' ? 'fresh' : word)

/** Answers whether bags read too far apart to be taken as one water. */
export const readApart = (readPpt: WaterFigures['readPpt']): boolean => readPpt !== undefined && readPpt[1] - readPpt[0] > askFromPpt

/**
 * Finds out which water is in a bag: by its reading, else what was told, else the water the fish stand in, else what the
 * source usually ships in, else the species where it lives in one only. Never by the tank it goes to.
 * Source: docs/bench.md, the water in the bag.
 * @param species - name for the sentence.
 * @param show - writes a salinity in the room's unit.
 */
export function waterOfBag(facts: WaterFacts, figures: WaterFigures, species: string, show: (ppt: number) => string): BagWater {
  const { measuredPpt, toldPpt, targetPpt } = figures
  const unknown = (ask: Ask[], why: string): BagWater => ({ waterClass: 'unknown', by: null, asks: ask, why })
  const known = (water: WaterWord, by: BagWater['by']): BagWater => ({ waterClass: classOf(water, facts, figures), by, asks: [], why: null })
  const { readPpt } = figures
  if (readPpt && readApart(readPpt)) return unknown(['salinity'], `The bags read ${show(readPpt[0])} to ${show(readPpt[1])}: take those that read alike, or read them again.`)
  if (measuredPpt !== undefined) {
    if (looksLikeGravity(measuredPpt) && !figures.isSurePpt) return unknown(['is it SG'], `${measuredPpt.toFixed(3)} looks like a specific gravity. Say whether it is, or ppt.`)
    const water = waterOfSalinity(measuredPpt)
    // A reading is believed, but not one from the other end of the sea than the only water the species lives in.
    const isOpposite = (water === 'fresh' && facts.waters.join() === 'marine') || (water === 'marine' && facts.waters.join() === 'fresh')
    return isOpposite ? unknown(['which water'], `The bag reads ${show(measuredPpt)}, and ${species} lives in ${inARow(facts.waters)} water only. Read it again, or look at the fish again.`) : known(water, 'reading')
  }
  if (facts.standing !== null && toldPpt === undefined) return known(facts.standing, 'their tank')
  if (facts.standing !== null) return known(waterOfSalinity(toldPpt as number), 'their tank')
  const said: { water: WaterWord; ppt: number | null; by: BagWater['by'] }[] = [
    ...(toldPpt === undefined ? [] : [{ water: waterOfSalinity(toldPpt), ppt: toldPpt, by: 'told' as const }]),
    ...(facts.usual === null ? [] : [{ water: facts.usual, ppt: null, by: 'source' as const }]),
  ]
  const first = said[0]
  const odd = first && disagreement(said, facts.waters)
  if (first && odd && reachPpt([...said.flatMap(({ water, ppt }) => (ppt === null ? [water] : [])), ...facts.waters], first.ppt, targetPpt) >= askFromPpt) return unknown(['salinity'], `Read the salinity first: ${odd === 'source' ? 'what was told and what the source usually ships in are two waters' : `${species} lives in ${inARow(facts.waters)} water, and ${first.by === 'told' ? `${show(first.ppt as number)} was told` : `this source ships in ${waterOf(first.water)} water`}`}.`)
  if (first) return known(first.water, first.by)
  const [only, other] = facts.waters
  if (only && !other) return known(only, 'species')
  const possible = facts.waters.length > 0 ? facts.waters : (['fresh', 'brackish', 'marine'] as const)
  if (reachPpt(possible, null, targetPpt) < askFromPpt) return known(nearestTo(possible, targetPpt), 'species')
  const from = facts.waters.length > 0 ? `${species} is sold from ${inARow(facts.waters)} water` : `nothing says which water ${species} came in`
  return unknown(facts.waters.length > 0 ? ['salinity'] : ['salinity', 'which water'], `Read the salinity first: ${from}${Number.isFinite(targetPpt) ? `, and this tank stands at ${show(targetPpt)}` : ''}.`)
}

/** Fresh water is soft or hard by its alkalinity, else as the source is known for, else by the pH the species is kept at. */
function classOf(word: WaterWord, { standing, usual, phMax, hardness }: WaterFacts, { alkalinityMeqL }: WaterFigures): WaterClass {
  if (waterOf(word) !== 'fresh') return word as WaterClass
  if (alkalinityMeqL !== undefined) return alkalinityMeqL < softBelowMeqL ? 'soft' : 'hard'
  const said = [word, standing, usual].find((each) => each === 'soft' || each === 'hard')
  if (said) return said as WaterClass
  return hardness === 'soft' || (phMax !== null && phMax <= 7) ? 'soft' : 'hard'
}

function disagreement(said: readonly { water: WaterWord; by: BagWater['by'] }[], waters: readonly Water[]): 'source' | 'species' | null {
  const [first, second] = said
  if (!first) return null
  if (waters.length > 0 && !waters.includes(waterOf(first.water))) return 'species'
  return second && waterOf(second.water) !== waterOf(first.water) ? 'source' : null
}

/** How far such waters may lie from a tank: the 95th percentile over all of them alike, ppt. As far as can be where no tank is known. */
function reachPpt(words: readonly WaterWord[], toldPpt: number | null, targetPpt: number): number {
  if (!Number.isFinite(targetPpt)) return Infinity
  const all = [...new Set(words.map(waterOf))].flatMap((water) => spread(water === 'fresh' ? 'hard' : water))
  return quantile([...all, ...(toldPpt === null ? [] : [toldPpt])].map((ppt) => Math.abs(ppt - targetPpt)), 0.95)
}

/** Salinities of a class at even shares of chance. */
function spread(waterClass: WaterClass): number[] {
  const { mean, sd, low, high } = classWater[waterClass].salinityPpt
  return evenNormal.map((z) => Math.min(high, Math.max(low, mean + sd * z)))
}
/** Values of the normal distribution at 5, 15 … 95 %. */
const evenNormal = [-1.645, -1.036, -0.674, -0.385, -0.126, 0.126, 0.385, 0.674, 1.036, 1.645]

const nearestTo = (waters: readonly Water[], ppt: number): Water => [...waters].sort((a, b) => meanGap(a, ppt) - meanGap(b, ppt))[0] ?? 'fresh'
const meanGap = (water: Water, ppt: number): number => Math.abs(classWater[water === 'fresh' ? 'hard' : water].salinityPpt.mean - ppt)

/** Answers whether a word is a class of water that can be reckoned with. */
export const isWaterClass = (word: string | undefined): word is WaterClass => (waterClasses as readonly string[]).includes(word ?? '')
