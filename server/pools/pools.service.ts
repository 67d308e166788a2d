import { outsidePlaceId } from '../../core/ledger/movement'
import { addBack, expectAtLeast, takeOut, type About, type Attributed, type NotAttributed, type PooledLot } from '../../core/pools/attribute'
import { lotDays } from '../../core/pools/lotAge'
import { foundAgain, foundAgainReason } from '../../core/pools/foundAgain'
import { millionthsPerFish, shareOut } from '../../core/pools/shareOut'
import type { CommandContext } from '../http/endpoint'
import { Problem } from '../http/problem'
import type { Entry, WriteEntry } from '../ledger/entries'
import { newId } from '../newId'
import type { Going } from '../placing/placing.service'
import type { Kind, LotInPool, PoolsStore, ShareRow } from './pools.store'

/** Reason of the corrections that put a fish right which the books had with the wrong lot; no count, and no death. */
export const reattributed = 're-attributed'

/** Fish of a kind in a place, and what somebody knows of which they were. */
export interface OfPool {
  placeId: string
  kind: Kind
  /** Lots they can only have been of; none means that nobody knows. */
  among: readonly string[]
  weightOf?: About['weightOf'] | undefined
}

export interface Planned {
  placeId: string
  lots: LotInPool[]
  done: Attributed
}

/** What is written of an event beside its lots and places. */
export type EventEntry = Omit<Entry, 'lotId' | 'quantity' | 'fromPlaceId' | 'toPlaceId' | 'reversesId'>

type WrittenOffFish = ReturnType<PoolsStore['writtenOff']>[number]

interface Collaborators {
  store: PoolsStore
  write: WriteEntry
  zone: () => string
}

