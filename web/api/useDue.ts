import { dueApi } from '../../core/due/due.api'
import { useRead } from './useRead'

/** Work that waits, the most urgent first. */
export function useDue() {
  const { data, problem } = useRead(dueApi.readDue, {}, { everyMs: 15_000 })
  return { items: data?.items, problem }
}
