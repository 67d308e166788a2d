import type { StockView } from '../ledger/stockView'
import type { HoldView } from '../room/roomView'
import { tankFlag, type TankFlag } from '../room/tankFlag'
import type { Look, Loss, TankFacts } from './facts'

/** The newest look at a tank; null when nobody ever looked. */
export const lastLook = ({ looks }: Pick<TankFacts, 'looks'>): Look | null => looks[0] ?? null

/** The newest look of an earlier round; null when there is none that is known. */
export const lookBefore = ({ looks }: Pick<TankFacts, 'looks'>, { on, number }: { on: string; number: number }): Look | null => looks.find((look) => look.on < on || (look.on === on && look.number < number)) ?? null

/** Fish lost from a tank since a moment, whoever they were. */
export const lossesSince = ({ losses }: Pick<TankFacts, 'losses'>, sinceMs: number): Loss[] => losses.filter(({ atMs }) => atMs >= sinceMs)

/** How many times fish were chased or eaten in a tank since a moment. */
export const fightsSince = ({ fights }: Pick<TankFacts, 'fights'>, sinceMs: number): number => fights.filter(({ atMs }) => atMs >= sinceMs).length

/** The running hold of a tank for the scale on its glass, of those who have longest to go; null when none is held. */
export function longestHold({ lots }: Pick<TankFacts, 'lots'>): HoldView | null {
  const running = lots.flatMap(({ hold }) => hold ?? []).filter(({ isServed }) => !isServed)
  const [longest] = running.sort((a, b) => (a.earliest < b.earliest ? 1 : a.earliest > b.earliest ? -1 : a.day - b.day))
  return longest ? { day: longest.day, of: longest.of } : null
}

/** The word on the strip of a tank, from a look and the fish lost since a moment. */
export const flagOf = (tank: Pick<TankFacts, 'losses'>, look: Look | null, sinceMs: number): TankFlag | null =>
  tankFlag({ signs: look?.signs ?? [], ate: look?.ate ?? null, lostToday: lossesSince(tank, sinceMs).reduce((sum, { quantity }) => sum + quantity, 0) })

/** Lots of a tank as a list of its stock shows them; last those of which only part of a fish is to be expected. */
export const stockOf = ({ lots, perhaps }: Pick<TankFacts, 'lots' | 'perhaps'>): StockView[] =>
  [...lots, ...perhaps].map(({ lotId, lotCode, speciesId, species, noted, quantity, expected, origin, sinceMs, arrivedAtMs, isBeforeBooks, book }) => ({ lotId, lotCode, speciesId, species, strain: noted.strain, quantity, expected, origin, sinceMs, arrivedAtMs, isBeforeBooks, handling: book.handling }))
