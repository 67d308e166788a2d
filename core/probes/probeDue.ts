import type { DueItem } from '../due/due'
import { measureRules } from './probe'
import { stateTitles } from './probeState'
import type { ProbeView } from './probeView'

/** A probe that has failed, as work that waits: somebody looks at it, and reads by hand until it is right. */
export const probeDue = ({ id, name, tankCode, measure, state, words, sinceMs }: Pick<ProbeView, 'id' | 'name' | 'tankCode' | 'measure' | 'state' | 'words' | 'sinceMs'>): DueItem => ({
  ...{ id: `probe ${id} ${state}`, kind: 'probe', what: `probe ${name} ${stateTitles[state]}`, detail: `${measureRules[measure].label}: ${words ?? ''}. Read by hand until then`, about: tankCode, where: null, to: '/probes' },
  ...{ sinceMs, byMs: null, urgency: 'soon', done: null },
})
