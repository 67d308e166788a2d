import { outsidePlaceId } from '../ledger/movement'
import type { Exit } from './lossRow'
import { dust } from './outcomeRules'

/** A movement of the ledger as counting time needs it. */
export interface LossMovement {
  seq: number
  id: string
  kind: 'arrive' | 'born' | 'dead-in-bag' | 'move' | 'loss' | 'release' | 'count-correction' | 'reversal'
  lot: string
  from: string
  to: string
  quantity: number
  /** Calendar day in the room. */
  on: string
  cause?: string | null
  /** The movement that this one takes back. */
  reverses?: string | null
  /** Whose fish a loss was taken to be: shares of its quantity, 1 in all. Missing: its own lot's. */
  shares?: readonly { lot: string; share: number }[]
  /** What a death looked like, where it is to be told apart. */
  pattern?: string
}

export interface LossLot {
  lot: string
  crate: string | null
  entry: 'crate' | 'born' | 'brought in'
}

/** Exits of a day, the deaths by pattern where movements say one. */
export interface RiskExit extends Exit {
  kinds?: Record<string, number>
}

/** A lot as figures follow it from its opening. */
export interface RiskLot {
  lot: string
  crate: string
  opened: string
  received: number
  deadInBag: number
  /** Alive at opening. */
  n: number
  out: RiskExit[]
  until: number
  left: number
  /** Deaths of it that are fish not found, fish of it gone at a count, and deaths of it that were attributed. */
  missing: number
  corrected: number
  shared: number
}

export interface RiskSets {
  lots: RiskLot[]
  /** Lots that were here before the books: nobody knows their first day. */
  notFollowed: string[]
  /** Fish that went although none were left. */
  unmatched: number
  table: { day: number; atRisk: number; dead: number; gone: number }[]
}

/** Calendar days as numbers: a ledger names the same few thousand again and again. */
const numbers = new Map<string, number>()
function dayNumber(on: string): number {
  const known = numbers.get(on)
  if (known !== undefined) return known
  const number = Math.round(Date.parse(on) / 86_400_000)
  numbers.set(on, number)
  return number
}

/** One thing that took fish of a lot out of sight. */
interface Leaving {
  day: number
  seq: number
  fish: number
  isDead: boolean
  isMissing: boolean
  isShared: boolean
  isCorrection: boolean
  pattern: string | undefined
}

interface Followed {
  lot: LossLot
  opened: string
  openedDay: number
  lastWatched: string | null
  received: number
  deadInBag: number
  /** Found to have been there all along. */
  found: number
  booked: number
  leavings: Leaving[]
}

/** A loss whose fish may come back at a later count. */
interface OpenLoss {
  movement: LossMovement
  fish: number
}

/**
 * Turns the ledger into what figures are made of: for each lot when its fish died or went out of sight, counted in days since
 * its opening. Moves change nothing; what was reversed never was. Source: docs/outcomes.md.
 * @param unwatched - places nobody looks at daily: fish taken there are out of sight for good.
 */
export function riskSets({ today, unwatched = [], lots, movements }: { today: string; unwatched?: readonly string[]; lots: readonly LossLot[]; movements: readonly LossMovement[] }): RiskSets {
  const away = new Set(unwatched)
  const standing = standingOf(movements, today)
  const followed = openedLots(lots, standing)
  const losses: OpenLoss[] = []
  for (const movement of standing) record(movement, followed, away, losses)
  for (const loss of losses) spread(loss, followed)
  let unmatched = 0
  const rows = [...followed.values()].map((each) => {
    const { row, tooMany } = follow(each, today)
    unmatched += tooMany
    return row
  })
  const byId = (one: string, other: string): number => (one < other ? -1 : one > other ? 1 : 0)
  rows.sort((one, other) => byId(one.lot, other.lot))
  return { lots: rows, notFollowed: lots.filter(({ entry }) => entry === 'brought in').map(({ lot }) => lot).sort(byId), unmatched: unmatched < dust ? 0 : unmatched, table: tableOf(rows) }
}

function standingOf(movements: readonly LossMovement[], today: string): LossMovement[] {
  const reversed = new Set(movements.flatMap(({ kind, reverses }) => (kind === 'reversal' && reverses ? [reverses] : [])))
  return movements.filter(({ id, kind, on }) => kind !== 'reversal' && !reversed.has(id) && on <= today).sort((one, other) => one.seq - other.seq)
}

function openedLots(lots: readonly LossLot[], standing: readonly LossMovement[]): Map<string, Followed> {
  const opened = new Map<string, string>()
  for (const { kind, lot, on } of standing) if ((kind === 'arrive' || kind === 'born') && on < (opened.get(lot) ?? '9999')) opened.set(lot, on)
  return new Map(
    lots.flatMap((lot) => {
      const on = opened.get(lot.lot)
      if (lot.entry === 'brought in' || on === undefined) return []
      return [[lot.lot, { lot, opened: on, openedDay: dayNumber(on), lastWatched: null, received: 0, deadInBag: 0, found: 0, booked: 0, leavings: [] } satisfies Followed]] as const
    }),
  )
}

