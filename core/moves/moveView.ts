import type { VesselKind } from '../vessels/vessels.schema'
import type { CatchCard } from './catchCard'
import type { MoveRuleChanges } from './houseMoveRules'
import type { MoveChecked } from './moveCheck'
import type { StandKind } from './moves.schema'
import type { MoveRules } from './moveRules'
import type { MoveLine } from './moveWords'
import type { VesselBinds } from './vesselLimit'

/** What speaks against a move, before the fish are netted. */
export interface MoveCheckView {
  verdict: MoveChecked['verdict']
  /** One line a code, the gravest first. */
  lines: MoveLine[]
  points: number
  looks: MoveChecked['looks']
  /** Whether a plan is to be made of how they come in, as the residents defend their place. */
  needsIntroduction: boolean
}

/** A place where fish may go, and what the check says of it. */
export interface MoveChoice {
  kind: StandKind
  id: string
  code: string
  verdict: MoveChecked['verdict']
  points: number
  /** The gravest thing that speaks against it; null where nothing does. */
  words: string | null
  /** Fish that stand there, and who they mostly are. */
  fish: number
  label: string | null
}

/** With what fish of one kind are caught out of a tank today. */
export interface CatchView extends CatchCard {
  species: string
  want: number
  liftsToday: number
  /** Lifts of today that can be taken back, the newest last. */
  liftIds: string[]
  /** Names of what was not known, and was therefore not reckoned with. */
  unknown: string[]
}

/** Fish of one kind in a vessel. */
export interface InVessel {
  speciesId: string
  species: string
  strain: string | null
  lotIds: string[]
  quantity: number
}

/** A bucket or a box as it stands now. */
export interface VesselView {
  id: string
  name: string
  kind: VesselKind
  litres: number
  hasAir: boolean
  /** The tank whose water it has; null while it is empty, or once fish of another water came in. */
  tank: { id: string; code: string } | null
  fish: InVessel[]
  /** When the first of these fish came in; null while it is empty. */
  sinceMs: number | null
  /** Until when it bears them, and what makes it so; null while it is empty. */
  limit: { watchAtMs: number; actAtMs: number; binds: VesselBinds } | null
}

export interface MoveRulesView {
  shipped: MoveRules
  changes: MoveRuleChanges
  version: number
  changedBy: string | null
  changedAtMs: number | null
}
