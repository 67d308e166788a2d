import { distance } from 'fastest-levenshtein'
import { nameKey } from '../words/nameKey'
import { ambiguousNames } from './speciesBook'

/** A name that is known, and the common name of what it means. */
export interface KnownName {
  name: string
  means: string
}

/** One error is one too many in a short word: it makes another animal of it. */
const lettersPerError = 5
const mostOffered = 4

const wordsOf = (name: string): string[] => nameKey(name).split(/[^\p{L}\p{N}]+/u).filter(Boolean)

/**
 * Counts the typing errors by which a name may have become the other; null when they are too many for one word.
 * A word may hold one error in five letters. A word of four may hold one where another word of the name is right.
 */
function errorsBetween(typed: readonly string[], known: readonly string[]): number | null {
  if (typed.join('') === known.join('')) return 0
  if (typed.length !== known.length) return null
  const isPartRight = typed.some((word, index) => word === known[index] && word.length > 2)
  let errors = 0
  for (const [index, word] of typed.entries()) {
    const other = known[index] ?? ''
    const longest = Math.max(word.length, other.length)
    const most = longest === 4 && isPartRight ? 1 : Math.floor(longest / lettersPerError)
    const here = word === other ? 0 : distance(word, other)
    if (here > most) return null
    errors += here
  }
  return errors
}

/**
 * Names what an unknown name was most likely meant to be: the nearest known ones, by their common names; none when no
 * name is near. A name of the trade that means several kinds is answered by those kinds, never by one of them alone.
 * @example namesNear('Cherry barbs', [{ name: 'Cherry barb', means: 'Cherry barb' }]) // ['Cherry barb']
 */
export function namesNear(name: string, known: readonly KnownName[]): string[] {
  const kinds = ambiguousNames.get(nameKey(name))
  if (kinds) return [...kinds]
  const typed = wordsOf(name)
  if (typed.length === 0) return []
  let fewest = Infinity
  let near = new Set<string>()
  for (const each of known) {
    const errors = errorsBetween(typed, wordsOf(each.name))
    if (errors === null || errors > fewest) continue
    if (errors < fewest) near = new Set()
    fewest = errors
    near.add(each.means)
  }
  return [...near].slice(0, mostOffered)
}
