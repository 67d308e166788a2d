import type { CorrectCount, MoveFish, RecordLoss, ReleaseFish, WhichFish } from '../ledger/ledger.schema'
import { addBack, takeOut, type Attributed, type NotAttributed, type PooledLot } from '../pools/attribute'
import { weightOfCause, weightOfReason } from '../pools/hazard'
import { lotDays } from '../pools/lotAge'
import { millionthsPerFish } from '../pools/shareOut'
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
  return fishEvents(touch, tankOf)
}

type FishTouch = Exclude<Touch, { command: 'recordCheck' }>

/** Fish that go, or are counted: of the lot that was named, or of those that stand together as the books will take it. */
function fishEvents(touch: FishTouch, tankOf: (tankId: string) => KnownFacts | undefined): FactEvent[] {
  const { tankId, input } = touch
  const kind = kindIn(tankOf(tankId), input)
  const done = attributed(touch, kind)
  if (!done?.ok) return []
  const lotOf = (code: string): LotStanding | undefined => kind.find(({ lotCode }) => lotCode === code)
  const stands = (at: string, standing: LotStanding): FactEvent => ({ kind: 'stands', tankId: at, lot: standing })
  const here = done.after.flatMap(({ lot: code, booked, expected }): FactEvent[] => {
    const lot = lotOf(code)
    return lot ? [stands(tankId, { ...lot, quantity: booked, expected, sinceMs: lot.quantity === 0 ? input.happenedAtMs : lot.sinceMs })] : []
  })
  if (touch.command === 'recordLoss')
    return [...here, ...done.movements.flatMap(({ lot: code, quantity }, index): FactEvent[] => {
      const lot = lotOf(code)
      if (!lot) return []
      const { lotId, lotCode, species, book } = lot
      return [{ kind: 'lost', tankId, loss: { id: index === 0 ? touch.key : `${touch.key} ${index}`, lotId, lotCode, species, poisons: book.handling.poisons, quantity, cause: touch.input.cause, isAttributed: done.how === 'attributed', atMs: input.happenedAtMs } }]
    })]
  if (touch.command !== 'moveFish') return here
  const { toTankId } = touch.input
  const there = tankOf(toTankId)
  return [...here, ...done.after.flatMap(({ lot: code }): FactEvent[] => {
    const lot = lotOf(code)
    const [quantity, expected] = [done.movements.find((each) => each.lot === code)?.quantity ?? 0, done.shares.find((each) => each.lot === code)?.millionths ?? 0]
    if (!lot || (quantity === 0 && expected === 0)) return []
    const old = [...(there?.lots ?? []), ...(there?.perhaps ?? [])].find(({ lotId }) => lotId === lot.lotId)
    return [stands(toTankId, { ...lot, quantity: (old?.quantity ?? 0) + quantity, expected: (old?.expected ?? 0) + expected, sinceMs: Math.min(old && old.quantity > 0 ? old.sinceMs : Infinity, input.happenedAtMs) })]
  })]
}

/** Lots of a tank that cannot be told apart from those a touch names. */
function kindIn(tank: KnownFacts | undefined, { lotId, lotIds = [], speciesId, strain = null }: WhichFish): LotStanding[] {
  const lots: LotStanding[] = [...(tank?.lots ?? []), ...(tank?.perhaps ?? [])]
  const named = lots.find((lot) => lot.lotId === (lotId ?? lotIds[0]))
  const of = named ? { speciesId: named.speciesId, strain: named.noted.strain } : { speciesId, strain }
  return lotId && !named ? [] : lots.filter((lot) => lot.speciesId === of.speciesId && lot.noted.strain === of.strain)
}

function attributed({ input, ...touch }: FishTouch, kind: readonly LotStanding[]): Attributed | NotAttributed | null {
  const booked = kind.reduce((sum, { quantity }) => sum + quantity, 0)
  const isEven = kind.reduce((sum, { expected }) => sum + expected, 0) === booked * millionthsPerFish
  // By what this device knows; where its two books do not agree, the one in whole fish is believed. The room's days are the server's to say.
  const lots = kind.map((lot): PooledLot => ({ lot: lot.lotCode, booked: lot.quantity, expected: isEven ? lot.expected : lot.quantity * millionthsPerFish, days: lotDays(lot, input.happenedAtMs, 'UTC') }))
  const names = input.lotId ? [input.lotId] : (input.lotIds ?? [])
  const among = kind.filter(({ lotId }) => names.includes(lotId)).map(({ lotCode }) => lotCode)
  if (touch.command !== 'correctCount') return takeOut(lots, (input as { quantity: number }).quantity, { among, weightOf: touch.command === 'recordLoss' ? weightOfCause((input as RecordLoss).cause) : undefined })
  const { counted, reason, lotId } = input as CorrectCount
  const before = kind.reduce((sum, lot) => sum + (lotId && lot.lotId !== lotId ? 0 : lot.quantity), 0)
  if (counted < before) return takeOut(lots, before - counted, { among, weightOf: weightOfReason(reason) })
  return counted === before ? null : addBack(lots, counted - before, among)
}

function lookOf(id: string, input: RecordCheck, tank: KnownFacts | undefined): Look {
  const { roundId, roundNumber, ate, signs, answers, counts, seen, note, happenedAtMs } = input
  const { on, number } = (roundId === undefined ? null : roundOfId(roundId)) ?? { on: '', number: roundNumber }
  return { id, on, number, ate, signs, marks: marksOf(input), answers: answers ?? [], counts: counts ?? [], seen, expected: (tank?.lots ?? []).reduce((sum, { quantity }) => sum + quantity, 0), note, atMs: happenedAtMs, recordedAtMs: happenedAtMs }
}
