import { kitchenApi } from '../../core/kitchen/kitchen.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { KitchenService } from './kitchen.service'

/** Answers of the feed kitchen. */
export const kitchenEndpoints = ({ view, larder, tickKitchen, undoTick, changeFoodStock, orderFeeding, endFeeding }: KitchenService): Endpoint[] =>
  serve(kitchenApi, { readKitchen: ({ query: { feed }, nowMs }) => view(feed ?? null, nowMs), readLarder: ({ nowMs }) => larder(nowMs), ...{ tickKitchen, undoTick, changeFoodStock, orderFeeding, endFeeding } })
