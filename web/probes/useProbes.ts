import { probesApi } from '../../core/probes/probes.api'
import type { SaveProbe } from '../../core/probes/probes.schema'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

/** Probes as they answer. */
export function useProbes() {
  const { data, problem } = useRead(probesApi.readProbes, {}, { everyMs: 60_000 })
  return { probes: data?.probes, problem }
}

/** What is written about probes. */
export function useProbeWrites() {
  const write = useWrite()
  const form = { refusals: 'form' } as const
  return {
    save: (probeId: string | null, body: SaveProbe): Promise<unknown> => (probeId === null ? write(probesApi.addProbe, { label: `probe ${body.name}`, body }, form) : write(probesApi.editProbe, { params: { probeId }, label: `probe ${body.name}`, body }, form)),
    retire: (probeId: string, version: number) => write(probesApi.retireProbe, { params: { probeId }, label: 'a probe', body: { version } }, form),
    poll: () => write(probesApi.pollProbes, { label: 'asking the probes', body: {} }, form),
  }
}
