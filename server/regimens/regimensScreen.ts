import { eq } from 'drizzle-orm'
import type { LadderStand } from '../../core/regimens/offerDose'
import { dayInZone } from '../../core/time/dayInZone'
import type { Database } from '../db/open'
import type { FactsService } from '../facts/facts.service'
import type { HoldBooksStore } from '../holds/holdBooks.store'
import type { HoldsService } from '../holds/holds.service'
import type { OrderRow } from '../kitchen/kitchen.store'
import { observation } from '../rounds/rounds.table'
import { createCourses } from './courses'
import { createLadders } from './ladderShown'
import { createOffering, isProduct } from './offering'
import { createOfferReads } from './offerReads'
import { regimensEndpoints } from './regimens.routes'
import { createRegimensStore } from './regimens.store'
import { createRegimenSteps } from './regimenSteps'
import { createRegimensView } from './regimensView.service'
import { createRegimensWrites } from './regimensWrites.service'
import { createTransferStand } from './transferStand'
import { createTreating } from './treating'

interface Collaborators {
  db: Database
  books: HoldBooksStore
  holds: HoldsService
  facts: FactsService
  foods: () => readonly { id: string; name: string }[]
  /** What the kitchen was told of fish on a day. */
  ordersOf: (on: string) => readonly OrderRow[]
  staff: () => readonly { id: string; name: string }[]
  systemName: (id: string) => string
  zone: () => string
}

/** Regimens put together: what people see of them and write, and what is kept beside every write. */
export function createRegimensScreen({ db, books, holds, facts, foods, ordersOf, staff, systemName, zone }: Collaborators) {
  const { orm } = db
  const store = createRegimensStore(db)
  const treating = createTreating({ store, facts, holds })
  const waterName = (waterId: string, nowMs: number): string => {
    const own = facts.all(nowMs).get(waterId)
    return own ? `water of ${own.code}` : systemName(waterId)
  }
  const offer = createOffering({ treating, store, waterName })
  const transferStand = createTransferStand({ store, zone })
  const ladders = createLadders({ store, treating, holds, offer, zone })
  const foodName = (id: string): string => foods().find((food) => food.id === id)?.name ?? 'a food that is gone'

  function standOf(regimenId: string, nowMs: number): LadderStand | null {
    const found = store.regimen(regimenId)
    const product = found?.plan.kind === 'ladder' ? store.product(found.plan.productId) : null
    if (!found || found.plan.kind !== 'ladder' || !product || !isProduct(product)) return null
    return ladders.stand({ plan: found.plan, product, water: treating.water(found.tankId, nowMs), tank: facts.requireTank(found.tankId, 'tankId', nowMs), startedAtMs: found.happenedAtMs, nowMs })
  }

  const nameOfStaff = (id: string | null): string => staff().find((each) => each.id === id)?.name ?? ''
  const courses = createCourses({ store, facts, foodName, nameOfStaff, zone })
  /** Lots that get medicated food today: what a regimen says comes first. */
  const medicated = (nowMs: number): Map<string, { food: string; regimenId: string | null }> => {
    const on = dayInZone(nowMs, zone())
    return new Map([...ordersOf(on), ...courses.orders(on, nowMs)].flatMap(({ kind, lotId, food, regimenId = null }) => (kind === 'medicated' && lotId !== null && food !== null ? [[lotId, { food, regimenId }]] : [])))
  }
  const view = createRegimensView({
    ...{ store, treating, offer, ladders, facts, holds, transferStand, foodName, zone },
    ...{ waterName, nameOfStaff, courses },
  })
  const steps = createRegimenSteps({ db, store, books, medicated, transferStand, zone })
  return {
    due: view.due,
    /** What the kitchen feeds alone on a day. */
    feedOrders: courses.orders,
    /** What is kept beside a write, in its transaction. */
    after: steps.after,
    endpoints: regimensEndpoints({
      view,
      offers: createOfferReads({ store, offer, facts, standOf }),
      writes: createRegimensWrites({
        ...{ store, books, treating, facts, standOf },
        observe: (row) => Number(orm.insert(observation).values({ kind: 'dose', ...row }).returning({ seq: observation.seq }).get().seq),
        unobserve: (seq, undoneAtMs) => void orm.update(observation).set({ replacedBySeq: seq, undoneAtMs }).where(eq(observation.seq, seq)).run(),
        isFood: (id) => foods().some((food) => food.id === id),
      }),
    }),
  }
}
