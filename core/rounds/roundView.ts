import type { TankKind } from '../room/room.schema'
import type { StockView } from '../ledger/stockView'
import type { TankFlag } from '../room/tankFlag'
import type { KindCount, Mark, OwnAnswer } from '../facts/facts'
import type { AskedChore } from '../chores/askedChore'
import type { ActProposal } from './actProposals'
import type { TankLevelName } from './levelReason'
import type { ProposedChange } from './actWords'
import type { AskedSign } from './signDecision'
import type { ToHospital } from './toHospital'
import type { RoundState } from './roundState'
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
  /** Lots that ate otherwise, and kinds that were counted. */
  answers: OwnAnswer[]
  counts: KindCount[]
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
  check: StopCheck | null
  /** The newest check of an earlier round; null when there is none. */
  lastCheck: Pick<CheckView, 'ate' | 'signs' | 'answers' | 'counts' | 'happenedAtMs' | 'note'> | null
  flag: TankFlag | null
  judged: JudgedStop
  /** Which part of a round that several walk it belongs to, from 1. */
  part: number
  /** What is done before it: hands washed, other tools; null where the walk goes straight on. */
  before: string | null
}

/** What was recorded of a tank in this round. */
export type StopCheck = Pick<CheckView, 'id' | 'ate' | 'signs' | 'answers' | 'counts' | 'seen' | 'note' | 'staffName'> & { marks: Mark[] }

/** What the looks at a tank mean, in words. */
export interface JudgedStop {
  state: RoundState
  level: TankLevelName
  /** Why it is not quiet, the weightiest first. */
  reasons: string[]
  /** What is proposed where somebody has to act. */
  act: { proposal: ActProposal; words: string }[]
  /** How much water is changed, where a change is proposed. */
  change: ProposedChange | null
  /** An empty hospital tank of the same water, and who would go there; null where none is proposed, or none is free. */
  hospital: ToHospital | null
  /** Signs that somebody decides about, or has. */
  signs: (AskedSign & { words: string })[]
  /** What was asked for here and is not done. */
  /** Work that comes round and is due here; of a whole system at the first of its tanks. */
  routine: { choreId: string; placeId: string; words: string }[]
  chores: (Pick<AskedChore, 'id' | 'kind' | 'byMs' | 'askedBy'> & { words: string })[]
  /** Signs that are no cause for worry yet, with until when. */
  usual: string[]
  /** What is looked at besides today. */
  asks: string[]
  /** Looks that the bench asks for after a run. */
  rechecks: string[]
  /** Kinds of which not all were seen, and lots that do not eat. */
  unseen: string[]
  hungry: string[]
  /** Notes that hang on the glass. */
  pins: string[]
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
  /** How many people share it. */
  people: number
  stops: RoundStop[]
  /** Why the walk goes this way, in a sentence. */
  why: string
  emptyTanks: string[]
}

/** Answers whether a check has anything in it that somebody should read. */
export const isQuiet = ({ ate, signs, answers, counts, seen, note }: Pick<CheckView, 'ate' | 'signs' | 'answers' | 'counts' | 'seen' | 'note'>): boolean => ate === 'all' && signs.length + answers.length + counts.length === 0 && seen === null && !note
