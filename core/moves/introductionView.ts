import type { IntroductionPlan, IntroductionStep } from './introductionPlan'
import type { IntroductionEventKind, IntroductionState, LookLevel } from './introductionState'
import type { Newcomers } from './introductions.schema'
import type { MoveCheckView } from './moveView'

/** How newcomers would come in, and what speaks against their coming at all. */
export interface PlannedIntroduction {
  plan: IntroductionPlan
  /** One sentence each, why it is to go like this. */
  reasons: string[]
  check: MoveCheckView
  /** Kinds that stand there, for whoever knows which of them rules. */
  residents: { speciesId: string; name: string; quantity: number }[]
  newcomers: Newcomers
}

export interface IntroductionEntry {
  id: string
  kind: IntroductionEventKind | 'step'
  /** What it says, in a few words. */
  words: string
  stepIndex: number | null
  who: string | null
  level: LookLevel | null
  note: string | null
  atMs: number
  by: string
}

/** A step with its clock. */
export interface StepNow extends IntroductionStep {
  index: number
  words: string
  dueAtMs: number
  doneAtMs: number | null
}

/** An introduction as it stands now. */
export interface IntroductionView {
  id: string
  number: number
  tank: { id: string; code: string }
  from: { id: string; code: string }
  newcomers: Newcomers
  /** Kinds in the tank now that are no newcomers: any of them may be the bully. */
  residents: { speciesId: string; strain: string | null; name: string; quantity: number }[]
  plan: IntroductionPlan
  startedAtMs: number
  endedAtMs: number | null
  /** Ended by hand, and not by what was seen. */
  isGivenUp: boolean
  state: IntroductionState['state']
  boxes: { who: string; vesselId: string | null; vessel: string | null; dueAtMs: number }[]
  nextLookAtMs: number | null
  proposes: IntroductionState['proposes']
  /** Steps of the plan up to the looks; those are asked for by how it goes. */
  steps: StepNow[]
  /** Day of it that today is, from 1. */
  day: number
  entries: IntroductionEntry[]
}
