import type { Commander } from './commander'
import type { Furnished } from './furnish'

const [hourMs, dayMs] = [3_600_000, 86_400_000]

interface Scene extends Furnished {
  commander: Commander
}

/** What hangs on tanks: a note, and readings of the last two weeks of a water that grew warm while a heater stuck. */
export async function hangOnTheGlass({ commander, people, tanks }: Scene, nowMs: number): Promise<void> {
  const keeper = people.keepers[0] ?? people.lead
  await commander.run('pinNote', { tankId: tanks.get('R1-02') ?? '' }, { words: 'new heater: look at the thermometer' }, keeper, nowMs - 8 * dayMs)
  const warm = [24.6, 25.4, 26.9, 26.2, 25.1, 24.7, 24.6, 24.7, 24.6, 24.7, 24.6, 24.7]
  for (const [index, value] of warm.entries()) await read('R1-02', 'tempC', value, warm.length - index)
  for (const [daysAgo, value] of [[11, 0.1], [6, 0.2], [2, 0.05]] as const) await read('R1-02', 'ammoniaMgL', value, daysAgo)

  async function read(code: string, what: string, value: number, daysAgo: number): Promise<void> {
    const atMs = nowMs - daysAgo * dayMs + hourMs
    await commander.run('recordReading', { tankId: tanks.get(code) ?? '' }, { what, value, instrument: null, happenedAtMs: atMs }, keeper, atMs)
  }
}
