import { courseNow, type CourseNow } from '../../core/regimens/courseNow'
import type { DosesPlan, FeedPlan } from '../../core/regimens/regimens.schema'
import { regimenTitle } from '../../core/regimens/regimenWords'
import { dayInZone } from '../../core/time/dayInZone'
import type { FactsService } from '../facts/facts.service'
import type { OrderRow } from '../kitchen/kitchen.store'
import type { RegimensStore } from './regimens.store'

interface Collaborators {
  store: Pick<RegimensStore, 'steps' | 'doses' | 'product' | 'running'>
  facts: Pick<FactsService, 'all'>
  foodName: (id: string) => string
  nameOfStaff: (id: string | null) => string
  zone: () => string
}
interface Course {
  id: string
  tankId: string
  plan: DosesPlan | FeedPlan
  happenedAtMs: number
}

/** Courses of days as they stand: what is dosed, and what the kitchen feeds. */
export function createCourses({ store, facts, foodName, nameOfStaff, zone }: Collaborators) {
  const dayOf = (atMs: number): string => dayInZone(atMs, zone())
  /** Days of signs that somebody confirmed on fish of a tank since a moment. */
  const signDays = (tankId: string, sinceMs: number, nowMs: number): string[] => (facts.all(nowMs).get(tankId)?.decisions ?? []).flatMap((each) => (each.as === 'confirmed' && each.firstMs >= sinceMs ? [dayOf(each.firstMs)] : []))

  function stand({ id, tankId, plan, happenedAtMs }: Course, nowMs: number): CourseNow {
    const waterId = facts.all(nowMs).get(tankId)?.water.id ?? tankId
    const given = plan.kind === 'medicated feed' ? store.steps(id).filter(({ kind }) => kind === 'feed') : store.doses(waterId, happenedAtMs).filter(({ agent }) => agent === store.product(plan.productId)?.agent)
    return courseNow({ plan, signs: signDays(tankId, happenedAtMs, nowMs), given: given.map(({ atMs }) => dayOf(atMs)), today: dayOf(nowMs) })
  }

  return {
    stand,
    /** What the kitchen feeds alone on a day, lot by lot, by medicated feeds that run. */
    orders(on: string, nowMs: number): OrderRow[] {
      return store.running().flatMap(({ id, tankId, plan, note, staffId, happenedAtMs }): OrderRow[] => {
        if (plan.kind !== 'medicated feed') return []
        const tank = facts.all(nowMs).get(tankId)
        const window = stand({ id, tankId, plan, happenedAtMs }, nowMs).windows.find(({ from, to }) => from <= on && on <= to)
        if (!tank || !window) return []
        return tank.lots.map(({ lotId, species }) => ({ id: `regimen ${id} ${lotId}`, kind: 'medicated', lotId, tankId, food: foodName(plan.foodId), fromOn: window.from, untilOn: window.to, note: note ?? regimenTitle(plan.kind, null), by: nameOfStaff(staffId), whom: `${tank.code} ${species}`, regimenId: id }))
      })
    },
  }
}
export type Courses = ReturnType<typeof createCourses>
