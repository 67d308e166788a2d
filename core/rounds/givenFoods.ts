import { groupBy } from '../collections/groupBy'
import type { TankFacts } from '../facts/facts'
import { ateOf } from '../facts/foldFacts'

/** Foods that were given at once. */
export interface GivenFoods {
  foods: readonly string[]
  atMs: number
}
/** What the kitchen gave a lot in its tank. */
export interface GivenToLot extends GivenFoods {
  tankId: string
  lotId: string
  speciesId: string
}
/** How often a food was given, and how often some of it was eaten. */
export interface FoodTaken {
  food: string
  taken: number
  offered: number
}

/** A look speaks of what was given at most so long before it. */
const speaksMs = 24 * 3_600_000

/** What a look speaks of: the newest that was given before it; null where nobody wrote down what that was. */
export const givenBefore = <G extends GivenFoods>(lookMs: number, given: readonly G[]): G | null => given.filter(({ atMs }) => atMs <= lookMs && lookMs - atMs <= speaksMs).reduce<G | null>((newest, each) => (newest === null || each.atMs > newest.atMs ? each : newest), null)

/** How the kinds of the house took their foods, by species, as far as somebody looked after they were given. */
export function takenByKind(given: readonly GivenToLot[], tanks: readonly Pick<TankFacts, 'tankId' | 'looks'>[]): Map<string, FoodTaken[]> {
  const looksOf = new Map(tanks.map(({ tankId, looks }) => [tankId, looks]))
  const byLot = groupBy(given, ({ tankId, lotId }) => `${tankId} ${lotId}`)
  const answers = [...byLot.values()].flatMap((own) => {
    const [{ tankId = '', lotId = '', speciesId = '' } = {}] = own
    return (looksOf.get(tankId) ?? []).flatMap((look) => {
      const ate = ateOf(look, lotId)
      const spokenOf = ate === 'not fed' ? null : givenBefore(look.atMs, own)
      return (spokenOf?.foods ?? []).map((food) => ({ speciesId, food, isTaken: ate !== 'none' }))
    })
  })
  return new Map([...groupBy(answers, ({ speciesId }) => speciesId)].map(([speciesId, ofKind]) => [speciesId, [...groupBy(ofKind, ({ food }) => food)].map(([food, same]) => ({ food, offered: same.length, taken: same.filter(({ isTaken }) => isTaken).length }))]))
}
