import { addressOf, type InputOf } from '../../core/commands/declare'
import type { SaleMapping } from '../../core/sales/readSales'
import { salesApi } from '../../core/sales/sales.api'
import type { SalesRead } from '../../core/sales/salesView'
import { nowMs } from '../api/clock'
import { fetchJson } from '../api/fetchJson'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

/** Lists that were taken in, and what stands where. */
export function useSales() {
  const { data, problem } = useRead(salesApi.readSales, {})
  return { sales: data, problem }
}

/** Has a till's list read; nothing is kept of it. */
export function readSalesList(file: Blob, { on, mapping }: { on: string; mapping: SaleMapping | null }): Promise<SalesRead> {
  const columns = mapping === null ? '' : Object.entries(mapping).map(([field, column]) => `${field}:${column}`).join()
  return fetchJson(addressOf(salesApi.readSalesList, {}, { on, columns }), { method: 'POST', body: file })
}

/** The writes of sales; both wait for the server's word. */
export function useSalesWrites() {
  const write = useWrite()
  const form = { refusals: 'form' } as const
  return {
    bookSales: (sales: Omit<InputOf<typeof salesApi.bookSales>, 'happenedAtMs'>) => write(salesApi.bookSales, { label: 'a list of sales', body: { ...sales, happenedAtMs: nowMs() } }, form),
    unbookSales: (saleId: string) => write(salesApi.unbookSales, { params: { saleId }, label: 'taking sales back', body: { happenedAtMs: nowMs() } }, form),
  }
}
