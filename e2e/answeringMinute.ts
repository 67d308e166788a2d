import { simulatedProbes } from '../core/probes/simulatedProbes'

/** The first minute from a moment on in which a stand-in of that name answers: of one in fifty its sample stays away. */
export function answeringMinute(name: string, fromMs: number): number {
  let atMs = fromMs
  while (simulatedProbes.read({ id: name, name, tankId: '', measure: 'tempC', everyMin: 15, fault: 'none', addedAtMs: atMs }, { kind: 'fresh', tempC: 25, ph: null, salinityPpt: null }, atMs) === null) atMs += 60_000
  return atMs
}
