import type { ContactKind } from './contact'

/** What a contact is told by. */
export interface ToldContact {
  kind: ContactKind
  from: string
  to: string
  /** Fish of a move. */
  quantity?: number
  species?: string
}

/**
 * Says one contact in words; a tool set stands between two of them, each with its water.
 * @example contactWords({ kind: 'water', from: 'R1-01', to: 'R1-02' }) // 'water of R1-01 went into R1-02'
 */
export function contactWords({ kind, from, to, quantity, species }: ToldContact): string {
  switch (kind) {
    case 'move':
      return `${quantity ?? ''} ${species ?? 'fish'} went from ${from} to ${to}`.trim()
    case 'water':
      return `water of ${from} went into ${to}`
    case 'joined':
      return `${from} and ${to} were joined`
    case 'decor':
      return `decor went from ${from} to ${to}`
    case 'tool':
      return `${to} was in ${from}`
    default:
      return `${kind} between ${from} and ${to}`
  }
}

/** Through how many waters something came. */
export const hopWords = (hops: number): string => (hops === 0 ? 'same water' : hops === 1 ? 'directly' : `through ${hops - 1} ${hops === 2 ? 'other' : 'others'}`)
