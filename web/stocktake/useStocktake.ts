import type { InputOf } from '../../core/commands/declare'
import { stocktakeApi } from '../../core/stocktake/stocktake.api'
import type { StocktakeKind } from '../../core/stocktake/stocktake.schema'
import { nowMs } from '../api/clock'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

/** The stocktake under way, or the last one that was booked; with the counts that wait on this device. */
export function useStocktake() {
  const { data, problem } = useRead(stocktakeApi.readStocktake, {}, { everyMs: 10_000 })
  return { stocktake: data?.stocktake, problem }
}

/** Every kind of fish by its names, and where fish come from. */
export function useKinds() {
  const { data } = useRead(stocktakeApi.readKinds, {})
  return { kinds: data?.kinds ?? [], sources: data?.sources ?? [] }
}

/** The writes of a stocktake. A tank that was counted waits for nobody; what changes the books waits for the server's word. */
export function useStocktakeWrites(stocktakeId: string) {
  const write = useWrite()
  const params = { stocktakeId }
  const form = { refusals: 'form' } as const
  const now = () => ({ happenedAtMs: nowMs() })
  return {
    begin: (kind: StocktakeKind) => write(stocktakeApi.beginStocktake, { label: 'a stocktake', body: { kind, ...now() } }, form),
    countTank: (count: Omit<InputOf<typeof stocktakeApi.countTank>, 'happenedAtMs'>, code: string) => void write(stocktakeApi.countTank, { params, label: `count of ${code}`, body: { ...count, ...now() } }, { refusals: 'tray' }),
    importCounts: (id: string, csv: string) => write(stocktakeApi.importCounts, { params: { stocktakeId: id }, label: 'a list of counts', body: { csv, ...now() } }, form),
    book: (parts: InputOf<typeof stocktakeApi.bookStocktake>['parts']) => write(stocktakeApi.bookStocktake, { params, label: 'a stocktake', body: { parts, ...now() } }, form),
    unbook: () => write(stocktakeApi.unbookStocktake, { params, label: 'taking a stocktake back', body: now() }, form),
    drop: () => write(stocktakeApi.dropStocktake, { params, label: 'leaving a stocktake', body: now() }, form),
  }
}
export type StocktakeWrites = ReturnType<typeof useStocktakeWrites>
