import type { RecheckView } from '../bench/benchView'
import type { OpenClaim } from '../crates/claim'
import type { Pending } from '../commands/pending'
import type { DueItem } from '../due/due'
import { tankTouches } from '../facts/tankTouches'
import { roundOfId } from '../rounds/roundId'
import type { JudgedStop } from '../rounds/roundView'
import type { CrateSummary } from '../crates/crateSummary'
import type { HoldDay } from '../holds/holdDay'

interface LotPlace {
  lotId: string
  lotCode: string
  species: string
  tankCode: string
  quantity: number
}

/** A lot in a tank with the day of its hold. */
export interface HeldLot extends LotPlace, HoldDay {}

/** A lot that has gone without a meal for longer than usual. */
export interface HungryLot extends LotPlace {
  forMs: number
  /** Nothing was eaten since it came into this tank. */
  isNew: boolean
  /** What to try next, with why; null where nothing is left to try. */
  tries: string | null
}

/** Fish of one lot lost from one tank lately. */
export interface RecentLoss extends LotPlace {
  /** Whether nobody knew of which lot they were. */
  isAttributed: boolean
  lastAtMs: number
  causes: string[]
  /** Dead, it poisons the water, and it died lately: an alarm for everything on that water. */
  isPoison: boolean
}

/** A run on the bench: what it wants now, and when. */
export interface RunOnToday {
  id: string
  number: number
  species: string
  words: string
  /** When its step is up; null for what a touch ends. */
  dueAtMs: number | null
  isForgotten: boolean
  isAlarm: boolean
}

/** Fish that a keeper alone put somewhere against a rule, because they were in distress; a lead has yet to look at it. */
export interface RescueView {
  /** Key of the command that did it. */
  key: string
  species: string
  tankCode: string
  rules: string
  reason: string
  staffName: string
  atMs: number
}

/** What the room has of the things that a first crate needs. */
export interface RoomCounts {
  tanks: number
  suppliers: number
  species: number
  crates: number
}

/** What this room needs now; every row names the place where it is dealt with. */
/** A tank that is not quiet. */
export interface RaisedTank {
  tankId: string
  code: string
  species: string
  level: 'watch' | 'act'
  /** The weightiest first. */
  reasons: string[]
  act: JudgedStop['act']
}

export interface TodayView {
  on: string
  counts: RoomCounts
  /** Crates that are on their way or not out of their bags yet, the most urgent first. */
  crates: CrateSummary[]
  /** What could not be worked out, by name; everything else on the page could. */
  broken: string[]
  /** Runs on the bench, the most urgent first. */
  runs: RunOnToday[]
  /** Rechecks that are due, and those of the last day in which fish looked worse. */
  rechecks: RecheckView[]
  /** Crates with losses that can still be claimed, the shortest time first. */
  claims: OpenClaim[]
  /** Tanks that call for somebody: those at act until they are looked at again, and those to be looked at again today. */
  raised: RaisedTank[]
  /** Stocked tanks nobody looked at today. */
  unchecked: { tankId: string; code: string }[]
  stockedTanks: number
  notEating: HungryLot[]
  losses: RecentLoss[]
  lossDays: number
  holds: HeldLot[]
  rescues: RescueView[]
  /** What has to be ready for crates that come within a day. */
  prepare: DueItem[]
  /** Fish in buckets and boxes, newcomers, plans, what was asked for and feeds, that want somebody within a day. */
  onTheWay: DueItem[]
}

/** Steps of a new room up to its first crate, in order. */
export const firstSteps = ['tanks', 'suppliers', 'species', 'crates'] as const
export type FirstStep = (typeof firstSteps)[number]

/** The first step that is still to do; null once the first crate is in the books. */
export const nextStep = (counts: RoomCounts): FirstStep | null => (counts.crates > 0 ? null : (firstSteps.find((step) => counts[step] === 0) ?? null))

/** Shows the day with the touches that wait on this device: tanks that were looked at just now wait for nobody. */
export function withPendingToday(today: TodayView, pending: readonly Pending[]): TodayView {
  const looked = new Set(tankTouches(pending).flatMap((touch) => (touch.command === 'recordCheck' && lookOn(touch.input) === today.on ? [touch.input.tankId] : [])))
  return looked.size === 0 ? today : { ...today, unchecked: today.unchecked.filter(({ tankId }) => !looked.has(tankId)) }
}

/** The day of the round a check belongs to. */
const lookOn = ({ roundId }: { roundId?: string }): string | null => (roundId === undefined ? null : (roundOfId(roundId)?.on ?? null))
