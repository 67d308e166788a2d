import { groupBy } from '../../core/collections/groupBy'
import { fightWeight } from '../../core/moves/fightWeight'
import type { MoveRules } from '../../core/moves/moveRules'
import type { ChoiceTank } from '../../core/tankChoice/tankChoice'
import type { MovesStore } from './moves.store'

const dayMs = 86_400_000
/** Fights longer ago weigh next to nothing. */
export const fightDays = 400

interface Collaborators {
  store: Pick<MovesStore, 'fights'>
  rules: () => MoveRules
}

/** What kinds that fought say about tanks that fish may go to. */
export const createFightsService = ({ store, rules }: Collaborators) => ({
  /** Tanks with what is known of pairs of kinds: other fish than those that fought, so half; a small tank's wound says little about a large one. */
  withFought(tanks: readonly ChoiceTank[], nowMs: number): ChoiceTank[] {
    const pairs = [...groupBy(store.fights(nowMs - fightDays * dayMs), ({ a, b }) => JSON.stringify([a, b].sort())).values()]
    if (pairs.length === 0) return [...tanks]
    return tanks.map((tank) => {
      const kinds = new Set(tank.occupants.map(({ animal }) => animal.species))
      const fought = pairs.flatMap(([first, ...rest]) => {
        if (!first || (!kinds.has(first.a) && !kinds.has(first.b))) return []
        const fights = [first, ...rest].map(({ volumeL, harm, atMs }) => ({ volumeL, harm, daysAgo: Math.max(0, (nowMs - atMs) / dayMs), isSameFish: false }))
        return [{ a: first.a, b: first.b, weight: fightWeight(fights, tank.netVolumeL, rules()) }]
      })
      return fought.length > 0 ? { ...tank, fought } : tank
    })
  },
})
export type FightsService = ReturnType<typeof createFightsService>