function record(movement: LossMovement, followed: ReadonlyMap<string, Followed>, away: ReadonlySet<string>, losses: OpenLoss[]): void {
  const { kind, lot, from, to, quantity, on } = movement
  const own = followed.get(lot)
  if (own) own.booked += (to === outsidePlaceId ? 0 : quantity) - (from === outsidePlaceId ? 0 : quantity)
  if (away.has(from)) return
  if (kind === 'loss') losses.push({ movement, fish: quantity })
  if (!own) return
  if (from !== outsidePlaceId && (own.lastWatched === null || on > own.lastWatched)) own.lastWatched = on
  const leave = (isCorrection: boolean): void => void own.leavings.push(leaving(movement, own, quantity, { isDead: false, isShared: false, isCorrection }))
  if (kind === 'arrive' || kind === 'born') own.received += quantity
  else if (kind === 'dead-in-bag') own.deadInBag += quantity
  else if (kind === 'release' || (kind === 'move' && away.has(to))) leave(false)
  else if (kind === 'count-correction' && to === outsidePlaceId) leave(true)
  else if (kind === 'count-correction' && !away.has(to)) own.found += takenBack(lot, quantity, losses)
}

/** Fish counted again are first those of its own losses that were not found, the newest first; the rest was always there. */
function takenBack(lot: string, quantity: number, losses: readonly OpenLoss[]): number {
  let rest = quantity
  for (let at = losses.length - 1; at >= 0 && rest > 0; at -= 1) {
    const loss = losses[at] as OpenLoss
    if (loss.movement.lot !== lot || loss.movement.cause !== 'not found') continue
    const back = Math.min(rest, loss.fish)
    loss.fish -= back
    rest -= back
  }
  return rest
}

const leaving = ({ seq, on, cause, pattern }: LossMovement, { openedDay }: Followed, fish: number, { isDead, isShared, isCorrection }: Pick<Leaving, 'isDead' | 'isShared' | 'isCorrection'>): Leaving => ({ day: Math.max(0, dayNumber(on) - openedDay), seq, fish, isDead, isMissing: isDead && cause === 'not found', isShared, isCorrection, pattern })

/** Puts a loss on the lots whose fish it was taken to be, each at its own day. */
function spread({ movement, fish }: OpenLoss, followed: ReadonlyMap<string, Followed>): void {
  if (fish <= 0) return
  const isShared = movement.shares !== undefined && movement.shares.length > 0
  for (const { lot, share } of isShared ? (movement.shares ?? []) : [{ lot: movement.lot, share: 1 }]) {
    const own = followed.get(lot)
    own?.leavings.push(leaving(movement, own, fish * share, { isDead: true, isShared, isCorrection: false }))
  }
}

/** Walks a lot day by day: it can lose no more than it has left, the dead first. */
function follow(own: Followed, today: string): { row: RiskLot; tooMany: number } {
  const n = Math.max(0, own.received - own.deadInBag + own.found)
  let [left, tooMany, missing, shared, corrected] = [n, 0, 0, 0, 0]
  const days = new Map<number, RiskExit>()
  for (const each of own.leavings.sort((one, other) => one.day - other.day || Number(other.isDead) - Number(one.isDead) || one.seq - other.seq)) {
    const fits = Math.min(each.fish, left)
    left -= fits
    tooMany += each.fish - fits
    if (each.isMissing) missing += fits
    if (each.isShared) shared += fits
    if (each.isCorrection) corrected += each.fish
    if (fits < dust) continue
    const day = days.get(each.day) ?? { day: each.day, dead: 0, gone: 0 }
    if (day.dead + day.gone === 0) days.set(each.day, day)
    if (!each.isDead) day.gone += fits
    else {
      day.dead += fits
      if (each.pattern !== undefined) day.kinds = { ...day.kinds, [each.pattern]: (day.kinds?.[each.pattern] ?? 0) + fits }
    }
  }
  const out = [...days.values()]
  const lastDay = Math.max(0, dayNumber(own.booked > 0 ? today : (own.lastWatched ?? own.opened)) - own.openedDay, out.at(-1)?.day ?? 0)
  const row = { lot: own.lot.lot, crate: own.lot.crate ?? own.lot.lot, opened: own.opened, received: own.received, deadInBag: own.deadInBag, n, out, until: lastDay, left: left < dust ? 0 : left, missing, corrected, shared }
  return { row, tooMany }
}

function tableOf(rows: readonly RiskLot[]): RiskSets['table'] {
  const days = new Map<number, { dead: number; gone: number }>()
  const add = (day: number, dead: number, gone: number): void => void days.set(day, { dead: (days.get(day)?.dead ?? 0) + dead, gone: (days.get(day)?.gone ?? 0) + gone })
  for (const { out, until, left } of rows) {
    for (const { day, dead, gone } of out) add(day, dead, gone)
    if (left > 0) add(until, 0, left)
  }
  let atRisk = rows.reduce((sum, { n }) => sum + n, 0)
  return [...days].sort(([one], [other]) => one - other).map(([day, { dead, gone }]) => {
    const row = { day, atRisk, dead, gone }
    atRisk -= dead + gone
    return row
  })
}
