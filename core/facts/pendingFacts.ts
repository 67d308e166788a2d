import type { StockView } from '../ledger/stockView'
import { eventsOf } from './eventsOf'
import type { KnownFacts, LotStanding } from './facts'
import { foldAll, nothingKnown } from './foldFacts'
import type { TankTouch } from './tankTouches'

/** What touches change of a tank of which its stock is known. */
export function foldTouches(tankId: string, stock: readonly StockView[], touches: readonly TankTouch[]): KnownFacts {
  const known = foldAll<KnownFacts>({ ...nothingKnown, tankId }, stock.map((lot) => ({ kind: 'stands', tankId, lot: standingOf(lot) })))
  return touches.reduce((tank, touch) => foldAll(tank, eventsOf(touch, (id) => (id === tankId ? tank : undefined))), known)
}

/** A lot as a list of stock has it; what the list does not say is not known. */
const standingOf = ({ handling, strain, ...lot }: StockView): LotStanding => ({ ...lot, noted: { sizeCm: null, strain, water: null, atMs: lot.sinceMs }, hold: null, book: { handling, firstMealDays: null, bearsHunger: null, firstFoods: null } })
