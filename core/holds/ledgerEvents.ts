import { minuteOf } from '../contacts/contact'
import { groupBy } from '../collections/groupBy'
import type { MovementKind, PlaceKind } from '../ledger/movement'
import type { Arrive, HoldEvent } from './holdEvents'
import { placeMark } from './holdRoom'

/** A movement of the ledger that was not taken back. */
export interface LedgerRow {
  id: string
  kind: MovementKind
  lotId: string
  /** The hold that fish of the lot begin as they come; null without one. */
  policyId: string | null
  from: { id: string; kind: PlaceKind }
  to: { id: string; kind: PlaceKind }
  quantity: number
  /** What happened to a pool of lots, of which this movement is part; null where the lot was known. */
  eventId: string | null
  isSwap: boolean
  happenedAtMs: number
  recordedAtMs: number
}
/** What an event of a pool changes of the fish to be expected of a lot in a place, in millionths. */
export interface PoolPart {
  eventId: string
  placeId: string
  lotId: string
  millionths: number
}
/** What a named lot told of the others that stood with it. */
export interface Learned {
  eventId: string
  place: { id: string; kind: PlaceKind }
  lotId: string
  millionths: number
  happenedAtMs: number
}
/** The hold that fish begin as they come. */
export interface Beginning {
  policy: string | null
  openedAtMs: number | null
}

/** A place as holds call it: a vessel by its mark, so that fish in it go on counting for the water they came from. */
export const heldPlace = ({ id, kind }: { id: string; kind: PlaceKind }): string => placeMark(id, kind === 'tank')
const standsWhere = ({ kind }: { kind: PlaceKind }): boolean => kind === 'tank' || kind === 'vessel'

/**
 * The ledger as holds are played by it. Fish begin with the bag they come out of, into a tank or a vessel; in their bags
 * they stand nowhere yet.
 * @param beginningOf - the hold of fish of a lot that come out of a bag, or by no crate.
 */
export function ledgerEvents(rows: readonly LedgerRow[], parts: readonly PoolPart[], beginningOf: (row: LedgerRow) => Beginning): HoldEvent[] {
  const known = rows.filter(({ eventId }) => eventId === null).flatMap((row) => flow(row, row.id, row.lotId, row.quantity, beginningOf))
  const byEvent = groupBy(rows.flatMap((row) => (row.eventId !== null && !row.isSwap ? [{ ...row, eventId: row.eventId }] : [])), ({ eventId }) => eventId)
  const partsOf = groupBy(parts, ({ eventId }) => eventId)
  return [...known, ...[...byEvent].flatMap(([eventId, [row]]) => (row ? poolFlows(row, partsOf.get(eventId) ?? [], beginningOf) : []))]
}

/** What the books learned of who stood where is a count. */
export const learnedEvents = (rows: readonly Learned[]): HoldEvent[] => rows.map(({ eventId, place, lotId, millionths, happenedAtMs }) => ({ kind: 'count', id: `${eventId}:${lotId}`, at: minuteOf(happenedAtMs), lot: lotId, tank: heldPlace(place), by: millionths / 1e6 }))

const timesOf = ({ happenedAtMs, recordedAtMs }: LedgerRow): { at: number; recordedAt: number } => ({ at: minuteOf(happenedAtMs), recordedAt: minuteOf(recordedAtMs) })

/** Fish of one lot that go from one place to another. */
function flow(row: LedgerRow, id: string, lot: string, n: number, beginningOf: (row: LedgerRow) => Beginning): HoldEvent[] {
  const { kind, from, to } = row
  const [times, tank] = [timesOf(row), heldPlace(standsWhere(to) ? to : from)]
  const isTakenBack = kind === 'reversal' && !(standsWhere(from) && standsWhere(to))
  if (kind === 'count-correction' || isTakenBack) return standsWhere(from) || standsWhere(to) ? [{ kind: 'count', id, ...times, lot, tank, by: standsWhere(to) ? n : -n }] : []
  if (!standsWhere(from)) {
    if (!standsWhere(to)) return []
    const { policy, openedAtMs } = beginningOf(row)
    const arrive: Arrive = { kind: 'arrive', id, ...times, lot, tank, n, policy }
    return [openedAtMs === null ? arrive : { ...arrive, openedAt: minuteOf(openedAtMs) }]
  }
  if (standsWhere(to)) return [{ kind: 'move', id, ...times, lot, from: heldPlace(from), to: heldPlace(to), n }]
  return [{ kind: kind === 'loss' ? 'loss' : 'leave', id, ...times, lot, tank, n }]
}

/**
 * What happened to a pool, for every lot with a share in it. Where more is expected of a lot than went, or less, the books
 * found out something: that is a count, and no fish moved by it.
 */
function poolFlows(row: LedgerRow, parts: readonly PoolPart[], beginningOf: (row: LedgerRow) => Beginning): HoldEvent[] {
  return [...groupBy(parts, ({ lotId }) => lotId)].flatMap(([lot, own]) => {
    const at = (placeId: string): number => own.filter((each) => each.placeId === placeId).reduce((sum, { millionths }) => sum + millionths, 0)
    const [went, came] = [-at(row.from.id) / 1e6, at(row.to.id) / 1e6]
    const id = `${row.eventId}:${lot}`
    if (!standsWhere(row.from)) return came === 0 ? [] : [{ kind: 'count', id, ...timesOf(row), lot, tank: heldPlace(row.to), by: came }]
    if (!standsWhere(row.to)) return went === 0 ? [] : went > 0 ? flow(row, id, lot, went, beginningOf) : [{ kind: 'count', id, ...timesOf(row), lot, tank: heldPlace(row.from), by: -went }]
    const learned = came - went
    return [...(learned === 0 ? [] : [{ kind: 'count' as const, id: `${id}:known`, ...timesOf(row), lot, tank: heldPlace(row.from), by: learned }]), ...(came > 0 ? flow(row, id, lot, came, beginningOf) : [])]
  })
}
