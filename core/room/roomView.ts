import type { MovementKind } from '../ledger/movement'
import type { How } from '../pools/attribute'
import type { StockView } from '../ledger/stockView'
import type { CheckView } from '../rounds/roundView'
import type { Sharing, TankKind, Water } from './room.schema'
import type { Booking } from '../tankChoice/bookings'
import type { JudgedStop } from '../rounds/roundView'
import type { TankFlag } from './tankFlag'

/** The hold of a tank that has longest to go: which day of how many today is, over all its phases. */
export interface HoldView {
  day: number
  of: number
}

export interface TankSummary {
  id: string
  code: string
  kind: TankKind
  systemId: string
  rack: string
  shelf: number
  position: number
  fish: number
  /** Species of the largest lot; null when empty. */
  mainSpecies: string | null
  speciesCount: number
  /** Who stands in it, the largest lot first. */
  lots: { code: string; species: string; origin: string; fish: number }[]
  /** What stands in its water that some animals do not bear. */
  agents: string[]
  /** What in it can send people to hospital; null when nothing does. */
  danger: 'venomous' | 'toxin' | null
  /** Null when no lot in it is held. */
  hold: HoldView | null
  /** Who counts on it: runs on the bench, lines of crates. */
  bookings: Booking[]
  isCheckedToday: boolean
  lastCheckAtMs: number | null
  flag: TankFlag | null
}

export interface SystemView {
  id: string
  name: string
  water: Water
  /** Null until somebody said; counts as one water then. */
  sharing: Sharing | null
  sumpL: number | null
}

export interface RoomView {
  name: string
  /** The day in the room. */
  on: string
  systems: SystemView[]
  tanks: TankSummary[]
}

/** A movement as a person reads it. */
export interface MovementView {
  type: 'movement'
  id: string
  kind: MovementKind
  quantity: number
  lotCode: string
  species: string
  from: string
  to: string
  /** Positive when fish came into the tank whose timeline this is. */
  change: number
  happenedAtMs: number
  recordedAtMs: number
  staffName: string
  /** Key of the command that wrote it; entries of one touch share it. */
  commandKey: string
  cause: string | null
  reason: string | null
  note: string | null
  /** Set when another movement took this one back. */
  reversedById: string | null
  reversesId: string | null
  /** The crate whose bag is behind it; null otherwise. */
  crate: { id: string; number: number } | null
  /** Why this cannot be taken back from here; null when it can. */
  fixedBecause: string | null
  /** Where fish left before their hold was over: on which day of it, and why. */
  shortfall: string | null
  /** Fish of it that somebody chose one by one, by sex and mark; null where nobody did. */
  chosen: string | null
  /** Where fish of several lots stood together: whose it was taken to be. Null where there was no doubt. */
  pool: PoolPart | null
}

/** A movement's part in what happened to fish that cannot be told apart. */
export interface PoolPart {
  eventId: string
  how: How
  /** It only puts a fish to the lot it is of. */
  isSwap: boolean
  /** What the event counts for in each lot, of all its fish; the largest first. */
  shares: { lotCode: string; share: number }[]
}

export type TimelineEntry = MovementView | CheckView

export interface MissingFish {
  speciesId: string
  species: string
  strain: string | null
  quantity: number
}

/** A note that hangs on the glass. */
export interface PinView {
  id: string
  words: string
  by: string
  atMs: number
}
export interface PhotoView {
  id: string
  by: string
  atMs: number
}
/** A tank on the same water. */
export interface Neighbour {
  id: string
  code: string
  fish: number
  species: string | null
  flag: TankFlag | null
}

/** Which entries of a story are shown. */
export const storyKinds = ['all', 'moves', 'losses', 'counts', 'looks'] as const
export type StoryKind = (typeof storyKinds)[number]

export interface TankView {
  id: string
  code: string
  kind: TankKind
  netVolumeL: number | null
  system: SystemView
  stock: StockView[]
  hold: HoldView | null
  bookings: Booking[]
  flag: TankFlag | null
  /** What the looks at it mean; null while no fish stand in it. */
  judged: JudgedStop | null
  /** The day in the room. */
  on: string
  isCheckedToday: boolean
  /** Fish that were written off here of late without being seen dead, and did not come to light yet. */
  missing: MissingFish[]
  timeline: TimelineEntry[]
  pins: PinView[]
  /** The newest first. */
  photos: PhotoView[]
  /** Tanks that hang on the same water. */
  neighbours: Neighbour[]
  /** Tools of its zone. */
  toolSets: string[]
  /** What stands in its water that some animals do not bear. */
  agents: string[]
  /** Whether the books go back further than these entries. */
  hasOlder: boolean
}
