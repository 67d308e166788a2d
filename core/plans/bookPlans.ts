import { byText } from '../contacts/contact'
import { factsOf, type KnownFacts, type Wait } from './planFacts'
import { standing, type Plan, type PlannedMove } from './plan'
import { closureOf } from './stuckPlans'

/** What booking found in the way of a plan. */
export interface Booked {
  /** Fish and places that an earlier plan has. */
  doubles: Wait[]
  /** Fish that do not stand where it wants them from, and that no plan brings there. */
  elsewhere: Wait[]
  /** Fish that do not stand there yet; in the way of a plan that could go otherwise. */
  away: Wait[]
}

const spot = (lot: string, place: string): string => JSON.stringify([lot, place])

/**
 * Books fish and places for plans in order: first who was made first, but nobody before the plans it waits for. A plan
 * takes on what those bring, and then what stands there; what could go now takes what stands there first.
 * @returns what is in the way, by plan.
 */
export function bookPlans(remaining: readonly Plan[], facts: KnownFacts, isYes: (plan: Plan) => boolean): Map<string, Booked> {
  const ids = new Set(remaining.map(({ id }) => id))
  const needs = new Map(remaining.map(({ id, when }) => [id, factsOf(when).flatMap((fact) => (fact.is === 'done' && ids.has(fact.plan) ? [fact.plan] : []))]))
  const waitsFor = new Map(remaining.map(({ id }) => [id, closureOf(id, needs)]))
  const order = bookingOrder(remaining, waitsFor)
  const left = new Map(remaining.flatMap(({ moves }) => moves.map(({ lot, from }) => [spot(lot, from), standing(facts, lot, from)] as const)))
  const coming = new Map(remaining.flatMap(({ moves }) => moves.map((move) => [move, move.n] as [PlannedMove, number])))
  const takenBy = new Map<string, string[]>()

  function take(plan: Plan, move: PlannedMove, isNow: boolean): Booked {
    const key = spot(move.lot, move.from)
    const there = standing(facts, move.lot, move.from)
    const incoming = remaining.filter(({ id }) => waitsFor.get(plan.id)?.has(id) === true && id !== plan.id).flatMap(({ moves }) => moves.filter(({ lot, to }) => lot === move.lot && to === move.from))
    const brought = incoming.reduce((sum, { n }) => sum + n, 0)
    const others = (takenBy.get(key) ?? []).filter((id) => id !== plan.id)
    let missing = move.n
    const fromStock = (): number => {
      const taken = Math.min(missing, left.get(key) ?? 0)
      left.set(key, (left.get(key) ?? 0) - taken)
      missing -= taken
      return taken
    }
    const fromPlans = (): void => {
      for (const each of incoming) {
        const taken = Math.min(missing, coming.get(each) ?? 0)
        coming.set(each, (coming.get(each) ?? 0) - taken)
        missing -= taken
      }
    }
    const takeStock = isNow ? fromStock() : (fromPlans(), fromStock())
    if (isNow) fromPlans()
    if (missing < move.n) takenBy.set(key, [...(takenBy.get(key) ?? []), plan.id])
    const notThere: Wait = { code: 'fish-elsewhere', lot: move.lot, place: move.from, want: move.n, have: there }
    const away = there < move.n || (missing === 0 && takeStock < move.n) ? [notThere] : []
    if (missing === 0) return { doubles: [], elsewhere: [], away }
    if (there + brought < move.n || others.length === 0) return { doubles: [], elsewhere: [notThere], away }
    return { doubles: [{ code: 'fish-double', lot: move.lot, place: move.from, want: move.n, plans: [...new Set(others)].sort(byText) }], elsewhere: [], away }
  }

  const isApart = (a: Plan, b: Plan): boolean => waitsFor.get(a.id)?.has(b.id) !== true && waitsFor.get(b.id)?.has(a.id) !== true
  const placeDoubles = (plan: Plan, earlier: readonly Plan[]): Wait[] =>
    [...new Set(plan.moves.map(({ to }) => to))].flatMap((place): Wait[] => {
      const rivals = earlier.filter((other) => other.moves.some(({ to }) => to === place) && (plan.takes === 'whole' || other.takes === 'whole') && isApart(plan, other))
      return rivals.length === 0 ? [] : [{ code: 'place-double', place, plans: rivals.map(({ id }) => id).sort(byText) }]
    })

  return new Map(
    order.map((plan, index) => {
      const isNow = isYes(plan)
      const each = plan.moves.map((move) => take(plan, move, isNow))
      return [plan.id, { doubles: [...each.flatMap(({ doubles }) => doubles), ...placeDoubles(plan, order.slice(0, index))], elsewhere: each.flatMap(({ elsewhere }) => elsewhere), away: each.flatMap(({ away }) => away) }]
    }),
  )
}

/** Again and again the first made of those whose plans before them are all booked; in a ring the first of the rest. */
function bookingOrder(remaining: readonly Plan[], waitsFor: ReadonlyMap<string, ReadonlySet<string>>): Plan[] {
  const rest = [...remaining].sort((a, b) => byText(a.made, b.made) || byText(a.id, b.id))
  const order: Plan[] = []
  const booked = new Set<string>()
  while (rest.length > 0) {
    const free = rest.findIndex(({ id }) => [...(waitsFor.get(id) ?? [])].every((other) => booked.has(other)))
    const [next] = rest.splice(Math.max(0, free), 1)
    if (!next) break
    order.push(next)
    booked.add(next.id)
  }
  return order
}
