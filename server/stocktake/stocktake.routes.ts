import { stocktakeApi } from '../../core/stocktake/stocktake.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { StocktakeService } from './stocktake.service'

/** Answers for counting the room. */
export function stocktakeEndpoints({ view, kinds, beginStocktake, countTank, importCounts, bookStocktake, unbookStocktake, dropStocktake }: StocktakeService): Endpoint[] {
  return serve(stocktakeApi, { readStocktake: view, readKinds: kinds, beginStocktake, countTank, importCounts, bookStocktake, unbookStocktake, dropStocktake })
}
