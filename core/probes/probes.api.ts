import { answers, command, named, read } from '../commands/declare'
import { pollProbesSchema, retireProbeSchema, saveProbeSchema } from './probes.schema'
import type { ProbeView } from './probeView'

/** Probes in tanks. Those that there are so far are simulated. */
export const probesApi = named({
  /** every probe with what it says now, or why it has failed */
  readProbes: read({ path: '/api/probes', access: 'device', about: () => ['probe', 'look', 'register', 'limit', 'house'], staysMs: 60_000, answer: answers<{ probes: ProbeView[] }>() }),
  addProbe: command({ method: 'post', path: '/api/probes', access: 'lead', schema: saveProbeSchema, touches: () => ['probe'], answer: answers<{ id: string }>() }),
  editProbe: command({ method: 'put', path: '/api/probes/:probeId', access: 'lead', schema: saveProbeSchema, touches: () => ['probe'], answer: answers<{ version: number }>() }),
  retireProbe: command({ method: 'post', path: '/api/probes/:probeId/retirement', access: 'lead', schema: retireProbeSchema, touches: () => ['probe'] }),
  /** the server does so by itself; what a probe that can be believed says becomes a reading of its tank once a day, and at once where it passes a limit */
  pollProbes: command({ method: 'post', path: '/api/probes/polls', access: 'keeper', schema: pollProbesSchema, touches: () => ['probe', 'look'], answer: answers<{ asked: number; fed: number }>() }),
})
