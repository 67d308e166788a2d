import type { SystemView } from '../../core/room/roomView'
import type { AuditStore } from '../audit/audit.store'
import type { Database } from '../db/open'
import type { FactsService } from '../facts/facts.service'
import { morningIn } from '../room/dayStartIn'
import type { DecisionsService } from '../rounds/decisions.service'
import type { HoldBooksStore } from './holdBooks.store'
import { createHoldPolicies } from './holdPolicies.service'
import { holdsEndpoints } from './holds.routes'
import type { HoldsService } from './holds.service'
import { createHoldStoriesStore } from './holdStories.store'
import { createHoldSupposing } from './holdSupposing.service'
import { createHoldsView } from './holdsView.service'
import { createHoldsWrites } from './holdsWrites.service'
import type { PairingsService } from './pairings.service'

interface Collaborators {
  db: Database
  books: HoldBooksStore
  holds: HoldsService
  facts: FactsService
  pairings: PairingsService
  decisions: DecisionsService
  audit: AuditStore
  systems: () => SystemView[]
  zone: () => string
}

/** What people see of holds and do to them, put together: the clocks themselves are asked by everybody, and stand before it. */
export function createHoldsScreen({ db, books, holds, facts, pairings, decisions, audit, systems, zone }: Collaborators) {
  const stories = createHoldStoriesStore(db)
  const view = createHoldsView({ holds, facts, stories, pairings, systemName: (id) => systems().find((system) => system.id === id)?.name ?? 'water', morningOf: (on) => morningIn(on, zone()) })
  const nameOf = (lotId: string, placeId: string, nowMs: number): string => {
    const telling = view.tellingAt(nowMs)
    return `${telling.lotName(lotId)} in ${telling.placeName(holds.placeOf(holds.rooms.at(nowMs), placeId))}`
  }
  return {
    due: view.due,
    endpoints: holdsEndpoints({
      ...{ view, pairings, supposing: createHoldSupposing({ holds, facts, tellingAt: view.tellingAt }) },
      writes: createHoldsWrites({ books, holds, facts, decisions, nameOf, isBreach: (id) => stories.breach(id) !== null }),
      policies: createHoldPolicies({ books, policies: () => holds.rules().policies, audit }),
    }),
  }
}
