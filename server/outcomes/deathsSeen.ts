import { groupBy } from '../../core/collections/groupBy'
import type { LossCause } from '../../core/ledger/movement'
import { isFed, lossPattern, type DeathSeen, type LossPattern } from '../../core/outcomes/lossPattern'
import type { OutcomeRules } from '../../core/outcomes/outcomeRules'
import type { MovementRow, OutcomesStore } from './outcomes.store'

const [hourMs, dayMs] = [3_600_000, 86_400_000]
/** Signs are held against a death for two weeks at most. */
const signsDays = 14
/** What was seen before a death of longer ago is written down by now: its pattern stands until the room is opened again. */
const settledAfterDays = 30

/** What was seen in tanks before deaths, and the pattern of each. */
export function createDeathsSeen(store: Pick<OutcomesStore, 'looks' | 'signs'>) {
  const settled = new Map<string, LossPattern>()

  /** Patterns of losses by movement; days since opening are those of the lot it was booked on. */
  function patterns<Loss extends MovementRow>(losses: readonly Loss[], dayOf: (loss: Loss) => number, rules: OutcomeRules, nowMs: number): Map<string, LossPattern> {
    const open = losses.filter(({ id }) => !settled.has(id))
    if (open.length > 0) {
      const seen = seenSince(Math.min(...open.map(({ atMs }) => atMs)) - signsDays * dayMs)
      for (const loss of open) {
        const { pattern } = lossPattern({ kind: 'loss', cause: loss.cause as LossCause | null, day: dayOf(loss), ...seen(loss), limits: rules })
        settled.set(loss.id, pattern)
      }
    }
    const told = new Map(losses.map(({ id }) => [id, settled.get(id) ?? 'other']))
    for (const { id, atMs } of losses) if (nowMs - atMs < settledAfterDays * dayMs) settled.delete(id)
    return told
  }

  function seenSince(sinceMs: number): (loss: MovementRow) => Pick<DeathSeen, 'signs' | 'ate' | 'lookHoursBefore'> {
    const [looks, signs] = [groupBy(store.looks(sinceMs), ({ tankId }) => tankId), groupBy(store.signs(sinceMs), ({ tankId }) => tankId)]
    return ({ fromId, lotId, atMs }) => {
      const before = untilLast(looks.get(fromId) ?? [], atMs)
      const meal = before.findLast(isFed)
      const look = before.at(-1)
      const hours = (each: { atMs: number }): number => (atMs - each.atMs) / hourMs
      return {
        signs: untilLast(signs.get(fromId) ?? [], atMs).filter((each) => atMs - each.atMs <= signsDays * dayMs && (each.lotId === null || each.lotId === lotId)).map((each) => ({ sign: each.sign, hoursBefore: hours(each) })),
        ate: meal ? { answer: meal.ate, hoursBefore: hours(meal) } : null,
        lookHoursBefore: look ? hours(look) : null,
      }
    }
  }

  /** House limits changed, or something was written of the past: everything is told anew. */
  return { patterns, forget: () => settled.clear() }
}

/** Rows up to a moment, of rows in the order of time. */
function untilLast<Row extends { atMs: number }>(rows: readonly Row[], atMs: number): readonly Row[] {
  let [low, high] = [0, rows.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((rows[middle]?.atMs ?? Infinity) <= atMs) low = middle + 1
    else high = middle
  }
  return rows.slice(Math.max(0, low - mostBefore), low)
}
/** More looks or signs than anybody makes of a tank in two weeks. */
const mostBefore = 400
