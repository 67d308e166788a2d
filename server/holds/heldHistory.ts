import { groupBy } from '../../core/collections/groupBy'
import { courseEvents, type UsualFor } from '../../core/holds/courseEvents'
import { byTurn, type HoldEvent } from '../../core/holds/holdEvents'
import { learnedEvents, ledgerEvents, type Beginning, type LedgerRow } from '../../core/holds/ledgerEvents'
import { lookEvents, signEvents } from '../../core/holds/lookEvents'
import type { HeldHistoryStore } from './heldHistory.store'

/**
 * Everything in the books that holds go by since a moment, in the order it is played.
 * @param usual - what explains signs of lots; null explains none.
 */
export function heldHistory(store: HeldHistoryStore, sinceMs: number, usual: UsualFor | null = null): HoldEvent[] {
  const opened = store.openedBags(sinceMs)
  const beginningOf = (row: LedgerRow): Beginning => ({ policy: row.policyId, openedAtMs: opened.get(row.from.id) ?? null })
  const decisions = groupBy(store.decisions(sinceMs), ({ tankId }) => tankId)
  const moves = [...store.carried(sinceMs), ...ledgerEvents(store.movements(sinceMs), store.poolParts(sinceMs), beginningOf)]
  return [
    ...moves,
    ...(usual ? courseEvents(moves, usual) : []),
    ...learnedEvents(store.learned(sinceMs)),
    ...store.looks(sinceMs).flatMap(lookEvents),
    ...signEvents([...store.signs(sinceMs), ...store.deaths(sinceMs)], decisions),
    ...store.readings(sinceMs),
    ...store.doses(sinceMs),
    ...store.breaches(sinceMs),
    ...store.entries(sinceMs),
    ...store.plumbs(sinceMs),
    ...store.pairings(sinceMs),
  ].sort(byTurn)
}
