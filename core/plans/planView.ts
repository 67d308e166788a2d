import type { PlanStateName } from './planState'
import type { MovedFish } from '../moves/moves.schema'

/** Fish that are to be measured before a plan can go on. */
export interface ToMeasure {
  tankCode: string
  tankId: string
  speciesId: string
  strain: string | null
  species: string
}

/** Fish of one kind of a plan. */
export interface PlannedFish extends Pick<MovedFish, 'speciesId' | 'strain'> {
  name: string
  lotIds: string[]
  quantity: number
}

/** A move that waits, as it stands now. */
export interface PlanView {
  id: string
  number: number
  state: PlanStateName
  from: { id: string; code: string }
  to: { id: string; code: string }
  fish: PlannedFish[]
  takes: 'whole' | 'share'
  /** Whether all of what it waits for has to be so, or any of it. */
  join: 'all' | 'any'
  /** What it waits for, each in words. */
  facts: string[]
  /** What is not so yet, or in its way, each in words. */
  waits: string[]
  /** Fish that only a ruler can tell of. */
  measure: ToMeasure[]
  /** Tanks at which its readings are to be taken. */
  readAt: string[]
  /** Things that are counted, with how many there are; null where nobody ever counted. */
  things: { name: string; n: number; have: number | null }[]
  /** Others that wait for each other with it. */
  deadlock: string[]
  untilOn: string | null
  note: string | null
  madeBy: string
  madeAtMs: number
  /** When it ended, and by whom; null while it is open. */
  ended: { by: string; atMs: number } | null
}

export interface PlansView {
  plans: PlanView[]
}

/** What a plan can be told to wait for beside tanks and lengths. */
export interface PlanChoices {
  crates: { id: string; number: number; supplier: string }[]
  things: { name: string; have: number }[]
  plans: { id: string; number: number; words: string }[]
}
