import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { tries } from '../testing/tries'
import { conditionState } from './conditionState'
import type { Plan } from './plan'
import { factsOf, truths, type KnownFacts, type PlanFact, type When } from './planFacts'
import { baseUnits, wordFigures } from '../units/units'
import { factWords, waitWords } from './planWords'
import { planState, type PlanStateName } from './planState'
import { sizeEstimate, sizeReachedOn } from './sizeEstimate'
import { shippedMoveRules } from '../moves/moveRules'

const today = '2031-05-20'
const [places, lots, ids] = [['T1', 'T2', 'T3'], ['x', 'y'], ['a', 'b', 'c', 'd']]
const [place, lot, id] = [fc.constantFrom(...places), fc.constantFrom(...lots), fc.constantFrom(...ids)]
const fact: fc.Arbitrary<PlanFact> = fc.oneof(
  fc.record({ is: fc.constant('date' as const), on: fc.constantFrom('2031-05-01', '2031-06-01') }),
  fc.record({ is: fc.constantFrom('empty' as const, 'free' as const), place }),
  fc.record({ is: fc.constant('thing' as const), thing: fc.constantFrom('cave', 'never counted'), n: fc.integer({ min: 1, max: 4 }) }),
  fc.record({ is: fc.constant('size' as const), lot, cm: fc.integer({ min: 2, max: 9 }), by: fc.constantFrom('entered' as const, 'estimated' as const) }),
  fc.record({ is: fc.constant('count' as const), place, atMost: fc.nat({ max: 8 }) }),
  fc.record({ is: fc.constant('pairing' as const), pairing: fc.constantFrom('p', 'q') }),
  fc.record({ is: fc.constant('done' as const), plan: id }),
)
const when: fc.Arbitrary<When> = fc.oneof(fact, fc.record({ all: fc.array(fact, { maxLength: 3 }) }), fc.record({ any: fc.array(fact, { minLength: 1, maxLength: 3 }) }))
const stock = fc.uniqueArray(fc.record({ place, lot, n: fc.integer({ min: 1, max: 8 }) }), { selector: (each) => each.place + each.lot, maxLength: 5 })
const known = fc.record({ stock, things: fc.constant({ cave: 2 }), pairings: fc.constantFrom<Record<string, string>>({}, { p: 'passed' }, { p: 'failed' }), lots: fc.constant({ x: { adultCm: 8, sizes: [{ on: '2031-05-01', cm: 4 }] } }) })
const move = fc.record({ lot, n: fc.integer({ min: 1, max: 8 }), from: place, to: place }).filter(({ from, to }) => from !== to)
const plan = (of: string) => fc.record({ id: fc.constant(of), made: fc.constantFrom('2031-05-01', '2031-05-02', '2031-05-03'), moves: fc.array(move, { minLength: 1, maxLength: 2 }), when, takes: fc.constantFrom('whole' as const, 'share' as const) })
const room = fc.record({ facts: known, plans: fc.tuple(...ids.map(plan)).map((all): Plan[] => all) })

const statesOf = (asked: { facts: KnownFacts; plans: Plan[] }): Map<string, PlanStateName> => new Map(planState({ ...asked, today }).plans.map(({ id: of, state }) => [of, state]))

describe('conditions', () => {
  test('a better fact never makes a condition worse, and nothing is waited for once it holds', () => {
    fc.assert(
      fc.property(when, known, fc.integer({ min: 0, max: 5 }), (asked, facts, more) => {
        const before = conditionState(asked, { facts, today })
        const after = conditionState(asked, { facts: { ...facts, things: { cave: 2 + more, 'never counted': more }, pairings: { p: facts.pairings.p ?? 'passed', q: 'passed' } }, today })
        if (!JSON.stringify(asked).includes('never counted')) expect(truths.indexOf(after.value)).toBeGreaterThanOrEqual(truths.indexOf(before.value))
        expect(before.waits.length === 0).toBe(before.value === 'yes' || JSON.stringify(asked) === '{"any":[]}')
      }),
      { numRuns: tries(4000) },
    )
  })

  test('names that every object has are names like any other', () => {
    expect(conditionState({ is: 'thing', thing: 'constructor', n: 1 }, { facts: { things: {} }, today }).waits).toEqual([{ code: 'thing', thing: 'constructor', n: 1, have: null }])
  })

  test('the day a length is reached is the first on which the estimate says so', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 5, noNaN: true }), fc.double({ min: 1.1, max: 9.9, noNaN: true }), fc.double({ min: 0.001, max: 0.03, noNaN: true }), (cm, wanted, perDay) => {
        const fish = { adultCm: 10, perDay, sizes: [{ on: '2031-05-01', cm }] }
        const on = sizeReachedOn(fish, wanted, today, shippedMoveRules)
        if (on === null) throw new Error('fish below their full length reach it')
        const then = sizeEstimate(fish, on, shippedMoveRules).cm ?? 0
        expect(then).toBeGreaterThanOrEqual(wanted - 1e-6)
        const before = new Date(Date.parse(on) - 86_400_000).toISOString().slice(0, 10)
        if (on > today) expect(sizeEstimate(fish, before, shippedMoveRules).cm).toBeLessThan(wanted)
      }),
      { numRuns: tries(1000) },
    )
  })
})

