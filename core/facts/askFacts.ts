import type { Limits } from '../limits/houseLimits'
import type { StockView } from '../ledger/stockView'
import type { HoldView } from '../room/roomView'
import { tankFlag, type TankFlag } from '../room/tankFlag'
import { holdBeganMs, shopHold, type HoldDay } from '../today/shopHold'
import type { LotStanding, Look, Loss, TankFacts } from './facts'

/** The newest look at a tank; null when nobody ever looked. */
export const lastLook = ({ looks }: Pick<TankFacts, 'looks'>): Look | null => looks[0] ?? null

/** The newest look of an earlier round; null when there is none that is known. */
export const lookBefore = ({ looks }: Pick<TankFacts, 'looks'>, { on, number }: { on: string; number: number }): Look | null => looks.find((look) => look.on < on || (look.on === on && look.number < number)) ?? null

/** Fish lost from a tank since a moment, whoever they were. */
export const lossesSince = ({ losses }: Pick<TankFacts, 'losses'>, sinceMs: number): Loss[] => losses.filter(({ atMs }) => atMs >= sinceMs)

/** How many times fish were chased or eaten in a tank since a moment. */
export const fightsSince = ({ fights }: Pick<TankFacts, 'fights'>, sinceMs: number): number => fights.filter(({ atMs }) => atMs >= sinceMs).length

/** The day of its hold that a lot is in; null for one that is not held, or whose house holds nothing. */
export function holdOf({ openedAtMs, restartsMs = [] }: Pick<LotStanding, 'openedAtMs' | 'restartsMs'>, { shopHoldDays }: Pick<Limits, 'shopHoldDays'>, nowMs: number, timeZone: string): HoldDay | null {
  return openedAtMs === null ? null : shopHold(holdBeganMs(openedAtMs, restartsMs.filter((atMs) => atMs <= nowMs), shopHoldDays, timeZone), nowMs, shopHoldDays, timeZone)
}

/** The running hold of the newest lot in a tank, for the scale on its glass; null when none is held. */
export function newestHold({ lots }: Pick<TankFacts, 'lots'>, limits: Pick<Limits, 'shopHoldDays'>, nowMs: number, timeZone: string): HoldView | null {
  const running = lots.flatMap((lot) => holdOf(lot, limits, nowMs, timeZone) ?? []).filter(({ isServed }) => !isServed)
  const [newest] = running.sort((a, b) => a.day - b.day)
  return newest ? { day: newest.day, of: newest.of } : null
}

/** The word on the strip of a tank, from a look and the fish lost since a moment. */
export const flagOf = (tank: Pick<TankFacts, 'losses'>, look: Look | null, sinceMs: number): TankFlag | null =>
  tankFlag({ signs: look?.signs ?? [], ate: look?.ate ?? null, lostToday: lossesSince(tank, sinceMs).reduce((sum, { quantity }) => sum + quantity, 0) })

/** Lots of a tank as a list of its stock shows them; last those of which only part of a fish is to be expected. */
export const stockOf = ({ lots, perhaps }: Pick<TankFacts, 'lots' | 'perhaps'>): StockView[] =>
  [...lots, ...perhaps].map(({ lotId, lotCode, speciesId, species, noted, quantity, expected, origin, sinceMs, arrivedAtMs, isBeforeBooks, book }) => ({ lotId, lotCode, speciesId, species, strain: noted.strain, quantity, expected, origin, sinceMs, arrivedAtMs, isBeforeBooks, handling: book.handling }))
