import type { Commander } from './commander'
import type { Furnished } from './furnish'

const minuteMs = 60_000
const dayMs = 86_400_000

interface Scene extends Furnished {
  commander: Commander
  chance: { from<T>(values: readonly T[]): T }
}

const hungryTank = 'H1-01'
const spottedTanks = ['M1-03', 'M1-09']
const shyTank = 'S1-05'
/** Fish that have served their hold, and two groups that stand together on their second day: somebody looked at both. */
const wellTanks = ['Q1-06', 'Q1-03']
/** Tanks of which this morning's look tells something of its own. */
export const told: ReadonlySet<string> = new Set(['R1-02', hungryTank, shyTank, ...spottedTanks, ...wellTanks])

/** What was seen this morning beside what is well. */
export async function lookAtTrouble({ commander, people, tanks, chance }: Scene, nowMs: number): Promise<void> {
  const look = (code: string, found: object, minutesAgo: number) => commander.run('recordCheck', {}, { tankId: tanks.get(code) ?? '', roundNumber: 1, ate: 'all', signs: [], seen: null, note: null, replacesId: null, ...found, happenedAtMs: nowMs - minutesAgo * minuteMs }, chance.from(people.keepers), nowMs - minutesAgo * minuteMs)
  await look('R1-02', { ate: 'some', signs: ['clamped fins'], note: 'left food two days running' }, 40)
  // Spots on two tanks of one water, slight on each: together they are to be looked at again.
  for (const [index, code] of spottedTanks.entries()) await look(code, { signs: ['spots'] }, 38 - index)
  for (const [index, code] of wellTanks.entries()) await look(code, {}, 35 - index)
  // Fish that are hardly ever all seen: unseen, not missing.
  await look(shyTank, { seen: 8 }, 36)
}

/** Clown loaches that came last week and have not touched anything since: longer than is usual for them, for the fourth day. They stand alone in the first tub. */
export async function stopEating(scene: Scene, nowMs: number): Promise<void> {
  const { commander, people, tanks, chance } = scene
  const atMs = nowMs - 8 * dayMs
  await commander.run('addFish', { tankId: tanks.get(hungryTank) ?? '' }, { species: 'Clown loach', quantity: 3, how: 'brought-in', note: 'handed in by a customer', happenedAtMs: atMs }, chance.from(people.keepers), atMs)
  for (let daysAgo = 7; daysAgo >= 0; daysAgo -= 1) {
    const happenedAtMs = nowMs - daysAgo * dayMs - 30 * minuteMs
    await commander.run('recordCheck', {}, { tankId: tanks.get(hungryTank) ?? '', roundNumber: 1, ate: 'none', signs: daysAgo < 2 ? ['hiding'] : [], seen: 3, note: null, replacesId: null, happenedAtMs }, people.lead, happenedAtMs)
  }
}