/** Every set of plans that can be carried out one after the other, where days, people and fish do whatever they may. */
function reachable({ facts, plans }: { facts: KnownFacts; plans: readonly Plan[] }): Set<string> {
  const reached = new Set<string>()
  const seen = new Set<string>()
  const carryOn = (done: readonly string[]): void => {
    const key = [...done].sort().join()
    if (seen.has(key)) return
    seen.add(key)
    for (const each of plans) {
      if (done.includes(each.id) || !holds(each.when, each, done)) continue
      reached.add(each.id)
      carryOn([...done, each.id])
    }
  }
  const holds = (asked: When, of: Plan, done: readonly string[]): boolean => {
    if ('all' in asked) return asked.all.every((each) => holds(each, of, done))
    if ('any' in asked) return asked.any.some((each) => holds(each, of, done))
    if (asked.is === 'done') return done.includes(asked.plan)
    if (asked.is === 'pairing') return facts.pairings?.[asked.pairing] !== 'failed'
    // A lot that is not in the house is never measured.
    if (asked.is === 'size') return (facts.stock ?? []).some((each) => each.lot === asked.lot)
    if (asked.is !== 'empty' && asked.is !== 'free') return true
    return (facts.stock ?? []).filter((each) => each.place === asked.place && !(asked.is === 'free' && of.moves.some((own) => own.lot === each.lot))).every(({ lot: here, n }) => {
      const takers = plans.filter(({ moves }) => moves.some((own) => own.lot === here && own.from === asked.place))
      const taken = takers.flatMap(({ moves }) => moves).filter((own) => own.lot === here && own.from === asked.place).reduce((sum, own) => sum + own.n, 0)
      return taken < n || takers.every(({ id: taker }) => done.includes(taker))
    })
  }
  carryOn([])
  return reached
}

/** Whether a plan names another one among what it waits for, directly or through others. */
function names(one: Plan, other: Plan, plans: readonly Plan[], seen: readonly string[] = []): boolean {
  const named = factsOf(one.when).flatMap((fact) => (fact.is === 'done' && !seen.includes(fact.plan) ? [fact.plan] : []))
  return named.includes(other.id) || named.some((id) => plans.some((each) => each.id === id && names(each, other, plans, [...seen, id])))
}

describe('plans', () => {
  test('are stuck exactly where no order of carrying them out can reach them', () => {
    fc.assert(
      fc.property(room, (asked) => {
        const states = statesOf(asked)
        const remaining = asked.plans.filter(({ id: of }) => states.get(of) !== 'impossible')
        const reached = reachable({ ...asked, plans: remaining })
        for (const { id: of } of remaining) expect([of, states.get(of) === 'stuck']).toEqual([of, !reached.has(of)])
        for (const set of planState({ ...asked, today }).deadlocks) for (const of of set) expect(states.get(of)).toBe('stuck')
      }),
      { numRuns: tries(4000) },
    )
  })

  test('that are ready never want more fish than stand there, and of those in force no two have a place that one wants whole', () => {
    fc.assert(
      fc.property(room, (asked) => {
        const states = statesOf(asked)
        const ready = asked.plans.filter(({ id: of }) => states.get(of) === 'ready')
        for (const { place: from, lot: of, n } of asked.facts.stock ?? []) {
          const wanted = ready.flatMap(({ moves }) => moves).filter((each) => each.from === from && each.lot === of).reduce((sum, each) => sum + each.n, 0)
          expect(wanted).toBeLessThanOrEqual(n)
        }
        for (const one of ready)
          for (const other of ready) {
            // One that names the other follows it, even where something else has let it go already: the check of the move has the place then.
            if (one === other || (one.takes === 'share' && other.takes === 'share') || names(one, other, asked.plans) || names(other, one, asked.plans)) continue
            expect(one.moves.some(({ to }) => other.moves.some((each) => each.to === to))).toBe(false)
          }
      }),
      { numRuns: tries(6000) },
    )
  })

  test('one that is over has no fish and no place any more', () => {
    fc.assert(
      fc.property(room, fc.constantFrom('done' as const, 'dropped' as const), (asked, end) => {
        const [first, ...rest] = asked.plans
        if (!first) return
        const over = planState({ ...asked, today, plans: [{ ...first, state: end }, ...rest] })
        const without = planState({ ...asked, today, plans: [{ ...first, until: '2031-05-19' }, ...rest] })
        const booked = ({ plans: all }: typeof over) => all.flatMap(({ waits }) => waits.filter(({ code }) => code === 'fish-double' || code === 'place-double')).filter(({ plans: of }) => Array.isArray(of) && of.includes(first.id))
        expect(booked(over)).toEqual([])
        expect(booked(without)).toEqual([])
      }),
      { numRuns: tries(1000) },
    )
  })
})

test('a range of a reading is said in the units people see', () => {
  const names = { place: () => 'M1-03', fish: () => '', crate: () => '', plan: () => '' }
  const words = factWords({ is: 'reading', water: 't', kind: 'tempC', min: 24, max: 26.5 }, names)
  expect([wordFigures(words, () => baseUnits), wordFigures(words, () => ({ ...baseUnits, temperatureUnit: '°F' }))]).toEqual(['temperature from 24 °C to 26.5 °C in M1-03', 'temperature from 75.2 °F to 79.7 °F in M1-03'])
  const salt = waitWords({ code: 'reading', water: 't', kind: 'salinityPpt', value: 35 }, names)
  expect(wordFigures(salt, () => ({ ...baseUnits, salinityUnit: 'SG' }))).toBe('a reading of salinity in M1-03 (1.0264 SG 25/25 now)')
})
