import type { HoldsView } from '../core/holds/holdsView'
import type { Commander } from './commander'
import type { Furnished } from './furnish'

interface Scene extends Furnished {
  commander: Commander
}

/** On so few days the lead takes a sign for one. */
const confirmsEvery = 17

/** After the round the lead says what the signs of the day are, and lets go what is ready. */
async function decideAndRelease({ commander, people }: Scene, daysAgo: number, atMs: number): Promise<void> {
  const before = commander.ask<HoldsView>('/api/holds', {}, atMs)
  for (const { tankId, contactId, word } of before.decisions) {
    if (tankId === null || contactId !== null) continue
    const isOne = daysAgo % confirmsEvery === 0
    await commander.run('decideHeldSign', {}, { tankId, word, decision: isOne ? 'confirmed' : 'dismissed', note: isOne ? null : word === 'death' ? 'one of many, the others well' : 'gone when looked at again', happenedAtMs: atMs }, people.lead, atMs)
  }
  const { groups } = before.decisions.length === 0 ? before : commander.ask<HoldsView>('/api/holds', {}, atMs)
  const fish = groups.filter(({ release, isTank }) => release.answer === 'release' && isTank).map(({ lotId, placeId }) => ({ lotId, placeId }))
  if (fish.length > 0) await commander.run('endHolds', {}, { fish, reason: null, happenedAtMs: atMs }, people.lead, atMs)
}

/** Of the last days one story each: a late sign that began a whole water again, a hold that was ended early, two groups that stand together to be looked at. */
async function tellHolds({ commander, people, tanks }: Scene, daysAgo: number, atMs: number): Promise<void> {
  const heldIn = (code: string) => commander.ask<HoldsView>('/api/holds', {}, atMs).groups.filter(({ placeName }) => placeName === code)
  if (daysAgo === 2 && heldIn('R1-01').length > 0) {
    const tankId = tanks.get('R1-01') ?? ''
    await commander.run('recordCheck', {}, { tankId, roundNumber: 1, ate: 'most', signs: ['spots'], seen: null, note: 'three with grains on the fins', replacesId: null, happenedAtMs: atMs }, people.lead, atMs)
    await commander.run('decideHeldSign', {}, { tankId, word: 'spots', decision: 'confirmed', note: null, happenedAtMs: atMs }, people.lead, atMs)
  }
  if (daysAgo !== 1) return
  const early = heldIn('R2-05')
  if (early.length > 0) await commander.run('endHolds', {}, { fish: early.map(({ lotId, placeId }) => ({ lotId, placeId })), reason: 'to the customer who ordered them, into a tank by themselves', happenedAtMs: atMs }, people.lead, atMs)
  const [first, second] = heldIn('Q1-03')
  if (first && second) await commander.run('startPairing', {}, { tankId: first.placeId, lotA: first.lotId, lotB: second.lotId, looksH: [24, 48, 72, 120, 168], happenedAtMs: atMs }, people.lead, atMs)
}

/** What becomes of holds on a day: decided and let go after the round, and a little later what is told of the last days. */
export async function keepHolds(scene: Scene, daysAgo: number, atMs: number): Promise<void> {
  await decideAndRelease(scene, daysAgo, atMs)
  await tellHolds(scene, daysAgo, atMs + 12 * 60_000)
}
