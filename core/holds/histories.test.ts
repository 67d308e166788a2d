import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { goneAfterDays, shippedAgents } from '../dosing/agents'
import { heldTanks, housePolicies, policyIds, startAt } from '../testing/heldRoom'
import { tries } from '../testing/tries'
import { zoneDays, writtenDay } from '../time/zoneDays'
import { clockOf, type HoldClock } from './holdClock'
import { eventsInForce, type HoldEvent } from './holdEvents'
import { copyRoom, emptyRoom, type HoldRoom } from './holdRoom'
import { whatIf } from './holdWhatIf'
import { readRoom, writeRoom } from './roomText'
import { playHolds } from './playHolds'
import { mealAnswers, type HoldPolicy } from './policy'
import { policiesById, shippedPolicies } from './shippedHolds'

const tanks = Object.keys(heldTanks)
const places = [...tanks, 'T1-01', 'vessel:b1', 'vessel:b2']
const lots = ['L1', 'L2', 'L3']
const hours = 42 * 24
// Half of everything happens in one water, so that fish are met there.
const place = fc.oneof(fc.constantFrom(...places), fc.constantFrom('Q1-01', 'Q1-01', 'Q1-02'))
const lot = fc.constantFrom(...lots)
const perhapsLot = fc.option(lot, { nil: undefined })
// Few words, few decisions and hours on a grid, so that a history meets itself.
const word = fc.constantFrom('spots', 'fast breathing', 'death')
const decision = fc.constantFrom('open' as const, 'confirmed' as const, 'confirmed' as const, 'dismissed' as const)
const policy = fc.constantFrom(...policyIds)
const agent = fc.constantFrom('praziquantel', 'copperIonic', 'acriflavine')

const kinds = {
  arrive: fc.record({ kind: fc.constant('arrive' as const), lot, tank: place, n: fc.integer({ min: 3, max: 9 }), policy: fc.option(policy, { freq: 6 }), openedAt: fc.constant(undefined) }),
  plumb: fc.record({ kind: fc.constant('plumb' as const), tank: fc.constantFrom(...tanks), water: fc.constantFrom('quarantine 1', 'quarantine 2', 'sale') }),
  move: fc.record({ kind: fc.constant('move' as const), lot, from: place, to: place, n: fc.integer({ min: 1, max: 4 }) }),
  loss: fc.record({ kind: fc.constant('loss' as const), lot, tank: place, n: fc.integer({ min: 1, max: 3 }) }),
  count: fc.record({ kind: fc.constant('count' as const), lot, tank: place, by: fc.integer({ min: -2, max: 2 }) }),
  policy: fc.record({ kind: fc.constant('policy' as const), lot, tank: place, to: policy }),
  lengthen: fc.record({ kind: fc.constant('lengthen' as const), lot, tank: place, days: fc.integer({ min: 1, max: 5 }) }),
  course: fc.record({ kind: fc.constant('course' as const), lot, tank: place, words: fc.constant(['fast breathing', 'on the bottom']), hours: fc.constantFrom(6, 48) }),
  look: fc.record({ kind: fc.constant('look' as const), tank: place }),
  meal: fc.record({ kind: fc.constant('meal' as const), tank: place, lot: perhapsLot, answer: fc.constantFrom(...mealAnswers, 'most', 'all', 'not fed') }),
  body: fc.record({ kind: fc.constant('body' as const), tank: place, lot: perhapsLot, state: fc.constantFrom('thin', 'normal', 'full') }),
  reading: fc.record({ kind: fc.constant('reading' as const), tank: place, what: fc.constantFrom('copper', 'salinity'), value: fc.constantFrom(0.03, 0.1, 0.18, 0.3, 11, 34) }),
  step: fc.record({ kind: fc.constant('step' as const), tank: place, lot: perhapsLot, of: fc.constantFrom('dose' as const, 'feed' as const, 'transfer' as const, 'cleared' as const), agent }),
  pairing: fc.record({ kind: fc.constant('pairing' as const), lots: fc.tuple(lot, lot), startedAt: fc.integer({ min: startAt, max: startAt + hours * 60 }), result: fc.constantFrom('passed' as const, 'passed' as const, 'failed' as const) }),
  exposure: fc.record({ kind: fc.constant('exposure' as const), tanks: fc.tuple(place, place), decision }),
  sign: fc.record({ kind: fc.constant('sign' as const), tank: place, lot: perhapsLot, word, decision }),
  end: fc.record({ kind: fc.constant('end' as const), lot, tank: place }),
  leave: fc.record({ kind: fc.constant('leave' as const), lot, tank: place, n: fc.integer({ min: 1, max: 3 }) }),
}
type Made<Event = HoldEvent> = Event extends HoldEvent ? Omit<Event, 'id' | 'at'> : never
/** One event, likelier where histories are made of it. */
const event: fc.Arbitrary<Made> = fc.oneof({ weight: 6, arbitrary: kinds.arrive }, { weight: 5, arbitrary: kinds.move }, { weight: 5, arbitrary: kinds.sign }, { weight: 3, arbitrary: kinds.look }, { weight: 3, arbitrary: kinds.meal }, { weight: 3, arbitrary: kinds.step }, { weight: 2, arbitrary: kinds.reading }, ...Object.values(kinds).map((arbitrary) => ({ weight: 1, arbitrary: arbitrary as fc.Arbitrary<Made> })))

