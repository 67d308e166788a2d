import { byText } from '../contacts/contact'
import { shippedMoveRules, type MoveRules } from '../moves/moveRules'
import { inHouse, inPlace } from './plan'
import { factsOf, strongest, weakest, type KnownFacts, type LotKnown, type PlanFact, type Truth, type Wait, type When } from './planFacts'
import { lastEntered, sizeEstimate, sizeReachedOn } from './sizeEstimate'

export type PlanRules = Pick<MoveRules, 'growthPerDay' | 'growthMostPerDay' | 'sizeFitDays' | 'planReadingHours'>

/** What a condition is held against. */
export interface Asked {
  facts: KnownFacts
  /** The day in the room. */
  today: string
  /** Lots that the plan itself moves: *free* looks past them. */
  own?: readonly string[]
}

/** What one fact comes to, and how it is said while it is not so. */
interface Judged {
  value: Truth
  /** One each of what is not so yet. */
  waits: Wait[]
}

/** What a record holds under a name that people gave, whatever the name. */
const at = <Value>(record: Readonly<Record<string, Value>> | undefined, name: string): Value | undefined => (record && Object.hasOwn(record, name) ? record[name] : undefined)

const unknownLot: LotKnown = { adultCm: null, sizes: [] }

/** Fish that stand in a place, of one lot or of all but those of the plan. */
const fishIn = ({ facts }: Asked, place: string, counts: (lot: string) => boolean): number =>
  inPlace(facts, place).reduce((sum, { lot, n }) => sum + (counts(lot) ? n : 0), 0)

/** Whether any fish of a lot is in the house. */
const isInHouse = ({ facts }: Asked, lot: string): boolean => inHouse(facts, lot) > 0

const one = (value: Truth, wait: Wait): Judged => ({ value, waits: value === 'yes' ? [] : [wait] })
const isSo = (so: boolean): Truth => (so ? 'yes' : 'no')

function emptiness(asked: Asked, { is, place }: Extract<PlanFact, { is: 'empty' | 'free' }>): Judged {
  const known = at(asked.facts.places, place)
  if (known?.isRetired) return one('never', { code: is, place, fish: null, state: 'retired' })
  const own = is === 'free' ? (asked.own ?? []) : []
  const fish = fishIn(asked, place, (lot) => !own.includes(lot))
  const state = known?.state ?? 'ready'
  return one(isSo(fish === 0 && state === 'ready'), { code: is, place, fish, state })
}

function sizeOf(asked: Asked, lot: string, { cm, by = 'entered' }: { cm: number; by?: 'entered' | 'estimated' }, rules: PlanRules): Judged {
  const known = at(asked.facts.lots, lot) ?? unknownLot
  const now = sizeEstimate(known, asked.today, rules).cm
  const reached: Truth = now === null ? 'unknown' : now < cm ? 'no' : by === 'estimated' ? 'yes' : 'unknown'
  const entered = lastEntered(known.sizes, asked.today)
  const value: Truth = !isInHouse(asked, lot) ? 'never' : entered !== null && entered >= cm ? 'yes' : reached
  return one(value, { code: 'size', lot, cm, now, on: sizeReachedOn(known, cm, asked.today, rules) })
}

function size(asked: Asked, fact: Extract<PlanFact, { is: 'size' }>, rules: PlanRules): Judged {
  if (fact.lot !== undefined) return sizeOf(asked, fact.lot, fact, rules)
  const { species = '', place = '', cm } = fact
  const lots = [...new Set(inPlace(asked.facts, place).filter((each) => each.n > 0 && at(asked.facts.lots, each.lot)?.species === species).map(({ lot }) => lot))]
  if (lots.length === 0) return one('no', { code: 'size', species, place, cm })
  const each = lots.map((lot) => sizeOf(asked, lot, fact, rules))
  return { value: weakest(each.map(({ value }) => value)), waits: each.flatMap(({ waits }) => waits) }
}

