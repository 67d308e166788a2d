import type { Commander } from './commander'
import type { Furnished } from './furnish'

const [minuteMs, hourMs, dayMs] = [60_000, 3_600_000, 86_400_000]

interface Scene extends Furnished {
  commander: Commander
}

/** Three simulated probes; one of them has been stuck since last night. */
export async function hangProbes({ commander, people, tanks }: Scene, nowMs: number): Promise<void> {
  const hung = [['Q1 left, heater', 'Q1-03', 'tempC', 'none'], ['Marine rack, pH', 'M1-02', 'ph', 'none'], ['Q1 right, heater', 'Q1-06', 'tempC', 'stuck']] as const
  for (const [name, code, measure, fault] of hung) await commander.run('addProbe', {}, { name, tankId: tanks.get(code) ?? '', measure, everyMin: 30, fault, version: 0 }, people.lead, nowMs - dayMs)
  for (let atMs = nowMs - 9 * hourMs; atMs <= nowMs; atMs += 30 * minuteMs) await commander.run('pollProbes', {}, {}, people.lead, atMs)
}
