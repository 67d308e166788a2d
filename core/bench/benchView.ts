import type { LookAfter } from './expectedCourse'
import type { Handling } from '../species/handling'
import type { BrokenRule } from '../tankChoice/company'
import type { DeliveryFacts } from './deliveryOf'
import type { BagWords, FigureSource } from './bagFigures'
import type { RunRecord } from './runRecord'
import type { Agent } from './specialRuns'

/** Fish that a run began with, and how many of them still stand where it has them. */
export interface RunSource {
  placeId: string
  lotId: string
  lotCode: string
  species: string
  /** Number of the bag, or code of the tank. */
  from: string
  quantity: number
  /** So many of the kind, whichever lot they are. */
  isOfKind?: boolean
}

export interface RecheckView {
  id: string
  runId: string
  runNumber: number
  species: string
  /** Tanks in which the fish of the run stand by now, wherever they went since. */
  tankCodes: string[]
  label: string
  usual: string
  dueAtMs: number
  doneAtMs: number | null
  doneBy: string | null
  look: LookAfter | null
  note: string | null
}

/** One run of the bench, with everything its clocks need: any device computes the same from it. */
export interface RunView extends RunRecord {
  number: number
  crate: { id: string; number: number } | null
  tank: { id: string; code: string } | null
  toOutside: string | null
  sources: RunSource[]
  /** Fish that stand in its bags or vessel now, by lot. */
  standing: { lotId: string; species: string; lotCode: string; quantity: number; handling: Handling }[]
  /** How many of them stand in its vessel. */
  inVessel: number
  startedBy: string
  /** When the fish were counted into their tank; null before. */
  outAtMs: number | null
  look: LookAfter | null
  countedAlive: number | null
  countedDead: number | null
  /** Null while it is open. */
  endedAtMs: number | null
  /** How it ended, in words; null when it went its way. */
  outcome: string | null
  /** Bag water that went into the tank, where the school says so. */
  load: { litres: number; tanMgL: number } | null
}

export interface AirlineView {
  id: string
  name: string
  dropsPerMl: number
  calibratedAtMs: number
  by: string
}

/** Fish of one line that still stand in their bags, opened or shut, and on no run. */
export interface WaitingLine {
  crateId: string
  crateNumber: number
  lineId: string
  species: string
  bags: number
  /** How many of them are still shut. */
  shut: number
  fish: number
  tankCode: string | null
  packedAtMs: number | null
}

export interface BenchView {
  /** Open runs, oldest first, then those that ended in the last day. */
  runs: RunView[]
  rechecks: RecheckView[]
  waiting: WaitingLine[]
  airlines: AirlineView[]
}

/** A figure with where it comes from. */
export interface KnownFigure {
  value: number
  from: FigureSource
}

/** What the books know of some fish and the tank they are to go to: nobody types it twice. */
export interface BenchSubject extends DeliveryFacts {
  title: string
  crate: { id: string; number: number } | null
  /** Lines of the crate that share the vessel; none for fish of a tank. */
  lineIds: string[]
  /** Other lines whose opened bags go to the same tank and could share the vessel. */
  company: { lineId: string; species: string; bags: number; fish: number }[]
  tank: { id: string; code: string; netVolumeL: number | null } | null
  /** Rules that they would break in that tank and that nobody overruled. */
  against: BrokenRule[]
  sources: RunSource[]
  figures: Record<string, KnownFigure>
  words: BagWords
  temperament: string | null
  agents: Agent[]
}
