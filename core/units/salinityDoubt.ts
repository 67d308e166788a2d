import { salinityFromSg, sgReferences } from '../water/density'
import type { DisplayUnits } from './units'

/** Answers whether a salinity in ppt is more likely a specific gravity: a pinch of salt, or the ocean. */
export const looksLikeGravity = (ppt: number): boolean => ppt >= 0.99 && ppt <= 1.04

const [leastPptByHabit, mostPptByHabit] = [1.06, 45]

/** What a typed salinity may have been meant as, for one touch each. */
export interface SalinityDoubt {
  question: string
  /** In ppt; `label` is what it is, as people say it. */
  choices: { label: string; ppt: number }[]
}

/**
 * Doubts a salinity that was typed on the wrong scale: a gravity in a field of ppt, or ppt in a field of gravity. The
 * gravity is read by the reference pair of the room's instrument.
 * @returns null where there is nothing to doubt.
 * @example salinityDoubt(1.025, baseUnits) // specific gravity 25/25 is 33.2 ppt, or is it 1.025 ppt?
 */
export function salinityDoubt(typed: number, { salinityUnit, sgReference }: DisplayUnits): SalinityDoubt | null {
  if (salinityUnit === 'SG') return typed >= leastPptByHabit && typed <= mostPptByHabit ? { question: 'Is it ppt?', choices: [{ label: `${typed} ppt`, ppt: typed }] } : null
  if (!looksLikeGravity(typed)) return null
  const { sampleC, waterC } = sgReferences[sgReference]
  // Rounded as a field of ppt shows it, and so that nothing is doubted twice.
  const ppt = Math.round(10 * Math.max(0, salinityFromSg(typed, sampleC, waterC))) / 10
  return { question: 'Is it specific gravity?', choices: [{ label: `SG ${sgReference}: ${ppt.toFixed(1)} ppt`, ppt }, { label: `no, ${typed} ppt`, ppt: typed }] }
}
