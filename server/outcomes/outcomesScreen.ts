import type { Limits } from '../../core/limits/houseLimits'
import type { Database } from '../db/open'
import type { FactsService } from '../facts/facts.service'
import type { Endpoint } from '../http/endpoint'
import type { LevelsService } from '../rounds/levels.service'
import { createAlarmsService } from './alarms.service'
import { createHintsService } from './hints.service'
import { createLossBooks } from './lossBooks'
import { createMoneyStore } from './money.store'
import { outcomesEndpoints } from './outcomes.routes'
import { createOutcomesStore } from './outcomes.store'
import { createReviewService } from './review.service'
import { createReviewStore } from './review.store'
import { createTrialsService } from './trials.service'
import { createTrialsStore } from './trials.store'

interface Collaborators {
  db: Database
  facts: FactsService
  levels: Pick<LevelsService, 'all'>
  limits: () => Limits
  zone: () => string
  roomName: () => string
  now: () => number
}

/** What was learned from losses, put together. */
export function createOutcomesScreen({ db, facts, levels, limits, zone, roomName, now }: Collaborators): { endpoints: Endpoint[] } {
  const store = createOutcomesStore(db)
  const books = createLossBooks({ store, limits, zone, outbreaks: store.outbreaks })
  const hints = createHintsService({ books, store, facts, levels, contactsOf: store.hadContact })
  const alarms = createAlarmsService({ books, store, hintsOf: hints.ofWater })
  const trials = createTrialsService({ books, store: createTrialsStore(db) })
  const review = createReviewService({ books, store: createReviewStore(db), money: createMoneyStore(db), alarms, trials, zone })
  return { endpoints: outcomesEndpoints({ books, alarms, hints, trials, review, roomName, now }) }
}
