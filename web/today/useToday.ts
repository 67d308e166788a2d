import { todayApi } from '../../core/today/today.api'
import { useRead } from '../api/useRead'

/** What this room needs now. */
export function useToday() {
  const { data, problem } = useRead(todayApi.readToday, {}, { everyMs: 30_000 })
  return { today: data, problem }
}
