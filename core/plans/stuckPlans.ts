import { byText } from '../contacts/contact'
import { truthOf, type Asked, type PlanRules } from './conditionState'
import { factsOf, type PlanFact, type When } from './planFacts'
import { inPlace, standing, type Plan } from './plan'

type Look = (plan: Plan) => Asked
type ToClear = Extract<PlanFact, { is: 'empty' | 'free' }>

/**
 * Who could clear a place: of each lot that stands there the plans that take all of its fish away, or null where plans do
 * not, so that a person may.
 */
export function openClearers({ is, place }: ToClear, { facts, own = [] }: Asked, remaining: readonly Plan[]): { lot: string; plans: string[] | null }[] {
  const lots = [...new Set(inPlace(facts, place).filter((each) => each.n > 0 && !(is === 'free' && own.includes(each.lot))).map(({ lot }) => lot))]
  return lots.map((lot) => {
    const takers = remaining.filter(({ moves }) => moves.some((move) => move.lot === lot && move.from === place))
    const taken = takers.flatMap(({ moves }) => moves.filter((move) => move.lot === lot && move.from === place)).reduce((sum, { n }) => sum + n, 0)
    return { lot, plans: taken >= standing(facts, lot, place) ? takers.map(({ id }) => id) : null }
  })
}

/** Plans that have to be carried out before a fact can be so, as far as only plans can bring it about. */
function neededFor(fact: PlanFact, asked: Asked, remaining: readonly Plan[]): string[] {
  if (fact.is === 'done') return remaining.some(({ id }) => id === fact.plan) ? [fact.plan] : []
  return fact.is === 'empty' || fact.is === 'free' ? openClearers(fact, asked, remaining).flatMap(({ plans }) => plans ?? []) : []
}

/**
 * Plans whose condition can never come true among the plans that remain: the least fixpoint of what is possible, begun
 * with none. What plans do not bring about a person, the days or the fish may.
 */
export function stuckPlans(remaining: readonly Plan[], look: Look, rules: PlanRules): Set<string> {
  const possible = new Set<string>()
  const canBe = (when: When, asked: Asked): boolean => {
    if ('all' in when) return when.all.every((each) => canBe(each, asked))
    if ('any' in when) return when.any.some((each) => canBe(each, asked))
    const value = truthOf(when, asked, rules)
    return value === 'yes' || (value !== 'never' && neededFor(when, asked, remaining).every((id) => possible.has(id)))
  }
  for (let before = -1; before !== possible.size; ) {
    before = possible.size
    for (const plan of remaining) if (!possible.has(plan.id) && canBe(plan.when, look(plan))) possible.add(plan.id)
  }
  return new Set(remaining.filter(({ id }) => !possible.has(id)).map(({ id }) => id))
}

/** Sets of stuck plans that each need another one of the set first, a plan that needs itself among them; by id. */
export function deadlocksOf(stuck: readonly Plan[], look: Look, remaining: readonly Plan[], rules: PlanRules): string[][] {
  const ids = new Set(stuck.map(({ id }) => id))
  const needs = new Map(
    stuck.map((plan) => {
      const asked = look(plan)
      const unfulfilled = factsOf(plan.when).filter((fact) => truthOf(fact, asked, rules) !== 'yes')
      return [plan.id, unfulfilled.flatMap((fact) => neededFor(fact, asked, remaining)).filter((id) => ids.has(id))] as const
    }),
  )
  const reached = new Map([...ids].map((id) => [id, closureOf(id, needs)]))
  const together = (id: string): string[] => [...ids].filter((other) => reached.get(id)?.has(other) === true && reached.get(other)?.has(id) === true).sort(byText)
  const sets = new Map([...ids].map((id) => together(id)).filter((set) => set.length > 0).map((set) => [JSON.stringify(set), set]))
  return [...sets].sort(([a], [b]) => byText(a, b)).map(([, set]) => set)
}

/** Everything that is needed for something, directly or through others; itself only where it needs itself. */
export function closureOf(id: string, needs: ReadonlyMap<string, readonly string[]>): Set<string> {
  const found = new Set<string>()
  const open = [...(needs.get(id) ?? [])]
  for (let next = open.pop(); next !== undefined; next = open.pop()) {
    if (found.has(next)) continue
    found.add(next)
    open.push(...(needs.get(next) ?? []))
  }
  return found
}
