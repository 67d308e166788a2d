import type { TankKind } from '../room/room.schema'
import type { StockView } from '../ledger/stockView'
import type { TankFlag } from '../room/tankFlag'
import type { Ate, Sign } from './rounds.schema'

/** A check as a person reads it. */
export interface CheckView {
  type: 'check'
  id: string
  tankId: string
  roundOn: string
  roundNumber: number
  ate: Ate
  signs: Sign[]
  seen: number | null
  /** Fish the books held when the check was recorded. */
  expected: number
  note: string | null
  happenedAtMs: number
  recordedAtMs: number
  staffName: string
  /** Set when a later check corrects this one. */
  replacedById: string | null
}

/** One stop on the walk. */
export interface RoundStop {
  tankId: string
  code: string
  kind: TankKind
  systemName: string
  stock: StockView[]
  /** The newest check of this round; null while the tank is unchecked. */
  check: Pick<CheckView, 'id' | 'ate' | 'signs' | 'seen' | 'note' | 'staffName'> | null
  /** The newest check of an earlier round; null when there is none. */
  lastCheck: Pick<CheckView, 'ate' | 'signs' | 'happenedAtMs' | 'note'> | null
  flag: TankFlag | null
}

export interface RoundView {
  id: string
  on: string
  number: number
  /** The round that would be begun after it. */
  nextId: string
  /** Who recorded in it last, and when; null before its first check. */
  last: { atMs: number; staffId: string; staffName: string } | null
  /** Who left it before its end; null while it is walked. */
  left: { atMs: number; staffName: string } | null
  /** Who closed it, whatever was not checked; null while it is open. */
  closed: { atMs: number; staffName: string } | null
  stops: RoundStop[]
  emptyTanks: string[]
}

/** Id of a check that this device has taken but the server has not answered for. */
export const pendingCheckId = 'pending'

/** Answers whether a check has anything in it that somebody should read. */
export const isQuiet = (check: Pick<CheckView, 'ate' | 'signs' | 'seen' | 'note'>): boolean =>
  check.ate === 'all' && check.signs.length === 0 && check.seen === null && !check.note
