import { object } from 'yup'
import { answers, command, named, read } from '../commands/declare'
import { word } from '../commands/queryFields'
import { changeFoodStockSchema, endFeedingSchema, orderFeedingSchema, tickKitchenSchema, undoTickSchema } from './kitchen.schema'
import type { KitchenView } from './kitchenView'
import type { LarderView } from './larder'
import { withPendingTicks } from './pendingTicks'

/** The feed kitchen: what is thawed, soaked and given today, and what is in the house. */
export const kitchenApi = named({
  /** one feed of today, `?feed=` or the next: what is thawed when, portions by rack in walking order, who gets nothing and why */
  readKitchen: read({ path: '/api/kitchen', access: 'device', query: object({ feed: word(64) }), about: () => ['kitchen', 'tank', 'look', 'round', 'register', 'limit', 'house', 'staff', 'vessel', 'crate', 'bag', 'run'], staysMs: 60_000, withPending: withPendingTicks, answer: answers<KitchenView>() }),
  /** foods with what is in the house, how fast they go, and the last changes */
  readLarder: read({ path: '/api/kitchen/larder', access: 'device', about: () => ['kitchen', 'register', 'limit', 'staff', 'house'], staysMs: 600_000, answer: answers<LarderView>() }),
  /** the same is not done twice: who comes second is answered with the first. A food's *pieces* come off its stock; with the first rack that gets them, those of foods that do not thaw */
  tickKitchen: command({ method: 'post', path: '/api/kitchen/ticks', access: 'keeper', schema: tickKitchenSchema, touches: () => ['kitchen'], answer: answers<{ id: string }>() }),
  undoTick: command({ method: 'post', path: '/api/kitchen/ticks/:tickId/undo', access: 'keeper', schema: undoTickSchema, touches: () => ['kitchen'] }),
  changeFoodStock: command({ method: 'post', path: '/api/foods/:foodId/stock', access: 'keeper', schema: changeFoodStockSchema, touches: () => ['kitchen'], answer: answers<{ pieces: number }>() }),
  /** *every other day* is said of a tank, everything else of a lot, wherever it stands */
  orderFeeding: command({ method: 'post', path: '/api/feeding-orders', access: 'keeper', schema: orderFeedingSchema, touches: () => ['kitchen'], answer: answers<{ id: string }>() }),
  endFeeding: command({ method: 'post', path: '/api/feeding-orders/:orderId/end', access: 'keeper', schema: endFeedingSchema, touches: () => ['kitchen'] }),
})
