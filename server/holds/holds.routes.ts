import { holdsApi } from '../../core/holds/holds.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { HoldPoliciesService } from './holdPolicies.service'
import type { HoldsViewService } from './holdsView.service'
import type { HoldsWrites } from './holdsWrites.service'
import type { PairingsService } from './pairings.service'
import type { HoldSupposing } from './holdSupposing.service'

interface Services {
  view: HoldsViewService
  supposing: HoldSupposing
  writes: HoldsWrites
  policies: HoldPoliciesService
  pairings: PairingsService
}

/** Answers for holds. */
export const holdsEndpoints = ({ view, supposing, writes, policies, pairings }: Services): Endpoint[] =>
  serve(holdsApi, {
    readHolds: ({ nowMs }) => view.view(nowMs),
    readHoldWhatIf: ({ query, nowMs }) => supposing.asked(query, nowMs),
    decideHeldSign: writes.decideHeldSign,
    decideBreach: writes.decideBreach,
    endHolds: writes.endHolds,
    changeHold: writes.changeHold,
    lengthenHold: writes.lengthenHold,
    recordBody: writes.recordBody,
    recordCleared: writes.recordCleared,
    undoHoldEntry: writes.undoHoldEntry,
    startPairing: pairings.startPairing,
    endPairing: pairings.endPairing,
    readHoldPolicies: () => policies.view(),
    saveHoldPolicy: policies.saveHoldPolicy,
    retireHoldPolicy: policies.retireHoldPolicy,
    saveHoldRules: policies.saveHoldRules,
  })