/** Fish come first, most of them early; without them nothing else means anything. */
const arrivals = fc.array(fc.tuple(kinds.arrive as fc.Arbitrary<Made>, fc.integer({ min: 0, max: 300 })), { minLength: 3, maxLength: 8 })
const others = fc.array(fc.tuple(event, fc.integer({ min: 1, max: hours })), { minLength: 10, maxLength: 80, size: 'max' })
/** A history of a held room: up to ninety entries over six weeks, on the hour, so that many fall into one minute. */
const holdHistory: fc.Arbitrary<HoldEvent[]> = fc.tuple(arrivals, others).map((rows) => rows.flat().map(([made, hour], index) => ({ ...made, id: `e${String(index).padStart(2, '0')}`, at: startAt + hour * 60 }) as HoldEvent))
/** A moment at which a history is asked about, mostly towards its end. */
const askedAt = fc.integer({ min: 10, max: hours + 400 }).map((hour) => startAt + hour * 60)
const heldWhere = lots.flatMap((each) => places.map((tank) => ({ lot: each, tank })))

// What has to be so of every clock, whatever happened in the room.
const timeZone = 'Europe/Lisbon'
const numRuns = tries(5000)
const rules = (own: readonly HoldPolicy[] = housePolicies) => ({ timeZone, tanks: heldTanks, policies: policiesById(own), goneAfter: goneAfterDays(shippedAgents) })
const roomAt = (events: readonly HoldEvent[], now: number, own?: readonly HoldPolicy[]): HoldRoom => playHolds(emptyRoom(rules(own)), eventsInForce(events, now), now)
const clocksOf = (room: HoldRoom): Map<string, HoldClock> => new Map(heldWhere.map(({ lot, tank }) => [`${lot} ${tank}`, clockOf(room, lot, tank)]))

/** Which clock got shorter: a date that came nearer, a shortfall or a departure that wants fewer days. */
function shorter(before: HoldRoom, after: HoldRoom): string[] {
  const later = clocksOf(after)
  return [...clocksOf(before)].flatMap(([where, was]) => {
    const is = later.get(where)
    const sooner = was.earliest !== null && (is?.earliest ?? '') < was.earliest
    const wants = was.ended !== null && (is?.ended?.days ?? -1) < was.ended.days
    const left = was.departures.some(({ id, days }) => (is?.departures.find((each) => each.id === id)?.days ?? -1) < days)
    return sooner || wants || left ? [`${where}: ${JSON.stringify(was)} -> ${JSON.stringify(is)}`] : []
  })
}

test('the order in which events were entered is nothing', () => {
  fc.assert(fc.property(holdHistory, askedAt, fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })), (events, now, luck) => {
    const shuffled = events.map((event) => ({ event, turn: luck.next().value as number })).sort((a, b) => a.turn - b.turn).map(({ event }) => event)
    expect(clocksOf(roomAt(shuffled, now))).toEqual(clocksOf(roomAt(events, now)))
  }), { numRuns: tries(1000, 200) })
})

test('one sign more never makes any clock, shortfall or departure shorter', () => {
  fc.assert(fc.property(holdHistory, askedAt, fc.record({ tank: fc.constantFrom(...heldWhere.map(({ tank }) => tank)), hour: fc.nat(1000), decision: fc.constantFrom('open' as const, 'confirmed' as const) }), (events, now, { tank, hour, decision }) => {
    const sign: HoldEvent = { id: 'more', at: startAt + hour * 60, kind: 'sign', tank, word: 'spots', decision }
    expect(shorter(roomAt(events, now), roomAt([...events, sign], now))).toEqual([])
  }), { numRuns })
})

test('one lot more never makes any clock, shortfall or departure shorter', () => {
  fc.assert(fc.property(holdHistory, askedAt, fc.record({ tank: fc.constantFrom(...heldWhere.map(({ tank }) => tank)), hour: fc.nat(1000), policy: fc.option(fc.constantFrom(...policyIds)) }), (events, now, { tank, hour, policy }) => {
    const more: HoldEvent = { id: 'more', at: startAt + hour * 60, kind: 'arrive', lot: 'L9', tank, n: 5, policy }
    expect(shorter(roomAt(events, now), roomAt([...events, more], now))).toEqual([])
  }), { numRuns })
})

