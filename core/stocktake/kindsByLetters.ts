import type { Water } from '../room/room.schema'
import { nameKey } from '../words/nameKey'
import type { KindName } from './stocktakeView'

/**
 * Kinds whose name begins with some letters, then those with a word that does, then those with another name that has one; such
 * as live in this water first. Letters may be left out between: `ch ba` finds the cherry barb.
 * @param most - how many are wanted.
 */
export function kindsByLetters(kinds: readonly KindName[], letters: string, water: Water, most: number): string[] {
  const parts = nameKey(letters).split(' ').filter(Boolean)
  if (parts.length === 0) return []
  const ranked = kinds.flatMap(({ name, otherNames, waters }, index) => {
    const rank = rankOf(nameKey(name), nameKey(otherNames.replaceAll(',', ' ')), parts)
    return rank === null ? [] : [{ name, index, rank: rank + (waters.length === 0 || waters.includes(water) ? 0 : 10) }]
  })
  return ranked.sort((a, b) => a.rank - b.rank || a.index - b.index).slice(0, most).map(({ name }) => name)
}

function rankOf(name: string, others: string, parts: readonly string[]): number | null {
  const [first = ''] = parts
  if (!hasWords(name, parts)) return hasWords(`${name} ${others}`, parts) ? 2 : null
  return name.startsWith(first) ? 0 : 1
}

/** Whether every part begins a word. */
const hasWords = (text: string, parts: readonly string[]): boolean => {
  const words = text.split(' ')
  return parts.every((part) => words.some((word) => word.startsWith(part)))
}
