import type { Pending } from '../commands/pending'
import { lastLook, stockOf } from '../facts/askFacts'
import { foldTouches } from '../facts/pendingFacts'
import { keyOfTouch, tankTouches } from '../facts/tankTouches'
import type { RoundView } from './roundView'

/** Shows a round with the touches that wait on this device. What was entered in another round stays there; the fish are the same. A look that waits goes by the key it is sent with. */
export function withPendingTouches(round: RoundView, pending: readonly Pending[]): RoundView {
  const touches = tankTouches(pending).filter((touch) => touch.command !== 'recordCheck' || touch.input.roundId === round.id)
  if (touches.length === 0) return round
  const stops = round.stops.map((stop) => {
    const tank = foldTouches(stop.tankId, stop.stock, touches)
    const look = lastLook(tank)
    return { ...stop, stock: stockOf(tank), ...(look ? { check: { id: keyOfTouch(look.id), ate: look.ate, signs: look.signs, marks: look.marks, answers: look.answers, counts: look.counts, seen: look.seen, note: look.note, staffName: '' } } : {}) }
  })
  return { ...round, stops }
}
