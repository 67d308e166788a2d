import type { Limits } from '../limits/houseLimits'
import type { Booking } from './bookings'
import type { TankPurpose, TankState, Water } from '../room/room.schema'

/** What choosing a tank needs to know of a kind of animal. Null, or left out, is "not known", and what is not known forbids nothing. */
export interface Animal {
  species: string
  /** Water it is usually traded in; counts where the book does not list its waters. */
  water: Water | null
  /** Every water it lives in. */
  waters?: readonly string[]
  /** fish, shrimp, snail and so on. */
  animal: string | null
  /** Present size of one, cm; null counts as grown. */
  sizeCm: number | null
  /** How long it is at least for whoever would eat it, cm, where that is less than its size. */
  asPreyCm?: number | null
  adultCm: number | null
  /** Longest animal that an adult swallows, cm. */
  swallowsCm: number | null
  /** Weight of one, g. */
  massG: number | null
  /** Kept at least so many together. */
  groupMin: number | null
  temperament: string | null
  /** What it bears in no case: of its surroundings, and agents that the book forbids. */
  sensitivities: readonly string[]
  /** Agents that it bears with care only. */
  withCare?: readonly string[]
  /** Words of the species book (core/species/speciesWords.ts). */
  eats?: readonly string[]
  ownKind?: string | null
  company?: string | null
  fins?: string | null
  breeds?: string | null
  poisons?: string | null
  hardness?: string | null
  phMin?: number | null
  phMax?: number | null
  tempCMin: number | null
  tempCMax: number | null
  salinityPptMin: number | null
  salinityPptMax: number | null
  minTankL: number | null
}

/** Fish of one line of a crate, or of one lot, that go into a tank. */
export interface ChoiceLine {
  id: string
  animal: Animal
  count: number
  supplier: string
  /** The body of water in which they stand already; left out where they come from outside. */
  fromWaterId?: string
}

/** Fish that stand in a tank already, or that another plan brings there. */
export interface Occupant {
  animal: Animal
  quantity: number
  supplier: string
  lotId?: string
  /** Days of a running hold that it has served; null when it is not held. */
  heldDays: number | null
  /** Days that its hold loses if others come, to its tank or to its water; left out, all of them by water. Null where it loses none. */
  restart?: { by: 'tank' | 'water'; days: number } | null
  /** What brings them, where they do not stand there yet. */
  booked?: string
}

export interface ChoiceTank {
  id: string
  code: string
  /** The body of water: its system, or the tank itself where its water is its own. */
  waterId: string
  water: Water
  /** Water the system is kept at. */
  tempC: number | null
  salinityPpt: number | null
  ph?: number | null
  alkalinityMeqL?: number | null
  agents: readonly string[]
  zoneId: string | null
  netVolumeL: number | null
  purpose: TankPurpose | null
  state: TankState | null
  occupants: readonly Occupant[]
  /** Who counts on the tank: runs on the bench and lines of other crates (`bookingsOf`). Their fish stand among the occupants. */
  bookings?: readonly Booking[]
  /** How often fish were chased or eaten in this tank lately. */
  fights: number
  /** Pairs of kinds that fought somewhere, with how much that weighs in this tank (`fightWeight`). */
  fought?: readonly { a: string; b: string; weight: number }[]
  /** Sources that may not come to others on its water unless a lead says so: they have not lived together, and no pairing was passed. */
  unmet?: readonly { source: string; other: string; state: 'contact' | 'never' | 'pairing' | 'failed' }[]
}

export interface ChoiceInput {
  lines: readonly ChoiceLine[]
  tanks: readonly ChoiceTank[]
  /** Water the supplier ships in. */
  shipping: { tempC: number | null; salinityPpt: number | null }
  limits: Pick<Limits, 'stockGPerL' | 'openTankPoints' | 'sharePoints' | 'groupPoints' | 'restartPoints' | 'warmerPoints' | 'saltierPoints' | 'fightPoints' | 'zonePoints' | 'hospitalPoints' | 'purposePoints' | 'warningPoints'>
}

/** Tank of every line by the line's number in the input; null where it has none. */
export type Choice = readonly (number | null)[]

/** Points for leaving a line without a tank: more than anything else could ever cost, so that no line is left out to save points. */
export const homelessPoints = 10_000

/** Everything that tanks are chosen from, and what is chosen now. */
export interface ChoiceView {
  /** Number of the crate. */
  number: number
  input: ChoiceInput
  /** By line: its tank, its version, and why it was planned against a rule. */
  now: { lotId: string; tankId: string | null; version: number; override: string | null }[]
}

/** An answer on the way: the best choice so far, and how far it may be from the best there is. */
export interface ChoiceProgress {
  choice: Choice
  total: number
  /** Share of its points by which it may still fall; 0 is proven best. */
  gap: number
  elapsedMs: number
  isDone: boolean
}
