import type { HoldsView } from '../core/holds/holdsView'
import type { Commander } from './commander'
import type { Furnished } from './furnish'

interface Scene extends Furnished {
  commander: Commander
}

/** On so few days the lead takes a sign for one. */
const confirmsEvery = 17

/** After the round the lead says what the signs of the day are, and lets go what is ready. */
export async function decideAndRelease({ commander, people }: Scene, daysAgo: number, atMs: number): Promise<void> {
  const waiting = commander.ask<HoldsView>('/api/holds', {}, atMs).decisions
  for (const { tankId, contactId, word } of waiting) {
    if (tankId === null || contactId !== null) continue
    const isOne = daysAgo % confirmsEvery === 0
    await commander.run('decideHeldSign', {}, { tankId, word, decision: isOne ? 'confirmed' : 'dismissed', note: isOne ? null : word === 'death' ? 'one of many, the others well' : 'gone when looked at again', happenedAtMs: atMs }, people.lead, atMs)
  }
  const fish = commander.ask<HoldsView>('/api/holds', {}, atMs).groups.filter(({ release, isTank }) => release.answer === 'release' && isTank).map(({ lotId, placeId }) => ({ lotId, placeId }))
  if (fish.length > 0) await commander.run('endHolds', {}, { fish, reason: null, happenedAtMs: atMs }, people.lead, atMs)
}