function reading({ facts }: Asked, { water, kind, min = -Infinity, max = Infinity, maxHours }: Extract<PlanFact, { is: 'reading' }>, rules: PlanRules): Judged {
  const known = at(at(facts.readings, water), kind)
  const isFresh = known !== undefined && known.hours <= (maxHours ?? rules.planReadingHours)
  const value: Truth = isFresh ? isSo(known.value >= min && known.value <= max) : 'unknown'
  return one(value, { code: 'reading', water, kind, value: isFresh ? known.value : null })
}

const oneOf = (done: Truth, state: string, yes: readonly string[], never: readonly string[]): Truth => (yes.includes(state) ? 'yes' : never.includes(state) ? 'never' : done)

function judge(fact: PlanFact, asked: Asked, rules: PlanRules): Judged {
  const { facts, today } = asked
  switch (fact.is) {
    case 'date':
      return one(isSo(today >= fact.on), { code: 'date', on: fact.on })
    case 'empty':
    case 'free':
      return emptiness(asked, fact)
    case 'size':
      return size(asked, fact, rules)
    case 'hold': {
      const state = isInHouse(asked, fact.lot) ? (at(facts.holds, fact.lot) ?? 'none') : 'gone'
      return one(oneOf('no', state, ['none', 'ready'], ['gone']), { code: 'hold', lot: fact.lot, state })
    }
    case 'gate': {
      const passed = at(at(facts.gates, fact.lot), fact.gate)
      return one(!isInHouse(asked, fact.lot) ? 'never' : passed === undefined ? 'unknown' : isSo(passed), { code: 'gate', lot: fact.lot, gate: fact.gate })
    }
    case 'pairing': {
      const state = at(facts.pairings, fact.pairing) ?? 'planned'
      return one(oneOf('no', state, ['passed'], ['failed']), { code: 'pairing', pairing: fact.pairing, state })
    }
    case 'crate': {
      const state = at(facts.crates, fact.crate) ?? 'expected'
      return one(oneOf('no', state, ['arrived'], ['cancelled']), { code: 'crate', crate: fact.crate, state })
    }
    case 'thing': {
      const have = at(facts.things, fact.thing) ?? null
      return one(have === null ? 'unknown' : isSo(have >= fact.n), { code: 'thing', thing: fact.thing, n: fact.n, have })
    }
    case 'count': {
      const fish = fishIn(asked, fact.place, (lot) => fact.lot === undefined || lot === fact.lot)
      return one(isSo(fish <= fact.atMost), { code: 'count', place: fact.place, fish, atMost: fact.atMost })
    }
    case 'reading':
      return reading(asked, fact, rules)
    case 'done':
      return one(at(facts.plans, fact.plan) ?? 'no', { code: 'done', plan: fact.plan })
  }
}

/** Whether a condition holds. */
export function truthOf(when: When, asked: Asked, rules: PlanRules = shippedMoveRules): Truth {
  if ('all' in when) return weakest(when.all.map((each) => truthOf(each, asked, rules)))
  if ('any' in when) return strongest(when.any.map((each) => truthOf(each, asked, rules)))
  return judge(when, asked, rules).value
}

/** Orders waits by their JSON text, each once. */
export const inJsonOrder = (waits: readonly Wait[]): Wait[] => [...new Map(waits.map((each) => [JSON.stringify(each), each])).entries()].sort(([a], [b]) => byText(a, b)).map(([, each]) => each)

/**
 * Says whether a condition holds, and while it does not, of everything in it that is not so what is known of it.
 * Order never < no < unknown < yes: *all* is the weakest, *any* the strongest.
 * @example conditionState({ all: [] }, { facts: {}, today: '2031-05-20' }) // { value: 'yes', waits: [] }
 */
export function conditionState(when: When, asked: Asked, rules: PlanRules = shippedMoveRules): { value: Truth; waits: Wait[] } {
  const value = truthOf(when, asked, rules)
  return { value, waits: value === 'yes' ? [] : inJsonOrder(factsOf(when).flatMap((fact) => judge(fact, asked, rules).waits)) }
}
