import type { Probe, ProbeSample } from './probe'
import type { ProbeState } from './probeState'

export interface ProbeView extends Probe, ProbeState {
  tankCode: string
  version: number
  isSimulated: boolean
  /** Of the last day, oldest first. */
  samples: ProbeSample[]
}
