import { goneAfterDays, shippedAgents } from './dosing/agents'
import { courseWindows, type CoursesAsked } from './dosing/courseWindows'
import { doseCheck, type DoseAsked } from './dosing/doseCheck'
import { ladderStep, redoseAfterChange, type LadderAsked } from './dosing/ladderStep'
import { levelEstimate, type LevelAsked } from './dosing/levelEstimate'
import { lowSalinityPlan, type LowSalinityAsked } from './dosing/lowSalinityPlan'
import { transferSchedule, type TransfersAsked } from './dosing/transferSchedule'
import { clockOf } from './holds/holdClock'
import { byTurn, eventsInForce, type HoldEvent } from './holds/holdEvents'
import { emptyRoom, type HoldRoom, type HoldRules } from './holds/holdRoom'
import { compareRooms, supposedNow, type Supposed } from './holds/holdWhatIf'
import { pairingEvidence, type PairingAsked } from './holds/pairingEvidence'
import { playHolds } from './holds/playHolds'
import type { HoldPolicy } from './holds/policy'
import { policyFor, type HeldLot, type PolicyRule } from './holds/policyFor'
import { policyProblems } from './holds/policyProblems'
import { releaseCheck, type ReleaseAsked } from './holds/releaseCheck'
import { policiesById } from './holds/shippedHolds'

interface RoomAsked {
  now: number
  timeZone: string
  tanks: Readonly<Record<string, string>>
  policies?: readonly HoldPolicy[]
  events: readonly HoldEvent[]
  knownAt?: number
}
const rulesOf = ({ timeZone, tanks, policies }: RoomAsked): HoldRules => ({ timeZone, tanks, policies: policiesById(policies), goneAfter: goneAfterDays(shippedAgents) })
const played = (asked: RoomAsked, events = eventsInForce(asked.events, asked.now, asked.knownAt)): HoldRoom => playHolds(emptyRoom(rulesOf(asked)), events, asked.now)

/** Holds, under the names of the specification (holds). */
export const holdAcceptance = {
  holdClock: ({ group: { lot, tank }, ...asked }: RoomAsked & { group: { lot: string; tank: string } }) => clockOf(played(asked), lot, tank),
  holdWhatIf({ add, ...asked }: RoomAsked & { add: readonly Supposed[] }) {
    const added = supposedNow(add, asked.now)
    return compareRooms(played(asked), played(asked, [...eventsInForce(asked.events, asked.now, asked.knownAt), ...added].sort(byTurn)), added)
  },
  policyProblems: ({ policy }: { policy: HoldPolicy }) => policyProblems(policy),
  policyFor: ({ rules, lot: { weak, ...lot }, contents = [], policies }: { rules: readonly PolicyRule[]; lot: HeldLot & { weak?: boolean }; contents?: readonly string[]; policies?: readonly HoldPolicy[] }) => policyFor(rules, { ...lot, isWeak: weak }, contents, policiesById(policies)),
  pairingEvidence: (asked: PairingAsked) => pairingEvidence(asked),
  releaseCheck: ({ V, Sn, Sd, T, tolPpt, ...asked }: ReleaseAsked & { V?: number; Sn?: number; Sd?: number; T?: number; tolPpt?: number }) => releaseCheck({ ...asked, volumeL: V, upPpt: Sn, downPpt: Sd, tempC: T, tolerancePpt: tolPpt }),
  doseCheck: (asked: DoseAsked) => doseCheck(asked),
  levelEstimate: (asked: LevelAsked) => levelEstimate(asked),
  ladderStep: (asked: LadderAsked) => ladderStep(asked),
  redoseAfterChange: (asked: Parameters<typeof redoseAfterChange>[0]) => redoseAfterChange(asked),
  transferSchedule: (asked: TransfersAsked) => transferSchedule(asked),
  lowSalinityPlan: (asked: LowSalinityAsked) => lowSalinityPlan(asked),
  courseWindows: (asked: CoursesAsked) => courseWindows(asked),
}
