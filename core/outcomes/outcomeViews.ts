import type { SupplierMoney } from './moneyFigures'
import type { SheetFigure } from './monthlyFigures'
import type { RankedGroup } from './shrinkRank'
import type { LossAlarm } from './lossAlarmState'

/** What losses look like, in words: what speaks for and against, what to look at next. */
export interface HintsView {
  hints: { cause: string; word: 'points to' | 'fits'; for: string[]; against: string[] }[]
  lookNext: string[]
  /** Fish lost in the two weeks that were looked at. */
  lost: number
}

/** An alarm on losses of a water, a supplier or a species. */
export interface AlarmView extends Pick<LossAlarm, 'state' | 'sentence' | 'raisedOn' | 'since' | 'dead' | 'expected'> {
  /** `water:ID`, `supplier:NAME`, `species:NAME`. */
  stream: string
  kind: 'water' | 'supplier' | 'species'
  name: string
  /** Where it is dealt with. */
  to: string
  lookNext: string[]
}

export interface AlarmsView {
  /** Those that ring, and those that are watched. */
  alarms: AlarmView[]
  answered: { stream: string; on: string; found: string; by: string }[]
  outbreaks: { id: string; name: string; water: string; from: string; to: string }[]
}

/** A crate of a trial, as it was given and as it was done. */
export interface TrialCrateView {
  crateId: string
  number: number
  block: string
  school: string
  /** The school its fish began in; null where no run is known. */
  asDone: string | null
  isFollowed: boolean
  fish: number
}

export interface TrialView {
  id: string
  number: number
  schools: readonly [string, string]
  day: number
  cratesPerSchool: number
  looks: number
  /** Looks that were taken, with their words. */
  taken: { look: number | null; sentence: string; by: string; atMs: number }[]
  blocks: { block: string; used: number; of: number }[]
  crates: TrialCrateView[]
  done: readonly [number, number]
  state: 'running' | 'look due' | 'paused' | 'ended'
  /** How it stands; nothing is looked at before its time. */
  sentence: string
  /** The crate whose losses pause it. */
  pausedBy: string | null
  note: string | null
  startedAtMs: number
  /** By the schools as they were done; only once it has ended. */
  asDone: string | null
}

/** Two schools that nobody can tell apart yet, and what it would take. */
export interface TrialProposal {
  schools: readonly [string, string]
  words: string
}

export interface TrialsView {
  trials: TrialView[]
  proposal: TrialProposal | null
  schools: string[]
  suppliers: { name: string; cratesPerWeek: number; fishPerCrate: number }[]
  icc: number
}

/** What a trial says of one crate, before it takes part: the next of the schedule and no more. */
export interface TrialOfCrate {
  trialId: string
  number: number
  schools: readonly [string, string]
  block: string
  /** The school it was given; null while it has no place yet. */
  school: string | null
  next: string | null
  /** Why it cannot take part, before its bags are judged; null where it can. */
  whyNot: string | null
}

export interface MoneyView {
  suppliers: SupplierMoney[]
  total: SupplierMoney
}

/** The sheet of a month: its figures, and behind them ranks, alarms, the trial and what was measured. */
export interface ReviewView {
  month: string
  /** Months that have a sheet, the newest first. */
  months: string[]
  today: string
  figures: SheetFigure[]
  kept: { by: string; atMs: number } | null
  ranks: RankedGroup[]
  alarms: AlarmsView
  trial: string | null
  /** As this room has them, beside those the house goes by. */
  likeness: { measured: number; house: number; crates: number }
  dispersion: { measured: number | null; house: number }
}