test('dismissing a sign never makes a date later', () => {
  fc.assert(fc.property(holdHistory, askedAt, fc.nat(), (events, now, nth) => {
    const signs = events.filter(({ kind }) => kind === 'sign')
    const chosen = signs[nth % Math.max(1, signs.length)]
    const dismissed = events.map((event) => (event === chosen ? { ...event, decision: 'dismissed' } as HoldEvent : event))
    expect(shorter(roomAt(dismissed, now), roomAt(events, now))).toEqual([])
  }), { numRuns: tries(5000, 500) })
})

test('feeding up first never makes a hold shorter', () => {
  const fed = [...shippedPolicies, ...housePolicies].map((policy): HoldPolicy => ({ ...policy, phases: [{ id: 'feed up', kind: 'condition', days: 3, gates: [{ gate: 'fillingOut' }] }, ...policy.phases] }))
  fc.assert(fc.property(holdHistory, askedAt, (events, now) => {
    expect(shorter(roomAt(events, now), roomAt(events, now, fed))).toEqual([])
  }), { numRuns: tries(5000, 500) })
})

test('a room played in parts, or written down between them, is the room played at once, and a copy of it leaves it as it is', () => {
  fc.assert(fc.property(holdHistory, fc.tuple(askedAt, askedAt), (events, [one, other]) => {
    const [early, late] = [Math.min(one, other), Math.max(one, other)]
    const ordered = eventsInForce(events, late)
    const first = roomAt(events, early)
    const before = clocksOf(first)
    const more = ordered.filter(({ at }) => at > early)
    const atOnce = clocksOf(playHolds(emptyRoom(rules()), ordered, late))
    expect(clocksOf(playHolds(copyRoom(first), more, late))).toEqual(atOnce)
    // Written down and read after a start it plays on as if nothing had been between.
    expect(clocksOf(playHolds(readRoom(writeRoom(first), rules()), more, late))).toEqual(atOnce)
    whatIf(first, [{ kind: 'sign', tank: 'Q1-01', word: 'spots', decision: 'confirmed' }, { kind: 'arrive', lot: 'L9', tank: 'Q1-02', n: 3, policy: 'shopHold' }], early)
    expect(clocksOf(first)).toEqual(before)
  }), { numRuns: tries(2000, 300) })
})

/** Policies of days alone, with everything that may begin them again. */
const plain: fc.Arbitrary<HoldPolicy> = fc.record({ days: fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 1, maxLength: 4 }), sign: fc.nat(3), addition: fc.nat(3), treatment: fc.nat(3) }).map(({ days, sign, addition, treatment }) => {
  const back = (nth: number): string => `p${nth % days.length}`
  return { id: 'plain', name: 'Plain', start: 'placed', phases: days.map((each, index) => ({ id: `p${index}`, kind: 'watch' as const, days: each })), onSign: { back: back(sign), reach: 'water', words: ['spots'] }, onAddition: { by: 'water', from: 'any', back: back(addition) }, onTreatment: { back: back(treatment) }, release: [], agents: [] }
})

test('without gates the earliest day is the latest of all days from the start, and of every cause the days from its phase on', () => {
  const causes = fc.array(fc.record({ kind: fc.constantFrom('sign' as const, 'arrive' as const, 'exposure' as const, 'step' as const), hour: fc.integer({ min: 1, max: 900 }), tank: fc.constantFrom('Q1-01', 'Q1-02') }), { maxLength: 8 })
  fc.assert(fc.property(plain, causes, fc.integer({ min: 901, max: 1100 }), (policy, rows, hours) => {
    const now = startAt + hours * 60
    const events = rows.map(({ kind, hour, tank }, index): HoldEvent => {
      const at = { id: `e${index}`, at: startAt + hour * 60 }
      if (kind === 'sign') return { ...at, kind, tank, word: 'spots', decision: 'confirmed' }
      if (kind === 'arrive') return { ...at, kind, lot: `M${index}`, tank, n: 2, policy: null }
      return kind === 'exposure' ? { ...at, kind, tanks: [tank], decision: 'confirmed' } : { ...at, kind, tank, of: 'feed' }
    })
    const clock = clockOf(roomAt([{ id: 'a', at: startAt, kind: 'arrive', lot: 'L1', tank: 'Q1-01', n: 4, policy: 'plain' }, ...events], now, [policy]), 'L1', 'Q1-01')
    const { dayOf } = zoneDays(timeZone)
    const from = (index: number): number => policy.phases.slice(index).reduce((sum, { days }) => sum + days, 0)
    const ends = [dayOf(startAt) + from(0), ...rows.filter(({ kind, tank }) => kind !== 'step' || tank === 'Q1-01').map(({ kind, hour }) => {
      const rule = { sign: policy.onSign, arrive: policy.onAddition, exposure: policy.onAddition, step: policy.onTreatment }[kind]
      return dayOf(startAt + hour * 60) + from(policy.phases.findIndex(({ id }) => id === rule?.back))
    })]
    expect(clock.earliest).toBe(writtenDay(Math.max(...ends)))
  }), { numRuns })
})
