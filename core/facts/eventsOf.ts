import type { CorrectCount, MoveFish, RecordLoss, ReleaseFish } from '../ledger/ledger.schema'
import { roundOfId } from '../rounds/roundId'
import type { RecordCheck } from '../rounds/rounds.schema'
import { marksOf } from './observation'
import type { FactEvent, KnownFacts, LotStanding, Look } from './facts'

/** What was entered on a device, whether or not the server has answered for it. */
export type Touch = { key: string } & (
  | { command: 'recordCheck'; input: RecordCheck }
  | { command: 'recordLoss'; tankId: string; input: RecordLoss }
  | { command: 'moveFish'; tankId: string; input: MoveFish }
  | { command: 'releaseFish'; tankId: string; input: ReleaseFish }
  | { command: 'correctCount'; tankId: string; input: CorrectCount }
)

/**
 * Says what a touch changes as the books will have it: its fish taken off here and put there, its look the newest. It is
 * what a device can know; late entries and what others did meanwhile are the server's to say.
 * @param tankOf - what is known of a tank before the touch; undefined where nothing is.
 */
export function eventsOf(touch: Touch, tankOf: (tankId: string) => KnownFacts | undefined): FactEvent[] {
  if (touch.command === 'recordCheck') return [{ kind: 'checked', tankId: touch.input.tankId, look: lookOf(touch.key, touch.input, tankOf(touch.input.tankId)), replacesId: touch.input.replacesId }]
  const { tankId, input } = touch
  const lot = tankOf(tankId)?.lots.find(({ lotId }) => lotId === input.lotId)
  if (!lot) return []
  const stands = (at: string, standing: LotStanding): FactEvent => ({ kind: 'stands', tankId: at, lot: standing })
  if (touch.command === 'correctCount') return [stands(tankId, { ...lot, quantity: touch.input.counted })]
  const { quantity } = touch.input
  const left = stands(tankId, { ...lot, quantity: Math.max(0, lot.quantity - quantity) })
  if (touch.command === 'recordLoss') {
    const { lotId, lotCode, species, book } = lot
    return [left, { kind: 'lost', tankId, loss: { id: touch.key, lotId, lotCode, species, poisons: book.handling.poisons, quantity, cause: touch.input.cause, atMs: input.happenedAtMs } }]
  }
  if (touch.command === 'releaseFish') return [left]
  const { toTankId } = touch.input
  const there = tankOf(toTankId)?.lots.find(({ lotId }) => lotId === input.lotId)
  return [left, stands(toTankId, { ...lot, quantity: (there?.quantity ?? 0) + quantity, sinceMs: Math.min(there?.sinceMs ?? Infinity, input.happenedAtMs) })]
}

function lookOf(id: string, input: RecordCheck, tank: KnownFacts | undefined): Look {
  const { roundId, roundNumber, ate, signs, seen, note, happenedAtMs } = input
  const { on, number } = (roundId === undefined ? null : roundOfId(roundId)) ?? { on: '', number: roundNumber }
  return { id, on, number, ate, signs, marks: marksOf(input), seen, expected: (tank?.lots ?? []).reduce((sum, { quantity }) => sum + quantity, 0), note, atMs: happenedAtMs, recordedAtMs: happenedAtMs }
}
