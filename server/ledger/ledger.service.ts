import type { AddFish, CorrectCount, MoveFish, RecordLoss, ReleaseFish, ReverseMovement, SayWater } from '../../core/ledger/ledger.schema'
import { outsidePlaceId, type Movement, type MovementKind } from '../../core/ledger/movement'
import { planReversal } from '../../core/ledger/planReversal'
import type { AuditStore } from '../audit/audit.store'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import type { PlacingService } from '../placing/placing.service'
import type { SpeciesStore } from '../species/species.store'
import type { LedgerStore } from './ledger.store'

/** One movement still to be written. */
export interface Entry {
  kind: MovementKind
  lotId: string
  fromPlaceId: string
  toPlaceId: string
  quantity: number
  happenedAtMs: number
  reversesId?: string
  cause?: string | null
  reason?: string | null
  note?: string | null
}

interface Collaborators {
  store: LedgerStore
  species: SpeciesStore
  tankIdOf: (id: string) => string
  placing: Pick<PlacingService, 'require'>
  audit: AuditStore
}

/** Writes the ledger and takes entries back. Every function runs inside the transaction of its command. */
export function createLedgerService({ store, species, tankIdOf, placing, audit }: Collaborators) {
  function write({ actor, key, nowMs }: CommandContext, entry: Entry): string {
    const id = newId()
    store.insert({ reversesId: null, cause: null, reason: null, note: null, ...entry, id, staffId: actor.id, commandKey: key, recordedAtMs: nowMs })
    return id
  }

  /** Takes fish out of a tank, saying beside the field when fewer are there; `gate` has its say before anything is written. */
  function writeFromTank(context: CommandContext, input: { lotId: string; quantity: number; happenedAtMs: number }, rest: Partial<Entry> & Pick<Entry, 'kind' | 'toPlaceId'>, gate: (fromPlaceId: string) => void = () => undefined) {
    const fromPlaceId = tankIdOf(context.params.tankId ?? '')
    const available = store.available(fromPlaceId, input.lotId)
    if (available === 0) throw fieldProblem('lotId', 'No fish of this lot stand in this tank now')
    if (available < input.quantity) throw fieldProblem('quantity', `Only ${available} of this lot stand in this tank now`)
    const { lotId, quantity, happenedAtMs } = input
    gate(fromPlaceId)
    return { movementIds: [write(context, { lotId, quantity, happenedAtMs, fromPlaceId, ...rest })] }
  }

  function reverse(context: CommandContext, movement: Movement & { seq: number }, happenedAtMs: number, reason: string | null): string {
    const planned = planReversal(movement, store.isReversed(movement.id), store.available(movement.toPlaceId, movement.lotId))
    if (planned.ok) {
      const { ok: _, ...entry } = planned
      return write(context, { ...entry, kind: 'reversal', happenedAtMs, reason })
    }
    if (planned.reason === 'fish-moved-on') throw movedOn(movement, planned.available)
    if (planned.reason === 'is-reversal') throw new Problem('conflict', 'A reversal is not taken back itself; enter what happened instead')
    throw new Problem('conflict', 'This was taken back already')
  }

  function movedOn(movement: Movement & { seq: number }, available: number): Problem {
    const next = store.inTheWay(movement.toPlaceId, movement.lotId, movement.seq)
    const row = next && store.rowById(next.id)
    const where = !row ? '' : row.toPlaceId === outsidePlaceId ? ` (${row.quantity} left by a ${row.kind})` : ` (${row.quantity} went on to ${row.toName})`
    return new Problem('conflict', `Only ${available} of these ${movement.quantity} fish are still there${where}. Take that back first.`, { current: { movementId: row?.id ?? null } })
  }

  return {
    write,
    reverse,

    /** Moves fish of one lot to another tank. */
    moveFish(context: CommandContext, input: MoveFish) {
      if (input.toTankId === context.params.tankId) throw fieldProblem('toTankId', 'The fish are in this tank already')
      const { lotId, quantity, note, override, isRescue } = input
      const toPlaceId = tankIdOf(input.toTankId)
      return writeFromTank(context, input, { kind: 'move', toPlaceId, note }, (fromPlaceId) => placing.require(context, { going: [{ lotId, quantity, fromPlaceId }], tankId: toPlaceId, path: 'toTankId', override, isRescue }))
    },

    /** Says which water fish live in, where the book does not; said again, the later word counts. */
    sayWater({ actor, key, nowMs }: CommandContext, { lotIds, water }: SayWater) {
      for (const { id, code, said, species: name, isInBook } of store.waterSaid(lotIds)) {
        if (isInBook) throw new Problem('conflict', `The species book says which water ${name} lives in; a lead changes it under Setup, Species`)
        store.updateLot(id, { water })
        audit.insert({ atMs: nowMs, staffId: actor.id, action: 'said the water of', subject: `lot ${code} ${name}`, changes: { water: [said, water] }, commandKey: key })
      }
      return {}
    },

    /** Books fish of one lot as lost. */
    recordLoss: (context: CommandContext, input: RecordLoss) => writeFromTank(context, input, { kind: 'loss', toPlaceId: outsidePlaceId, cause: input.cause, note: input.note }),

    /** Books fish of one lot as gone alive. */
    releaseFish: (context: CommandContext, input: ReleaseFish) => writeFromTank(context, input, { kind: 'release', toPlaceId: outsidePlaceId, reason: input.reason, note: input.note }),

    /** Sets the books right after a count; refuses when the books changed since the person looked. */
    correctCount(context: CommandContext, { lotId, expected, counted, reason, happenedAtMs }: CorrectCount) {
      const tankId = tankIdOf(context.params.tankId ?? '')
      if (!store.isLot(lotId)) throw fieldProblem('lotId', 'This lot is not in the books')
      const booked = store.available(tankId, lotId)
      if (booked !== expected) throw new Problem('stale', `The books say ${booked} now, not ${expected}; count again against that`, { current: { quantity: booked } })
      if (counted === booked) throw fieldProblem('counted', `The books say ${booked} already`)
      const [fromPlaceId, toPlaceId] = counted > booked ? [outsidePlaceId, tankId] : [tankId, outsidePlaceId]
      return { movementIds: [write(context, { kind: 'count-correction', lotId, fromPlaceId, toPlaceId, quantity: Math.abs(counted - booked), reason, happenedAtMs })] }
    },

    /** Begins a lot of fish that came by no crate. */
    addFish(context: CommandContext, { species: name, quantity, how, note, happenedAtMs }: AddFish) {
      const tankId = tankIdOf(context.params.tankId ?? '')
      const prefix = how === 'born' ? 'B' : 'H'
      const lotId = newId()
      const code = `${prefix}-${store.countLots(`${prefix}-`) + 1}`
      store.insertLot({ id: lotId, code, speciesId: species.named(name, context.nowMs, 'species'), origin: how === 'born' ? 'born here' : 'brought in', createdAtMs: context.nowMs })
      const movementId = write(context, { kind: how === 'born' ? 'born' : 'arrive', lotId, fromPlaceId: outsidePlaceId, toPlaceId: tankId, quantity, note, happenedAtMs })
      return { movementIds: [movementId], lotId }
    },

    /** Takes one movement back. What belongs to a bag's record is taken back with the bag, so that record and books agree. */
    reverseMovement(context: CommandContext, { reason, happenedAtMs }: ReverseMovement) {
      const movement = store.movementById(context.params.movementId ?? '')
      const row = movement && store.rowById(movement.id)
      if (!movement || !row) throw new Problem('not-found', 'There is no such movement')
      if (isBagEntry(row)) throw new Problem('conflict', 'This is part of a bag’s record; undo the bag in Unpack instead')
      const { run } = row
      if (run !== null) throw new Problem('conflict', `This is part of run ${run} on the bench; move the fish or correct the count instead`)
      return { movementIds: [reverse(context, movement, happenedAtMs, reason)] }
    },
  }
}
export type LedgerService = ReturnType<typeof createLedgerService>

/** Answers whether a movement was written by recording a bag. */
export const isBagEntry = (row: { kind: MovementKind; fromKind: string; toKind: string }): boolean => row.kind === 'dead-in-bag' || (row.kind === 'arrive' && row.toKind === 'bag')
