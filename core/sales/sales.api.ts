import { answers, command, named, plain, read } from '../commands/declare'
import { bookSalesSchema, unbookSalesSchema } from './sales.schema'
import type { SalesView } from './salesView'

/** What a till says was sold. */
export const salesApi = named({
  /** lists that were taken in, newest first, and what could be sold from which tank */
  readSales: read({ path: '/api/sales', access: 'device', about: () => ['sale', 'tank', 'register', 'staff', 'limit', 'house'], staysMs: 60_000, answer: answers<SalesView>() }),
  /** bytes of a CSV file, `?on=2031-05-04&columns=item:0,count:2`; nothing is written. A refusal carries the columns under `current` */
  readSalesList: plain({ method: 'post', path: '/api/sales/read', access: 'device', mostBytes: 1_000_000 }),
  /** 409 `stale` for a row that was booked meanwhile; 409 `in-hold` without a reason */
  bookSales: command({ method: 'post', path: '/api/sales', access: 'keeper', schema: bookSalesSchema, mostBytes: 1_000_000, touches: () => ['sale', 'tank'], answer: answers<{ id: string; fish: number }>() }),
  unbookSales: command({ method: 'post', path: '/api/sales/:saleId/reversal', access: 'keeper', schema: unbookSalesSchema, touches: () => ['sale', 'tank'] }),
})
