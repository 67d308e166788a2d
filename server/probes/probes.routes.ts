import { probesApi } from '../../core/probes/probes.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { ProbesService } from './probes.service'

/** Answers for probes in tanks. */
export const probesEndpoints = ({ view, addProbe, editProbe, retireProbe, pollProbes }: ProbesService): Endpoint[] => serve(probesApi, { readProbes: ({ nowMs }) => view(nowMs), ...{ addProbe, editProbe, retireProbe, pollProbes } })
