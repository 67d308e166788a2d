import { choice, whole } from '../fields/fields.schema'

/** What happens to things that are counted by the piece, such as foods and filter bags: counted anew, come in, or thrown away. */
export const stockChanges = ['counted', 'bought', 'thrown away'] as const
export type StockChanged = (typeof stockChanges)[number]

/** Fields of such a change. */
export const stockChangeFields = () => ({ why: choice('What happened', stockChanges), pieces: whole('Pieces', 0, 100_000) })

/** How many there are after a change; null where more would be thrown away than the books have. */
export function stockAfter(now: number, why: StockChanged, pieces: number): number | null {
  if (why === 'counted') return pieces
  if (why === 'bought') return now + pieces
  return pieces > now ? null : now - pieces
}
