import { byText } from '../contacts/contact'
import { shippedMoveRules } from '../moves/moveRules'
import { bookPlans, type Booked } from './bookPlans'
import { conditionState, inJsonOrder, truthOf, type Asked, type PlanRules } from './conditionState'
import { inHouse, ownLots, type Plan } from './plan'
import { factsOf, type KnownFacts, type PlanTruth, type Truth, type Wait } from './planFacts'
import { deadlocksOf, openClearers, stuckPlans } from './stuckPlans'

/** Of several the first one holds, in this order. */
export const planStates = ['done', 'dropped', 'expired', 'impossible', 'stuck', 'double', 'ready', 'ask', 'waiting'] as const
export type PlanStateName = (typeof planStates)[number]

export interface PlanState {
  id: string
  state: PlanStateName
  /** What it waits for, or what is in its way. */
  waits: Wait[]
}

/** What makes a plan impossible whatever it waits for: its fish are gone, a place is out of use. */
function hindrances({ moves }: Plan, facts: KnownFacts): Wait[] {
  const wanted = new Map<string, number>()
  for (const { lot, n } of moves) wanted.set(lot, (wanted.get(lot) ?? 0) + n)
  const gone = [...wanted].flatMap(([lot, want]): Wait[] => (inHouse(facts, lot) < want ? [{ code: 'fish-gone', lot, have: inHouse(facts, lot), want }] : []))
  const retired = moves.flatMap(({ to }): Wait[] => (facts.places?.[to]?.isRetired ? [{ code: 'place-retired', place: to }] : []))
  return [...gone, ...retired]
}

/** How a plan has ended; nothing while it is open. */
const ended = ({ id, state, until }: Plan, today: string): [string, PlanStateName][] => (state === 'done' || state === 'dropped' ? [[id, state]] : until && until < today ? [[id, 'expired']] : [])

/**
 * Says how plans stand: which can go, what the others wait for, which wait for each other, and which count on fish or
 * places that an earlier one has.
 * @returns one entry a plan, by id, and the sets of plans that each need another of the set first.
 */
export function planState({ plans, facts: known, today }: { plans: readonly Plan[]; facts: KnownFacts; today: string }, rules: PlanRules = shippedMoveRules): { plans: PlanState[]; deadlocks: string[][] } {
  const over = new Map(plans.flatMap((plan) => ended(plan, today)))
  const open = plans.filter(({ id }) => !over.has(id))
  const impossible = new Set(open.filter((plan) => hindrances(plan, known).length > 0).map(({ id }) => id))
  const truth = (id: string): PlanTruth => (over.get(id) === 'done' ? 'yes' : over.has(id) || impossible.has(id) || !plans.some((plan) => plan.id === id) ? 'never' : 'no')
  const look = (plan: Plan): Asked => ({ facts: { ...known, plans: Object.fromEntries(factsOf(plan.when).flatMap((fact) => (fact.is === 'done' ? [[fact.plan, truth(fact.plan)]] : []))) }, today, own: ownLots(plan) })
  // What waits for the impossible is impossible: again until nothing changes.
  for (let before = -1; before !== impossible.size; ) {
    before = impossible.size
    for (const plan of open) if (truthOf(plan.when, look(plan), rules) === 'never') impossible.add(plan.id)
  }
  const remaining = open.filter(({ id }) => !impossible.has(id))
  const isStuck = stuckPlans(remaining, look, rules)
  const booked = bookPlans(remaining, known, (plan) => truthOf(plan.when, look(plan), rules) === 'yes')

  function stateOf(plan: Plan): PlanState {
    const { id } = plan
    const end = over.get(id)
    if (end) return { id, state: end, waits: [] }
    const { value, waits } = conditionState(plan.when, look(plan), rules)
    if (impossible.has(id)) return { id, state: 'impossible', waits: inJsonOrder([...hindrances(plan, known), ...waits]) }
    const found = booked.get(id) ?? { doubles: [], elsewhere: [], away: [] }
    const all = inJsonOrder([...found.doubles, ...found.elsewhere, ...(value === 'yes' ? found.away : []), ...waits, ...(value === 'yes' ? [] : nobodyClears(plan))])
    const state = nameState(isStuck.has(id), found, value)
    return { id, state, waits: state === 'ready' ? [] : all }
  }

  const nobodyClears = (plan: Plan): Wait[] =>
    factsOf(plan.when).flatMap((fact): Wait[] => {
      if (fact.is !== 'empty' && fact.is !== 'free') return []
      const lots = openClearers(fact, look(plan), remaining).filter(({ plans: by }) => by === null).map(({ lot }) => lot)
      return lots.length === 0 ? [] : [{ code: 'nobody-clears', place: fact.place, lots: lots.sort(byText) }]
    })

  return { plans: [...plans].sort((a, b) => byText(a.id, b.id)).map(stateOf), deadlocks: deadlocksOf(remaining.filter(({ id }) => isStuck.has(id)), look, remaining, rules) }
}

function nameState(isStuck: boolean, { doubles, elsewhere, away }: Booked, value: Truth): PlanStateName {
  if (isStuck) return 'stuck'
  if (doubles.length > 0) return 'double'
  if (value === 'yes') return elsewhere.length + away.length === 0 ? 'ready' : 'waiting'
  return value === 'unknown' ? 'ask' : 'waiting'
}
