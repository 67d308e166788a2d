import type { Pending } from '../commands/pending'
import type { RecordLoss } from '../ledger/ledger.schema'
import type { StockView } from '../ledger/stockView'
import type { RecordCheck } from '../rounds/rounds.schema'
import { eventsOf, type Touch } from './eventsOf'
import type { KnownFacts, LotStanding } from './facts'
import { foldAll, nothingKnown } from './foldFacts'

/** A touch at a tank that nobody waits for. */
export type TankTouch = Extract<Touch, { command: 'recordCheck' | 'recordLoss' }>

/** Of what waits on a device: the touches at tanks, in their order. A form waits for its answer, and shows nothing before. */
export function tankTouches(pending: readonly Pending[]): TankTouch[] {
  return pending.filter(({ isTouch }) => isTouch).flatMap(({ command, params, key, input }, index): TankTouch[] => {
    // What happened in one moment stands in the order of recording.
    const id = `${String(index).padStart(6, '0')} ${key}`
    if (command === 'recordCheck') return [{ command, key: id, input: input as RecordCheck }]
    return command === 'recordLoss' ? [{ command, key: id, tankId: params.tankId ?? '', input: input as RecordLoss }] : []
  })
}

/** What touches change of a tank of which its stock is known. */
export function foldTouches(tankId: string, stock: readonly StockView[], touches: readonly TankTouch[]): KnownFacts {
  const known = foldAll<KnownFacts>({ ...nothingKnown, tankId }, stock.map((lot) => ({ kind: 'stands', tankId, lot: standingOf(lot) })))
  return touches.reduce((tank, touch) => foldAll(tank, eventsOf(touch, (id) => (id === tankId ? tank : undefined))), known)
}

/** A lot as a list of stock has it; what the list does not say is not known. */
const standingOf = ({ handling, ...lot }: StockView): LotStanding => ({ ...lot, speciesId: '', noted: { sizeCm: null, strain: null, water: null, atMs: lot.sinceMs }, openedAtMs: null, book: { handling, firstMealDays: null, bearsHunger: null, firstFoods: null } })
