import type { Request } from 'express'
import { saleFields, type SaleMapping } from '../../core/sales/readSales'
import { salesApi } from '../../core/sales/sales.api'
import { serve, type Endpoint } from '../http/endpoint'
import { fieldProblem } from '../http/problem'
import type { SalesReadOptions, SalesService } from './sales.service'

/** Answers for what a till says was sold. */
export function salesEndpoints({ view, read, bookSales, unbookSales }: SalesService, now: () => number): Endpoint[] {
  return serve(salesApi, {
    readSales: ({ nowMs }) => view(nowMs),
    // A file goes in as its bytes, because only they tell how it is encoded. Nothing is written.
    readSalesList: (request, response) => void response.json(read(request.body instanceof Uint8Array ? request.body : new Uint8Array(), readOptions(request), now())),
    bookSales,
    unbookSales,
  })
}

/** `?on=2031-05-04` and `?columns=item:0,count:2`; both may be left out. */
function readOptions(request: Request): SalesReadOptions {
  const { on, columns } = request.query as Record<string, unknown>
  if (typeof on === 'string' && on !== '' && !/^\d{4}-\d\d-\d\d$/.test(on)) throw fieldProblem('on', 'The day must be like 2031-05-04')
  return { on: typeof on === 'string' && on !== '' ? on : null, mapping: typeof columns === 'string' && columns !== '' ? readMapping(columns) : null }
}

function readMapping(columns: string): SaleMapping {
  const pairs = columns.split(',').map((pair) => /^([a-z]+):(\d{1,2})$/.exec(pair))
  if (!pairs.every((pair) => pair !== null && (saleFields as readonly string[]).includes(pair[1] ?? ''))) throw fieldProblem('columns', `Columns must read like item:0,count:2 with fields of: ${saleFields.join(', ')}`)
  return Object.fromEntries(pairs.map((pair) => [pair?.[1], Number(pair?.[2])]))
}
