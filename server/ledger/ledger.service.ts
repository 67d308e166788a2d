import type { AddFish, CorrectCount, FindFish, MoveFish, RecordLoss, ReleaseFish, RenameLot, ReverseMovement, SayWater, WhichFish } from '../../core/ledger/ledger.schema'
import { gatesWords } from '../../core/holds/holdWords'
import { plural } from '../../core/words/plural'
import type { HoldDay } from '../../core/holds/holdDay'
import type { MoveTogether } from '../../core/moves/moves.schema'
import { outsidePlaceId, type HeldLot, type Movement, type MovementKind } from '../../core/ledger/movement'
import { planReversal } from '../../core/ledger/planReversal'
import { weightOfCause, weightOfReason } from '../../core/pools/hazard'
import type { AuditStore } from '../audit/audit.store'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import type { MovesService } from '../moves/moves.service'
import type { EventEntry, OfPool, Planned, PoolsService } from '../pools/pools.service'
import type { PlansService } from '../plans/plans.service'
import type { SpeciesStore } from '../species/species.store'
import type { LedgerStore } from './ledger.store'

interface Collaborators {
  store: LedgerStore
  pools: PoolsService
  species: SpeciesStore
  tankIdOf: (id: string) => string
  moves: Pick<MovesService, 'require' | 'carried' | 'stand' | 'plansOf' | 'chose' | 'asIfCame'>
  /** A plan's fish were moved. */
  carriedOut: PlansService['carriedOut']
  /** A line of a crate says the strain of its lot. */
  renameLine: (lineId: string, strain: string | null) => void
  /** The day of its hold that a lot is in where it stands; null for one that is not held. */
  holdIn: (lotId: string, placeId: string, nowMs: number) => HoldDay | null
  audit: AuditStore
}

