import { distance } from 'fastest-levenshtein'
import { nameKey } from '../words/nameKey'

/**
 * Finds the known name that a name was most likely meant to be; null when none is near (one typing error in four letters).
 * @example nearestName('Cherry barbs', ['Cherry barb', 'Tiger barb']) // 'Cherry barb'
 */
export function nearestName(name: string, names: readonly string[]): string | null {
  const key = nameKey(name)
  let best: { name: string; errors: number } | null = null
  for (const each of names) {
    const errors = distance(key, nameKey(each))
    if (errors <= Math.max(1, Math.floor(key.length / 4)) && (!best || errors < best.errors)) best = { name: each, errors }
  }
  return best?.name ?? null
}
