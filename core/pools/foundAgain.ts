import type { LossCause } from '../ledger/movement'

/** Fish that were written off without anybody seeing them dead. */
export interface WrittenOff {
  id: string
  lot: string
  n: number
  place: string
  cause: LossCause
  at: number
  /** How many of them came to light since. */
  found: number
}

/** Reason of the correction that says so. */
export const foundAgainReason = 'found again'

/** The dead do not come back: causes of which a fish may turn up again, the likeliest first. */
export const mayComeBack: readonly LossCause[] = ['not found', 'jumped', 'unknown']

export interface FoundAgain {
  isPossible: boolean
  /** Fish that may be found again at most. */
  most: number
  takes: { loss: string; n: number }[]
  /** A fish that turns up in another place has been moved since it was missed. */
  contacts: { kind: 'move'; from: string; to: string; at: number }[]
}

/**
 * Says which losses are undone when fish of a lot turn up again, and what they met since.
 * @param n - fish found, at least 1; more than `most` cannot be of those that were missed.
 * @param place - where they were found.
 * @example foundAgain([], 'a', 1, 'T1') // { isPossible: false, most: 0, takes: [], contacts: [] }
 */
export function foundAgain(losses: readonly WrittenOff[], lot: string, n: number, place: string): FoundAgain {
  const open = losses
    .filter((loss) => loss.lot === lot && mayComeBack.includes(loss.cause) && loss.n > loss.found)
    .sort((a, b) => mayComeBack.indexOf(a.cause) - mayComeBack.indexOf(b.cause) || b.at - a.at || (a.id < b.id ? -1 : 1))
  const most = open.reduce((sum, loss) => sum + loss.n - loss.found, 0)
  if (n > most) return { isPossible: false, most, takes: [], contacts: [] }
  const takes: FoundAgain['takes'] = []
  const contacts = new Map<string, FoundAgain['contacts'][number]>()
  let left = n
  for (const loss of open) {
    const taken = Math.min(left, loss.n - loss.found)
    if (taken === 0) break
    left -= taken
    takes.push({ loss: loss.id, n: taken })
    if (loss.place !== place) contacts.set(`${loss.place} ${loss.at}`, { kind: 'move', from: loss.place, to: place, at: loss.at })
  }
  return { isPossible: true, most, takes, contacts: [...contacts.values()] }
}