/** Writes the ledger and takes entries back. Every function runs inside the transaction of its command. */
export function createLedgerService({ store, pools, species, tankIdOf, moves, carriedOut, renameLine, holdIn, audit }: Collaborators) {
  const write = pools.writeNamed

  /** Fish of a place as somebody named them: their kind, and which lots they can only have been. */
  function fishOf(placeId: string, { lotId, lotIds = [], speciesId, strain = null }: WhichFish): OfPool {
    const among = lotId ? [lotId] : lotIds
    const kind = among[0] ? pools.kindOf(among[0]) : speciesId ? { speciesId, strain } : null
    if (!kind) throw fieldProblem('lotId', 'This lot is not in the books')
    return { placeId, kind, among }
  }

  /** Which fish are taken out of a tank, or beside the field why none can be. */
  function planOut(of: OfPool, quantity: number, atMs: number): Planned {
    const plan = pools.planOut({ ...of, quantity }, atMs)
    if ('done' in plan) return plan
    if (plan.problem === 'no such lot' || plan.available === 0) throw fieldProblem(of.among.length > 0 ? 'lotId' : 'speciesId', of.among.length > 0 ? 'No fish of this lot stand in this tank now' : 'None of these fish stand in this tank now')
    throw fieldProblem('quantity', `Only ${plan.available} of these stand in this tank now`)
  }

  /** Books fish as lost from where they stand. */
  function writeLoss(context: CommandContext, placeId: string, { cause, note, happenedAtMs, quantity, ...which }: RecordLoss) {
    const plan = planOut({ ...fishOf(placeId, which), weightOf: weightOfCause(cause) }, quantity, happenedAtMs)
    return { movementIds: pools.book(context, plan, { kind: 'loss', cause, note, happenedAtMs }, { toPlaceId: outsidePlaceId }) }
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

  /** Fish that were counted beyond the books: of the lot somebody named, or as the pool has them. */
  function addBack(context: CommandContext, of: OfPool, quantity: number, entry: EventEntry): string[] {
    const [named, other] = of.among
    // A lot may be counted in a tank in which the books have never had it.
    if (named && !other) return [write(context, { ...entry, lotId: named, quantity, fromPlaceId: outsidePlaceId, toPlaceId: of.placeId })]
    const plan = pools.planBack({ ...of, quantity }, entry.happenedAtMs)
    if (!('done' in plan)) throw fieldProblem('lotId', 'The books know none of these here: say which lot they are of')
    return pools.book(context, plan, entry, { fromPlaceId: outsidePlaceId })
  }

  interface NewLot {
    tankId: string
    kind: 'born' | 'arrive'
    origin: string
    speciesId: string
    strain: string | null
    quantity: number
    isBeforeBooks?: boolean
    note: string | null
    happenedAtMs: number
  }

  function beginLot(context: CommandContext, { tankId, kind, origin, speciesId, strain, quantity, isBeforeBooks = false, note, happenedAtMs }: NewLot) {
    const prefix = kind === 'born' ? 'B' : isBeforeBooks ? 'O' : 'H'
    const lotId = newId()
    store.insertLot({ id: lotId, code: `${prefix}-${store.countLots(`${prefix}-`) + 1}`, speciesId, strain, origin, isBeforeBooks: Number(isBeforeBooks), createdAtMs: context.nowMs })
    return { movementIds: [write(context, { kind, lotId, fromPlaceId: outsidePlaceId, toPlaceId: tankId, quantity, note, happenedAtMs })], lotId }
  }

  /** Fish that were written off and stand there again; beside the field where fewer were. */
  function findAgain(context: CommandContext, { placeId, kind }: Pick<OfPool, 'placeId' | 'kind'>, quantity: number, happenedAtMs: number | null): string[] {
    const found = pools.findAgain(context, { placeId, kind, quantity }, happenedAtMs)
    if (!('most' in found)) return found
    throw fieldProblem('quantity', found.most === 0 ? 'No fish of this kind were written off here without being seen dead' : `Only ${found.most} of these were written off here without being seen dead`)
  }

  /** Takes back whatever a command wrote, the newest first; refused as a whole where fish moved on. */
  const reverseCommand = (context: CommandContext, commandKey: string, back: { happenedAtMs: number; reason: string | null }): number => reverseAll(context, store.ofCommand(commandKey), back)

  /** Takes movements back, the newest first, and with each all of the event it is part of. */
  function reverseAll(context: CommandContext, movements: readonly (Movement & { seq: number })[], back: { happenedAtMs: number; reason: string | null }): number {
    const events = new Set<string>()
    for (const movement of movements) {
      const event = pools.eventOf(movement.id)
      if (!event) reverse(context, movement, back.happenedAtMs, back.reason)
      else if (!events.has(event.id) && !pools.isReversed(event.id)) reverseEvent(context, event.id, movement, back)
      if (event) events.add(event.id)
    }
    return movements.length
  }

  /** Takes all of an event back, whichever of its movements was pointed at. */
  function reverseEvent(context: CommandContext, eventId: string, movement: Movement & { seq: number }, back: { happenedAtMs: number; reason: string | null }): string[] {
    for (const each of pools.movementsOf(eventId)) {
      const planned = planReversal(each, store.isReversed(each.id), store.available(each.toPlaceId, each.lotId))
      if (!planned.ok && planned.reason === 'fish-moved-on') throw movedOn(each, planned.available)
    }
    return pools.reverseEvent(context, eventId, back, (inTheWay) => new Problem('conflict', `Of the fish that this counted for, some have gone on since. Take that back first.`, { current: { movementId: inTheWay ?? movement.id } }))
  }

  /** Lots that these fish may be of, and whose hold is not over: one in a pool holds the pool. */
  const heldOf = ({ lots, done }: Planned, placeId: string, nowMs: number): HeldLot[] =>
    lots.filter(({ code }) => done.shares.some(({ lot }) => lot === code)).flatMap(({ lotId, code: lotCode }): HeldLot[] => {
      const hold = holdIn(lotId, placeId, nowMs)
      return hold && !hold.isServed ? [{ lotId, lotCode, day: hold.day, of: hold.of, gates: gatesWords(hold.waitsFor) }] : []
    })

  /** Lets fish go alive; such as are in their hold only with a reason, and the days it is short are kept. */
  function release(context: CommandContext, { placeId, quantity, heldBecause, entry, ...which }: WhichFish & { placeId: string; quantity: number; heldBecause?: string | null | undefined; entry: EventEntry }) {
    const plan = planOut(fishOf(placeId, which), quantity, entry.happenedAtMs)
    const [held, reason] = [heldOf(plan, placeId, context.nowMs), heldBecause?.trim() ?? '']
    if (held.length > 0 && reason === '') throw inHold(plan, held)
    const movementIds = pools.book(context, plan, entry, { toPlaceId: outsidePlaceId })
    for (const { lotId, day, of, gates } of held) store.insertShortfall({ movementId: movementIds[0] ?? '', lotId, day, of, gates, reason })
    return { movementIds }
  }

  function inHold({ lots }: Planned, held: readonly HeldLot[]): Problem {
    const words = held.map(({ lotCode, day, of, gates }) => (day > of ? `lot ${lotCode} has served its ${plural(of, 'day')} and waits for ${gates ?? 'nothing more'}` : `lot ${lotCode} is on day ${day} of ${of}`)).join(', ')
    return new Problem('in-hold', `${lots[0]?.species ?? 'These fish'} are in their hold: ${words}. Say why they go all the same`, { current: held })
  }

  /** Fish go from one place to another; the check is made anew before anything is written. */
  function move(context: CommandContext, { plans, entry, path, override, isRescue, ...way }: Parameters<MovesService['require']>[1] & { entry: EventEntry }) {
    moves.require(context, { ...way, plans, path, override, isRescue })
    moves.carried(context, way, entry.happenedAtMs)
    return { movementIds: plans.flatMap((plan) => pools.book(context, plan, entry, { toPlaceId: way.to.id })) }
  }

  /** Keeps what a lot is called from now on; before the first time also what it came as. */
  function keepName({ actor, key, nowMs }: CommandContext, lotId: string, before: { speciesId: string; strain: string | null }, note: string | null): void {
    const now = store.lotNamed(lotId)
    if (!now || (now.speciesId === before.speciesId && now.strain === before.strain)) return
    if (!store.hasNames(lotId)) store.insertName({ id: newId(), lotId, ...before, note: null, staffId: null, commandKey: null, recordedAtMs: now.createdAtMs })
    store.insertName({ id: newId(), lotId, speciesId: now.speciesId, strain: now.strain, note, staffId: actor.id, commandKey: key, recordedAtMs: nowMs })
  }

  return {
    write,
    reverse,
    keepName,
    settle: pools.settle,

    /** Moves fish to another tank. Whoever they may be must be allowed there. */
    moveFish(context: CommandContext, { note, happenedAtMs, override, isRescue, toolSetId = null, waterGoesAlong = false, quantity, ...which }: MoveFish) {
      if (which.toTankId === context.params.tankId) throw fieldProblem('toTankId', 'The fish are in this tank already')
      const [from, to] = [{ kind: 'tank', id: tankIdOf(context.params.tankId ?? '') } as const, { kind: 'tank', id: tankIdOf(which.toTankId) } as const]
      const plan = planOut(fishOf(from.id, which), quantity, happenedAtMs)
      return move(context, { from, to, toolSetId, waterGoesAlong, override, isRescue, path: 'toTankId', plans: [plan], entry: { kind: 'move', note, happenedAtMs } })
    },

    /** Moves fish of several kinds together, between tanks and vessels: all of them or none. */
    moveTogether(context: CommandContext, { from, to, fish, note, happenedAtMs, override, isRescue, toolSetId, waterGoesAlong, planId }: MoveTogether) {
      const plans = moves.plansOf({ from, fish }, happenedAtMs)
      const written = move(context, { from, to, toolSetId: toolSetId ?? null, waterGoesAlong, planId, override, isRescue, path: 'to', plans, entry: { kind: 'move', note, happenedAtMs } })
      moves.chose(context, fish)
      if (planId) carriedOut(context, planId, { fromId: from.id, toId: to.id, fish })
      return written
    },

    /** Books fish as lost that stood in a bucket or a box. */
    loseInVessel: (context: CommandContext, input: RecordLoss) => writeLoss(context, moves.stand({ kind: 'vessel', id: context.params.vesselId ?? '' }, 'vesselId', context.nowMs).id, input),

    /** Says which water fish live in, where the book does not; said again, the later word counts. */
    sayWater({ actor, key, nowMs }: CommandContext, { lotIds, water }: SayWater) {
      for (const { id, code, said, species: name, isInBook } of store.waterSaid(lotIds)) {
        if (isInBook) throw new Problem('conflict', `The species book says which water ${name} lives in; a lead changes it under Setup, Species`)
        store.updateLot(id, { water })
        audit.insert({ atMs: nowMs, staffId: actor.id, action: 'said the water of', subject: `lot ${code} ${name}`, changes: { water: [said, water] }, commandKey: key })
      }
      return {}
    },

    /** Books fish as lost. */
    recordLoss: (context: CommandContext, input: RecordLoss) => writeLoss(context, tankIdOf(context.params.tankId ?? ''), input),

    /** Books fish as gone alive. */
    releaseFish: (context: CommandContext, { reason, note, heldBecause, happenedAtMs, ...input }: ReleaseFish) => release(context, { ...input, placeId: tankIdOf(context.params.tankId ?? ''), heldBecause, entry: { kind: 'release', reason, note, happenedAtMs } }),

    /** Books fish of a kind as sold from a tank. */
    sell: (context: CommandContext, { tankId, happenedAtMs, note, ...input }: { tankId: string; speciesId: string; strain: string | null; quantity: number; heldBecause: string | null | undefined; note: string | null; happenedAtMs: number }) =>
      release(context, { ...input, placeId: tankIdOf(tankId), entry: { kind: 'release', reason: 'sold', note, happenedAtMs } }),

    /** Sets the books right after a count, of a kind or of one lot; refuses when the books changed since the person looked. */
    correctCount(context: CommandContext, { expected, counted, reason, happenedAtMs, ...input }: CorrectCount) {
      const of = fishOf(tankIdOf(context.params.tankId ?? ''), input)
      const booked = pools.lotsOf(of.placeId, of.kind).reduce((sum, lot) => sum + (input.lotId && lot.lotId !== input.lotId ? 0 : lot.booked), 0)
      if (booked !== expected) throw new Problem('stale', `The books say ${booked} now, not ${expected}; count again against that`, { current: { quantity: booked } })
      if (counted === booked) throw fieldProblem('counted', `The books say ${booked} already`)
      const entry = { kind: 'count-correction', reason, happenedAtMs } as const
      return { movementIds: counted < booked ? pools.book(context, planOut({ ...of, weightOf: weightOfReason(reason) }, booked - counted, happenedAtMs), entry, { toPlaceId: outsidePlaceId }) : addBack(context, of, counted - booked, entry) }
    },

    beginLot,
    findAgain,
    reverseCommand,
    reverseAll,

    /** Takes fish of a pool out of a tank by a correction, or moves them. */
    takeOut: (context: CommandContext, of: OfPool, quantity: number, entry: EventEntry, toPlaceId: string): string[] => pools.book(context, planOut(of, quantity, entry.happenedAtMs), entry, { toPlaceId }),
    addBack,

    /** Says what a lot is. What was counted stays, and what it was called; its places are asked as if it came in. */
    renameLot(context: CommandContext, { species: name, strain, note }: RenameLot) {
      const before = store.lotNamed(context.params.lotId ?? '')
      if (!before) throw new Problem('not-found', 'There is no such lot')
      const speciesId = species.named(name, context.nowMs, 'species')
      const next = strain?.trim() || null
      if (speciesId === before.speciesId && next === before.strain) throw fieldProblem('species', 'It is called so already')
      pools.settle(context, before.id)
      store.updateLot(before.id, { speciesId, strain: next })
      if (before.lineId !== null) renameLine(before.lineId, next)
      keepName(context, before.id, before, note)
      audit.insert({ atMs: context.nowMs, staffId: context.actor.id, action: 'identified', subject: `lot ${before.code}`, changes: { species: [before.species, name], strain: [before.strain, next] }, commandKey: context.key })
      return { lines: store.placesOfLot(before.id).flatMap(({ placeId, kind, quantity }) => moves.asIfCame({ kind, id: placeId }, [{ lotId: before.id, quantity }], context.nowMs)) }
    },

    /** Books fish that came to light. */
    findFish(context: CommandContext, { speciesId, strain, foundInTankId, quantity, happenedAtMs }: FindFish) {
      const [placeId, elsewhere] = [tankIdOf(context.params.tankId ?? ''), foundInTankId ? tankIdOf(foundInTankId) : null]
      if (elsewhere === null || elsewhere === placeId) return { movementIds: findAgain(context, { placeId, kind: { speciesId, strain } }, quantity, happenedAtMs) }
      // They were never dead: since they were missed they have been there, and met whoever stands there.
      const corrections = findAgain(context, { placeId, kind: { speciesId, strain } }, quantity, null)
      const moved = corrections.flatMap((id): string[] => {
        const found = store.movementById(id)
        return found ? [write(context, { kind: 'move', lotId: found.lotId, quantity: found.quantity, fromPlaceId: placeId, toPlaceId: elsewhere, note: 'found again there', happenedAtMs: found.happenedAtMs })] : []
      })
      return { movementIds: [...moved, ...corrections] }
    },

    /** Begins a lot of fish that came by no crate. */
    addFish(context: CommandContext, { species: name, quantity, how, note, happenedAtMs }: AddFish) {
      const tankId = tankIdOf(context.params.tankId ?? '')
      return beginLot(context, { tankId, speciesId: species.named(name, context.nowMs, 'species'), strain: null, quantity, note, happenedAtMs, ...(how === 'born' ? { kind: 'born', origin: 'born here' } : { kind: 'arrive', origin: 'brought in' }) })
    },

    /** Takes one movement back. What belongs to a bag's record is taken back with the bag, so that record and books agree. */
    reverseMovement(context: CommandContext, { isWhole = false, reason, happenedAtMs }: ReverseMovement) {
      const movement = store.movementById(context.params.movementId ?? '')
      const row = movement && store.rowById(movement.id)
      if (!movement || !row) throw new Problem('not-found', 'There is no such movement')
      if (isBagEntry(row)) throw new Problem('conflict', 'This is part of a bag’s record; undo the bag in Unpack instead')
      const { run, introduction } = row
      if (run !== null) throw new Problem('conflict', `This is part of run ${run} on the bench; move the fish or correct the count instead`)
      if (introduction !== null) throw new Problem('conflict', `This is part of introduction ${introduction}; take it back there`)
      if (isWhole) return { movementIds: reverseAll(context, store.ofCommand(row.commandKey), { happenedAtMs, reason }) > 0 ? [movement.id] : [] }
      const event = pools.eventOf(movement.id)
      return { movementIds: event && event.reversesId === null ? reverseEvent(context, event.id, movement, { happenedAtMs, reason }) : [reverse(context, movement, happenedAtMs, reason)] }
    },
  }
}
export type LedgerService = ReturnType<typeof createLedgerService>

/** Answers whether a movement was written by recording a bag. */
export const isBagEntry = (row: { kind: MovementKind; fromKind: string; toKind: string }): boolean => row.kind === 'dead-in-bag' || (row.kind === 'arrive' && row.toKind === 'bag')
