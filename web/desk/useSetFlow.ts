import { benchApi } from '../../core/bench/bench.api'
import { nowMs } from '../api/clock'
import { useWrite } from '../api/useOutbox'

/** Sets the flow of a run from a calculation. */
export function useSetFlow() {
  const write = useWrite()
  return (runId: string, mlPerMin: number) => write(benchApi.setFlow, { params: { runId }, label: 'a flow from the Water desk', body: { mlPerMin, happenedAtMs: nowMs() } }, { refusals: 'form' })
}
