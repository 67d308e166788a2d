import type { KitchenView } from '../core/kitchen/kitchenView'
import type { LarderView } from '../core/kitchen/larder'
import type { Commander } from './commander'
import type { Furnished } from './furnish'

const [minuteMs, dayMs] = [60_000, 86_400_000]
const fedDays = 6

interface Scene extends Furnished {
  commander: Commander
}

/** The feed kitchen of the last days, ticked off as staff do, and this morning's as far as its clock has come. */
export async function feedTheRoom({ commander, people, tanks }: Scene, nowMs: number): Promise<void> {
  const [oona = people.lead, teodor = people.lead] = people.keepers
  const begunMs = nowMs - fedDays * dayMs
  // Counted when the kitchen began; mysis runs short, everything else lasts.
  for (const { foodId, food } of commander.ask<LarderView>('/api/kitchen/larder', {}, begunMs).foods) await commander.run('changeFoodStock', { foodId }, { why: 'counted', pieces: food === 'Mysis' ? 22 : 400 }, people.lead, begunMs)
  const quarantine = ['Q1-06', 'M1-03'].flatMap((code) => commander.tank(code, nowMs).stock.slice(0, 1).map(({ lotId }) => ({ code, lotId })))
  const [thin, rich] = quarantine
  if (thin) await commander.run('orderFeeding', {}, { kind: 'conditioning', lotId: thin.lotId, tankId: null, foodId: null, days: 14, note: 'thin behind the head' }, people.lead, nowMs - 2 * dayMs)
  if (rich) await commander.run('orderFeeding', {}, { kind: 'every other day', lotId: null, tankId: tanks.get(rich.code) ?? null, foodId: null, days: null, note: 'fouls quickly' }, people.lead, nowMs - 2 * dayMs)
  for (let daysAgo = fedDays - 1; daysAgo >= 0; daysAgo -= 1) for (const { feedId } of commander.ask<KitchenView>('/api/kitchen', {}, nowMs - daysAgo * dayMs).feeds) await feed(feedId, nowMs - daysAgo * dayMs, daysAgo === 0)

  async function feed(feedId: string, dayMsAt: number, isToday: boolean): Promise<void> {
    const view = commander.ask<KitchenView>('/api/kitchen', {}, dayMsAt, { feed: feedId })
    const { on, atMs } = view.feed
    const tick = async (step: string, what: string, pieces: number | null, doneMs: number): Promise<void> => {
      if (isToday && doneMs > nowMs) return
      const by = step === 'give' ? teodor : oona
      await commander.run('tickKitchen', {}, { feedOn: on, feedId, step, what, pieces, happenedAtMs: doneMs }, by, doneMs)
    }
    for (const { foodId, pieces, startAtMs } of view.foods) if (startAtMs !== null) await tick('thaw', foodId, pieces, startAtMs + 2 * minuteMs)
    if (view.soaks.length > 0) await tick('soak', 'all', null, atMs - 14 * minuteMs)
    for (const [index, { rack }] of view.racks.entries()) await tick('give', rack, null, atMs + (2 + 3 * index) * minuteMs)
    for (const { what, atMs: outMs } of view.outs) await tick('out', what, null, outMs + 4 * minuteMs)
  }
}
