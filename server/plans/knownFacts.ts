import { groupBy } from '../../core/collections/groupBy'
import type { TankFacts } from '../../core/facts/facts'
import type { MoveRules } from '../../core/moves/moveRules'
import type { KnownFacts, LotKnown, PlanFact } from '../../core/plans/planFacts'
import { pooledLot, pooledStock } from '../../core/plans/pooledPlans'
import { dayInZone } from '../../core/time/dayInZone'
import type { HoldDay } from '../../core/holds/holdDay'
import { nameKey } from '../../core/words/nameKey'
import type { FactsService } from '../facts/facts.service'
import type { KindRow, PlansStore } from './plans.store'

export interface KnownCollaborators {
  store: Pick<PlansStore, 'lengths' | 'crates' | 'things'>
  facts: Pick<FactsService, 'all' | 'holdOn'>
  rules: () => MoveRules
  zone: () => string
}

/** What is known of the house when plans are looked at: of each only what one of them asks for. */
export function createKnownFacts({ store, facts, rules, zone }: KnownCollaborators) {
  const holdState = (hold: HoldDay | null): 'none' | 'running' | 'ready' => (hold === null ? 'none' : hold.isServed ? 'ready' : 'running')
  /** Fish that stand together are held as long as one of them is. */
  function holdOf(rows: readonly KindRow[], nowMs: number): 'none' | 'running' | 'ready' {
    const states = [...new Set(rows.map(({ lot }) => lot))].map((lot) => holdState(facts.holdOn(lot, nowMs)))
    return states.includes('running') ? 'running' : states.includes('ready') ? 'ready' : 'none'
  }

  return (stock: KindRow[], units: ReadonlyMap<string, string>, asked: readonly PlanFact[], nowMs: number): KnownFacts => {
    const dayOf = (atMs: number): string => dayInZone(atMs, zone())
    const tanks = [...facts.all(nowMs).values()]
    const lengths = groupBy(store.lengths([...units.keys()]), ({ lotId }) => lotId)
    const lotKnown = ({ lot, speciesId, adultCm, notedCm, notedAtMs }: KindRow): LotKnown => ({
      species: speciesId,
      adultCm,
      sizes: [...(notedCm === null ? [] : [{ on: dayOf(notedAtMs), cm: notedCm }]), ...(lengths.get(lot) ?? []).map(({ cm, atMs }) => ({ on: dayOf(atMs), cm }))],
    })
    const byUnit = [...groupBy(stock, ({ lot }) => units.get(lot) ?? lot)]
    return {
      stock: pooledStock(stock, units),
      places: Object.fromEntries(tanks.map(({ tankId, state, isRetired }) => [tankId, { state: state ?? 'ready', isRetired }])),
      lots: Object.fromEntries(byUnit.map(([unit, rows]) => [unit, { ...pooledLot(rows.map(lotKnown), dayOf(nowMs), rules()), species: rows[0]?.speciesId ?? '' }])),
      holds: asked.some(({ is }) => is === 'hold') ? Object.fromEntries(byUnit.map(([unit, rows]) => [unit, holdOf(rows, nowMs)])) : {},
      crates: Object.fromEntries(store.crates(asked.flatMap((fact) => (fact.is === 'crate' ? [fact.crate] : []))).map(({ id, state }) => [id, state])),
      things: Object.fromEntries(namedThings(asked, store.things())),
      readings: Object.fromEntries(asked.flatMap((fact) => (fact.is === 'reading' ? [[fact.water, newestReadings(tanks, fact.water, nowMs)]] : []))),
    }
  }
}

/** The newest of each kind of reading in the water of a tank: what was read at one tank holds for all of its water. */
function newestReadings(tanks: readonly TankFacts[], tankId: string, nowMs: number): Record<string, { value: number; hours: number }> {
  const water = tanks.find((tank) => tank.tankId === tankId)?.water.id
  const read = tanks.flatMap((tank) => (tank.water.id === water ? tank.readings : [])).sort((a, b) => a.atMs - b.atMs || a.seq - b.seq)
  return Object.fromEntries(read.map(({ what, value, atMs }) => [what, { value, hours: (nowMs - atMs) / 3_600_000 }]))
}

/** Things under the names that plans give them. */
const namedThings = (asked: readonly PlanFact[], things: readonly { key: string; have: number }[]): [string, number][] =>
  asked.flatMap((fact) => (fact.is === 'thing' ? things.filter(({ key }) => key === nameKey(fact.thing)).map(({ have }): [string, number] => [fact.thing, have]) : []))
