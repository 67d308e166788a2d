import type { RunView } from '../../core/bench/benchView'
import type { CountOut, StartRun } from '../../core/bench/bench.schema'
import { outsidePlaceId } from '../../core/ledger/movement'
import { weightOfCause } from '../../core/pools/hazard'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem } from '../http/problem'
import type { LedgerService } from '../ledger/ledger.service'
import type { Going } from '../placing/placing.service'
import { goingOf, type EventEntry, type OfPool, type Planned, type PoolsService } from '../pools/pools.service'
import type { BenchStore } from './bench.store'
import { missingEntry, type Count } from './countOut'

interface Collaborators {
  store: Pick<BenchStore, 'insertMovement'>
  pools: PoolsService
  ledger: Pick<LedgerService, 'addBack'>
}

/** Fish on the bench of which nobody knows the lot: they are of a kind, in their tank as in their vessel. */
export function createOfKind({ store, pools, ledger }: Collaborators) {
  function planOf(placeId: string, lotId: string, quantity: number, atMs: number, weightOf?: OfPool['weightOf']): Planned {
    const kind = pools.kindOf(lotId)
    const plan = kind && pools.planOut({ placeId, kind, among: [], quantity, weightOf }, atMs)
    if (!plan || !('done' in plan)) throw fieldProblem('sources', plan && plan.available > 0 ? `Only ${plan.available} stand there now` : 'These fish do not stand there now')
    return plan
  }
  const isSameKind = (a: string, b: string): boolean => JSON.stringify(pools.kindOf(a)) === JSON.stringify(pools.kindOf(b))

  return {
    /** Which fish of a tank the books take to be the ones that go on the bench. */
    plan: ({ placeId, lotId, quantity }: StartRun['sources'][number], atMs: number): Planned => planOf(placeId, lotId, quantity, atMs),

    sources: (plan: Planned | null): StartRun['sources'] | null => plan && plan.done.movements.map(({ lot, quantity }) => ({ placeId: plan.placeId, lotId: plan.lots.find(({ code }) => code === lot)?.lotId ?? '', quantity, isOfKind: true })),

    /** A run in which lots that are counted together stand under the one that is named. */
    summed: (run: RunView, counts: readonly Count[]): RunView => ({
      ...run,
      standing: run.standing.map((lot) => (counts.some((count) => count.isOfKind && count.lotId === lot.lotId) ? { ...lot, quantity: run.standing.filter((each) => isSameKind(each.lotId, lot.lotId)).reduce((sum, each) => sum + each.quantity, 0) } : lot)),
    }),

    /** Who is counted out alive, as far as the books know, and whoever else it may be. */
    going: (run: RunView, { lotId, alive }: Count, atMs: number): Going[][] => {
      const there = run.standing.filter((each) => isSameKind(each.lotId, lotId)).reduce((sum, { quantity }) => sum + quantity, 0)
      return alive === 0 ? [] : goingOf(planOf(run.id, lotId, Math.min(alive, there), atMs))
    },

    /** Books a count of the vessel: fish that are more come in first, the dead and the missing go out, the living go where they go. */
    count(context: CommandContext, run: RunView, { lotId, alive, dead, missing = 0, difference = null }: Count, input: CountOut, toPlaceId: string): void {
      const kind = pools.kindOf(lotId)
      if (!kind) return
      const { happenedAtMs } = input
      const keep = (movementIds: readonly string[]): void => movementIds.forEach((id) => store.insertMovement(run.id, id))
      const take = (quantity: number, to: string, entry: EventEntry, weightOf?: OfPool['weightOf']): void => {
        if (quantity > 0) keep(pools.book(context, planOf(run.id, lotId, quantity, happenedAtMs, weightOf), entry, { toPlaceId: to }))
      }
      const more = alive + dead - pools.lotsOf(run.id, kind).reduce((sum, { booked }) => sum + booked, 0)
      if (more > 0) keep(ledger.addBack(context, { placeId: run.id, kind, among: [] }, more, { kind: 'count-correction', reason: `counted out of run ${run.number}: ${difference}`, happenedAtMs }))
      take(dead, outsidePlaceId, { kind: 'loss', cause: input.cause, note: input.note, happenedAtMs }, weightOfCause(input.cause))
      take(missing, outsidePlaceId, { ...missingEntry(run.number, difference), happenedAtMs })
      take(alive, toPlaceId, toPlaceId === outsidePlaceId ? { kind: 'release', reason: 'sent out', note: run.toOutside, happenedAtMs } : { kind: 'move', happenedAtMs })
    },
  }
}
