import { catchCard, type Catching } from './moves/catchCard'
import { fightWeight, type Fight } from './moves/fightWeight'
import { introductionPlan, type Introducing } from './moves/introductionPlan'
import { introductionState, type IntroductionEvent } from './moves/introductionState'
import { standardLimits, type Limits } from './limits/houseLimits'
import type { MoveAsked } from './moves/move'
import { moveCheck } from './moves/moveCheck'
import { shippedMoveRules, type MoveRules } from './moves/moveRules'
import { vesselLimit, type StoodVessel } from './moves/vesselLimit'
import { indexContacts, type Recorded } from './contacts/contactIndex'
import { sourceMeetings } from './contacts/meetings'
import { toolState } from './contacts/toolState'
import { conditionState, type Asked } from './plans/conditionState'
import type { When } from './plans/planFacts'
import type { Plan } from './plans/plan'
import { planState } from './plans/planState'
import { sizeEstimate, type Measured } from './plans/sizeEstimate'
import { arrangeRack, type Arranging, type PlacedTank, type Rack } from './room/arrangeRack'
import { roomAsOf } from './room/roomAsOf'
import { traceContacts, type TraceQuestion } from './contacts/trace'

interface Overrides {
  rules?: Partial<MoveRules & Limits>
  limits?: Partial<Limits>
}
const rulesOf = ({ rules }: Overrides): MoveRules => ({ ...shippedMoveRules, ...rules })
const limitsOf = ({ rules, limits }: Overrides): Limits => ({ ...standardLimits, ...Object.fromEntries(Object.entries(rules ?? {}).filter(([key]) => key in standardLimits)), ...limits })

/** Contacts and moves, under the names of the specification (moves, 10). */
export const moveAcceptance = {
  contactTrace: ({ contacts, stays, clears, ...question }: Recorded & TraceQuestion) => traceContacts(indexContacts({ contacts, stays, clears }), question),
  sourceMeetings: ({ contacts, stays, clears, sources, from, to }: Recorded & { sources: Record<string, string | null>; from: number; to: number }) => sourceMeetings(indexContacts({ contacts, stays, clears }), sources, from, to),
  toolState,
  fightWeight: ({ fights, volumeL, ...overrides }: { fights: Fight[]; volumeL: number | null } & Overrides) => fightWeight(fights, volumeL, rulesOf(overrides)),
  vesselLimit: (fields: StoodVessel & Overrides) => vesselLimit(fields, limitsOf(fields)),
  introductionPlan: (fields: Introducing & Overrides) => introductionPlan(fields, limitsOf(fields), rulesOf(fields)),
  introductionState: (fields: { now: number; events: IntroductionEvent[] } & Overrides) => introductionState(fields, limitsOf(fields).boxDays, rulesOf(fields)),
  moveCheck: (fields: MoveAsked & Overrides) => moveCheck(fields, limitsOf(fields), rulesOf(fields)),
  catchCard: (fields: Catching & Overrides) => catchCard(fields, rulesOf(fields)),
  sizeEstimate: ({ on, ...fields }: Measured & { on: string } & Overrides) => sizeEstimate(fields, on, rulesOf(fields)),
  conditionState: ({ when, ...fields }: Asked & { when: When } & Overrides) => conditionState(when, fields, rulesOf(fields)),
  planState: (fields: { plans: Plan[]; facts: Asked['facts']; today: string } & Overrides) => planState(fields, rulesOf(fields)),
  roomAsOf,
  arrangeRack: ({ racks, tanks, op }: { racks: Rack[]; tanks: PlacedTank[]; op: Arranging }) => arrangeRack(racks, tanks, op),
}
