import type { KindCount, OwnAnswer } from '../../core/facts/facts'
import { ateWords } from './ateWords'

/** What a look said of single kinds, in words, each once: how they ate where the others ate otherwise, and how many were seen. */
export function kindWords({ answers, counts }: { answers: readonly OwnAnswer[]; counts: readonly KindCount[] }, stock: readonly { lotId: string; species: string }[]): string[] {
  const nameOf = (id: string): string => stock.find(({ lotId }) => lotId === id)?.species ?? 'a lot that left'
  return [...new Set([...answers.map(({ lotId, ate }) => `${nameOf(lotId)}: ${ateWords[ate]}`), ...counts.map(({ lotId, seen }) => `${seen} ${nameOf(lotId)} seen`)])]
}
