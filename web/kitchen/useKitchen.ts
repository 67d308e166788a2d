import { kitchenApi } from '../../core/kitchen/kitchen.api'
import type { ChangeFoodStock, KitchenStep, OrderFeeding } from '../../core/kitchen/kitchen.schema'
import type { FeedOfDay } from '../../core/kitchen/kitchenView'
import { nowMs } from '../api/clock'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

/** One feed of today as it stands on this device. */
export function useKitchen(feed: string | null) {
  const { data, problem } = useRead(kitchenApi.readKitchen, { query: { feed } }, { everyMs: 15_000, keepsPrevious: true })
  return { kitchen: data, problem }
}

/** What is in the house to feed. */
export function useLarder() {
  const { data, problem } = useRead(kitchenApi.readLarder, {})
  return { larder: data, problem }
}

/** What is written in the kitchen: a touch shows at once. */
export function useKitchenWrites() {
  const write = useWrite()
  return {
    tick: ({ on, feedId }: Pick<FeedOfDay, 'on' | 'feedId'>, step: KitchenStep, what: string, label: string, pieces: number | null = null) =>
      void write(kitchenApi.tickKitchen, { label, body: { feedOn: on, feedId, step, what, pieces, happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    undoTick: (tickId: string) => void write(kitchenApi.undoTick, { params: { tickId }, label: 'taking back', body: {} }, { refusals: 'tray' }),
    changeStock: (foodId: string, food: string, body: ChangeFoodStock) => write(kitchenApi.changeFoodStock, { params: { foodId }, label: `${food}: ${body.why}`, body }, { refusals: 'form' }),
    order: (body: OrderFeeding) => write(kitchenApi.orderFeeding, { label: `feeding: ${body.kind}`, body }, { refusals: 'form' }),
    endOrder: (orderId: string) => write(kitchenApi.endFeeding, { params: { orderId }, label: 'fed as usual again', body: {} }, { refusals: 'form' }),
  }
}
export type KitchenWrites = ReturnType<typeof useKitchenWrites>