/** Fish that stand together in several lots: what happened to them, in both books. Every function runs inside the transaction of its command. */
export function createPoolsService({ store, write, zone }: Collaborators) {
  const pooled = (lots: readonly LotInPool[], nowMs: number): PooledLot[] => lots.map((lot) => ({ lot: lot.code, booked: lot.booked, expected: lot.expected, days: lotDays(lot, nowMs, zone()) }))

  function planned({ placeId, kind, among, weightOf }: OfPool, atMs: number, plan: (lots: readonly PooledLot[], about: About) => Attributed | NotAttributed): Planned | NotAttributed {
    const lots = store.lotsOf(placeId, kind)
    const named = among.flatMap((id) => lots.find(({ lotId }) => lotId === id)?.code ?? [])
    if (among.length > 0 && named.length === 0) return { ok: false, problem: 'no such lot', available: 0 }
    const done = plan(pooled(lots, atMs), { among: named, weightOf })
    return done.ok ? { placeId, lots, done } : done
  }

  /** Writes an event: its movements, and its shares where it is one of a pool. Returns the movements that are no swaps. */
  function book(context: CommandContext, { placeId, lots, done }: Planned, entry: EventEntry, way: { toPlaceId: string } | { fromPlaceId: string }): string[] {
    const isOut = 'toPlaceId' in way
    const idOf = (code: string): string => lots.find((lot) => lot.code === code)?.lotId ?? ''
    const places = isOut ? { fromPlaceId: placeId, toPlaceId: way.toPlaceId } : { fromPlaceId: way.fromPlaceId, toPlaceId: placeId }
    const move = (): string[] => done.movements.map(({ lot, quantity }) => write(context, { ...entry, ...places, lotId: idOf(lot), quantity }))
    if (lots.length === 1) return move()

    const eventId = begin(context, done.how, null)
    const sign = isOut ? -1 : 1
    const shareOf = (code: string): number => done.shares.find(({ lot }) => lot === code)?.millionths ?? 0
    const here = done.after.map(({ lot, booked, expected }): ShareRow => {
      const before = lots.find(({ code }) => code === lot)
      return { eventId, placeId, lotId: idOf(lot), booked: booked - (before?.booked ?? 0), share: sign * shareOf(lot), expected: expected - (before?.expected ?? 0) }
    })
    // Where fish go the shares stand first, where they come the movements: neither book passes below zero on the way.
    if (isOut) insertShares(here)
    for (const { from, to } of done.swaps) swap(context, eventId, placeId, idOf(from), idOf(to), entry.happenedAtMs)
    const movementIds = move()
    for (const id of movementIds) store.insertMovement(eventId, id, false)
    if (!isOut) insertShares(here)
    if (isOut && store.isKept(places.toPlaceId)) insertShares(done.after.map(({ lot }): ShareRow => ({ eventId, placeId: places.toPlaceId, lotId: idOf(lot), booked: done.movements.find((each) => each.lot === lot)?.quantity ?? 0, share: shareOf(lot), expected: shareOf(lot) })))
    return movementIds
  }

  function begin({ key, nowMs }: CommandContext, how: Attributed['how'], reversesId: string | null): string {
    const id = newId()
    store.insertEvent({ id, how, reversesId, commandKey: key, recordedAtMs: nowMs })
    return id
  }

  const isOneKind = (lots: readonly { lotId: string }[]): boolean => new Set(lots.map(({ lotId }) => JSON.stringify(store.kindOf(lotId)))).size < 2

  const insertShares = (rows: readonly ShareRow[]): void => rows.filter(({ booked, share, expected }) => booked !== 0 || share !== 0 || expected !== 0).forEach(store.insertShare)

  function swap(context: CommandContext, eventId: string, placeId: string, from: string, to: string, happenedAtMs: number): void {
    const correction = { kind: 'count-correction', quantity: 1, reason: reattributed, happenedAtMs } as const
    store.insertMovement(eventId, write(context, { ...correction, lotId: from, fromPlaceId: placeId, toPlaceId: outsidePlaceId }), true)
    store.insertMovement(eventId, write(context, { ...correction, lotId: to, fromPlaceId: outsidePlaceId, toPlaceId: placeId }), true)
  }

  return {
    book,
    eventOf: store.eventOf,
    isReversed: store.isReversed,
    /** Movements of an event that are no swaps, in the order of recording. */
    movementsOf: (eventId: string) => store.movementsOf(eventId).filter(({ isSwap }) => isSwap === 0).map(({ movement }) => movement),
    kindOf: store.kindOf,
    lotsOf: store.lotsOf,

    /** Which fish are taken out of a pool, or why none can be. */
    planOut: (of: OfPool & { quantity: number }, atMs: number) => planned(of, atMs, (lots, about) => takeOut(lots, of.quantity, about)),

    /** Which fish are added to a pool that was counted to hold more. */
    planBack: (of: OfPool & { quantity: number }, atMs: number) => planned(of, atMs, (lots, { among }) => addBack(lots, of.quantity, among)),

    /**
     * Writes a movement of a lot that somebody named. Where fewer are to be expected of it than are taken, what is seen
     * outweighs that: the others of its pool were fewer than thought.
     */
    writeNamed(context: CommandContext, entry: Entry): string {
      const { fromPlaceId, lotId, quantity } = entry
      if (fromPlaceId !== outsidePlaceId && store.isKept(fromPlaceId) && store.expected(fromPlaceId, lotId) < quantity * millionthsPerFish) believe(context, fromPlaceId, lotId, quantity)
      return write(context, entry)
    },

    /** Ends what is only to be expected of a lot before it is called something else: it leaves its pools with the fish that are booked. */
    settle(context: CommandContext, lotId: string): void {
      for (const { placeId, booked } of store.placesOf(lotId)) believe(context, placeId, lotId, booked, true)
    },

    /**
     * Books fish that came to light after they were written off in a place: to the lots they were taken to be then.
     * @param happenedAtMs - null: when each was missed, as it has been alive ever since.
     * @returns the corrections, or how many may be found at most.
     */
    findAgain(context: CommandContext, { placeId, kind, quantity }: Omit<OfPool, 'among'> & { quantity: number }, happenedAtMs: number | null): string[] | { most: number } {
      const losses = store.writtenOff(placeId, kind)
      const { isPossible, most, takes } = foundAgain(losses, 'kind', quantity, placeId)
      return isPossible ? comeBack(context, placeId, takes.map(({ loss, n }) => ({ loss: losses.find(({ id }) => id === loss) as WrittenOffFish, quantity: n })), happenedAtMs) : { most }
    },

    /** Fish of a kind that were written off in a place and may come to light. */
    missing: (placeId: string, kind: Kind): number => foundAgain(store.writtenOff(placeId, kind), 'kind', Infinity, placeId).most,

    /** Takes all of an event back: its movements, swaps and shares, exactly. */
    reverseEvent,
  }

  /** So many fish of a lot, at least or no more, were there: what is to be expected of the others of its pool makes up for it. */
  function believe(context: CommandContext, placeId: string, lotId: string, fish: number, isExact = false): void {
    const kind = store.kindOf(lotId)
    const after = kind && expectAtLeast(pooled(store.lotsOf(placeId, kind), context.nowMs), store.codeOf(lotId), fish * millionthsPerFish, isExact)
    if (!kind || !after) return
    const eventId = begin(context, 'seen', null)
    insertShares(store.lotsOf(placeId, kind).map(({ lotId: id, code, expected }): ShareRow => ({ eventId, placeId, lotId: id, booked: 0, share: 0, expected: (after.find(({ lot }) => lot === code)?.expected ?? 0) - expected })))
  }

  /** Some fish of these losses stand there again: what they counted for in each lot counts no more, as far as they go. One event, taken back as one. */
  function comeBack(context: CommandContext, placeId: string, takes: readonly { loss: WrittenOffFish; quantity: number }[], happenedAtMs: number | null): string[] {
    const movementIds = takes.map(({ loss, quantity }) => {
      const movementId = write(context, { kind: 'count-correction', reason: foundAgainReason, lotId: loss.lotId, quantity, fromPlaceId: outsidePlaceId, toPlaceId: placeId, happenedAtMs: happenedAtMs ?? loss.at })
      store.insertFound({ movementId, lossId: loss.id, quantity })
      return movementId
    })
    const rows = new Map<string, { booked: number; share: number }>()
    const add = (lotId: string, booked: number, share: number): void => void rows.set(lotId, { booked: (rows.get(lotId)?.booked ?? 0) + booked, share: (rows.get(lotId)?.share ?? 0) + share })
    for (const { loss, quantity } of takes) {
      const lots = loss.eventId === null ? [] : store.sharesOf(loss.eventId).filter((each) => each.placeId === placeId && each.share < 0)
      const isShared = lots.length > 1 && isOneKind(lots)
      const shares = isShared ? shareOut(quantity * millionthsPerFish, lots.map(({ share }) => ({ weight: -share }))) : []
      add(loss.lotId, quantity, isShared ? 0 : quantity * millionthsPerFish)
      if (isShared) lots.forEach(({ lotId }, index) => add(lotId, 0, shares[index] ?? 0))
    }
    if (movementIds.length < 2 && rows.size < 2) return movementIds
    const eventId = begin(context, 'attributed', null)
    insertShares([...rows].map(([lotId, { booked, share }]): ShareRow => ({ eventId, placeId, lotId, booked, share, expected: share })))
    for (const id of movementIds) store.insertMovement(eventId, id, false)
    return movementIds
  }

  function reverseEvent(context: CommandContext, eventId: string, back: { happenedAtMs: number; reason: string | null }, refuse: (inTheWay: string | null) => Problem): string[] {
    if (store.isReversed(eventId)) throw new Problem('conflict', 'This was taken back already')
    const [movements, shares] = [store.movementsOf(eventId), store.sharesOf(eventId)]
    if (!isOneKind(shares)) throw new Problem('conflict', 'These fish were taken for one kind then, and are known to be several now; correct the count instead')
    const reversalId = begin(context, store.eventOf(movements[0]?.movement.id ?? '')?.how ?? 'seen', eventId)
    for (const { placeId, lotId, expected } of shares)
      if (expected > 0 && store.expected(placeId, lotId) < expected) throw refuse(store.newestOut(placeId, lotId))
    const backwards = shares.map((row): ShareRow => ({ ...row, eventId: reversalId, booked: -row.booked, share: -row.share, expected: -row.expected }))
    const cameTo = new Set(movements.filter(({ isSwap }) => isSwap === 0).map(({ movement }) => movement.toPlaceId))
    insertShares(backwards.filter(({ placeId }) => cameTo.has(placeId)))
    const written = [...movements].reverse().map(({ movement, isSwap }) => {
      const { id, lotId, fromPlaceId, toPlaceId, quantity } = movement
      const reversal = write(context, { kind: 'reversal', lotId, fromPlaceId: toPlaceId, toPlaceId: fromPlaceId, quantity, reversesId: id, ...back })
      store.insertMovement(reversalId, reversal, isSwap === 1)
      return { reversal, isSwap }
    })
    insertShares(backwards.filter(({ placeId }) => !cameTo.has(placeId)))
    return written.filter(({ isSwap }) => isSwap === 0).map(({ reversal }) => reversal)
  }
}
export type PoolsService = ReturnType<typeof createPoolsService>

/** Fish that go, as a gate is asked: those the books take them to be, and each of the others that they may be. */
export function goingOf({ placeId, lots, done }: Planned): Going[][] {
  const idOf = (code: string): string => lots.find((lot) => lot.code === code)?.lotId ?? ''
  const quantity = done.movements.reduce((sum, each) => sum + each.quantity, 0)
  const others = done.shares.filter(({ lot }) => !done.movements.some((each) => each.lot === lot))
  return [done.movements.map((each) => ({ lotId: idOf(each.lot), quantity: each.quantity, fromPlaceId: placeId })), ...others.map(({ lot }) => [{ lotId: idOf(lot), quantity, fromPlaceId: placeId }])]
}
