import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { goneAfterDays, shippedAgents, shippedMatrix } from '../dosing/agents'
import { heldTanks, startAt } from '../testing/heldRoom'
import { tries } from '../testing/tries'
import { daysBetween } from '../time/daysBetween'
import { writtenDay, zoneDays } from '../time/zoneDays'
import { clockOf, type HoldClock } from './holdClock'
import { holdBar } from './holdBar'
import { eventsInForce, type HoldEvent } from './holdEvents'
import { emptyRoom, type HoldRoom } from './holdRoom'
import { chanceToShow, pairingEvidence, shippedEvidence } from './pairingEvidence'
import { playHolds } from './playHolds'
import type { Gate, HoldPolicy } from './policy'
import { policyFor } from './policyFor'
import { policyProblems } from './policyProblems'
import { releaseCheck } from './releaseCheck'
import { policiesById, shippedPolicies } from './shippedHolds'

type Made<Event = HoldEvent> = Event extends HoldEvent ? Omit<Event, 'id' | 'at'> : never
/** Events by the hour after the start, in the order they are named. */
const happened = (rows: readonly (readonly [hour: number, event: Made])[]): HoldEvent[] => rows.map(([hour, event], index) => ({ ...event, id: `e${String(index).padStart(2, '0')}`, at: startAt + Math.round(hour * 60) }) as HoldEvent)
const roomAfter = (hours: number, rows: readonly (readonly [number, Made])[], own: readonly HoldPolicy[] = []): HoldRoom => {
  const now = startAt + hours * 60
  return playHolds(emptyRoom({ timeZone: 'UTC', tanks: heldTanks, policies: policiesById(own), goneAfter: goneAfterDays(shippedAgents) }), eventsInForce(happened(rows), now), now)
}
const clock = (hours: number, rows: readonly (readonly [number, Made])[], tank = 'Q1-01', own: readonly HoldPolicy[] = []): HoldClock => clockOf(roomAfter(hours, rows, own), 'L1', tank)
const arrive = (change: object = {}): Made => ({ kind: 'arrive', lot: 'L1', tank: 'Q1-01', n: 6, policy: 'observeFirst', ...change })
const watch = (change: Partial<HoldPolicy> = {}): HoldPolicy => ({ id: 'own', name: 'Own', start: 'placed', phases: [{ id: 'watch', kind: 'watch', days: 10 }], onSign: { back: 'watch', reach: 'tank', words: ['spots'] }, onAddition: { by: 'water', from: 'any', back: 'watch' }, onTreatment: { back: 'watch' }, release: [], agents: [], ...change })
const causesOf = ({ restarts }: HoldClock): string[] => restarts.map(({ cause, lost }) => `${cause} ${lost}`)
const [day, days] = [24, (count: number): number => count * 24]

test('days of a room begin where its wall clock says, on nights of 23 and 25 hours too', () => {
  for (const zone of ['UTC', 'Europe/Lisbon', 'America/St_Johns', 'Pacific/Kiritimati', 'Asia/Kathmandu']) {
    const { dayOf, startOf } = zoneDays(zone)
    const first = Math.floor(Date.UTC(2031, 2, 28) / 86_400_000)
    for (let number = first; number < first + 5; number += 1) {
      expect([dayOf(startOf(number)), dayOf(startOf(number) - 1), dayOf(startOf(number + 1) - 1)]).toEqual([number, number - 1, number])
    }
  }
  const { dayOf, startOf } = zoneDays('Europe/Lisbon')
  const spring = dayOf(Date.UTC(2031, 2, 30, 12) / 60_000)
  expect([writtenDay(spring), (startOf(spring + 1) - startOf(spring)) / 60]).toEqual(['2031-03-30', 23])
})

test('a bucket that was shared with fish of another water makes everybody new to everybody; another bucket in between changes nothing', () => {
  const rows: [number, Made][] = [[0, arrive()], [1, arrive({ lot: 'L2', tank: 'Q2-01' })], [2, arrive({ lot: 'L3', tank: 'Q1-02' })]]
  const trip = (...places: string[]): [number, Made][] => places.slice(1).map((to, index) => [days(5) + index, { kind: 'move', lot: 'L1', from: places[index] ?? '', to, n: 6 }])
  const resident = (more: [number, Made][]): string[] => causesOf(clockOf(roomAfter(days(9), [...rows, ...more]), 'L3', 'Q1-02'))
  expect(resident(trip('Q1-01', 'vessel:b1', 'Q1-01'))).toEqual([])
  expect(resident(trip('Q1-01', 'vessel:b1', 'vessel:b2', 'Q1-01'))).toEqual([])
  const other: [number, Made] = [days(5) + 0.5, { kind: 'move', lot: 'L2', from: 'Q2-01', to: 'vessel:b1', n: 1 }]
  expect(resident([trip('Q1-01', 'vessel:b1')[0]!, other])).toEqual([])
  expect(resident([...trip('Q1-01', 'vessel:b1', 'Q1-01'), other])).toEqual(['addition 5'])
  expect(resident([...trip('Q1-01', 'vessel:b1', 'vessel:b2', 'Q1-01'), other])).toEqual(['addition 5'])
})

test('a movement that was entered before the fish it moves waits for them; one that never fits is ignored', () => {
  const late = [[0, arrive({ n: 2 })], [2, { kind: 'move', lot: 'L1', from: 'Q1-01', to: 'Q2-01', n: 5 }], [3, { kind: 'move', lot: 'L1', from: 'Q2-01', to: 'Q2-02', n: 5 }], [10, arrive({ n: 4 })], [12, { kind: 'look', tank: 'S1-01' }]] as [number, Made][]
  expect(clock(5, late, 'Q2-02').status).toBe('gone')
  expect([clock(13, late, 'Q2-02').status, clock(13, late, 'Q2-01').status, clock(13, late).status]).toEqual(['holding', 'gone', 'holding'])
})

test('fish out of treated water begin their watch that day; in the tank they left it is counted when it is cleared', () => {
  const rows: [number, Made][] = [[0, arrive({ n: 8 })], [days(4), { kind: 'step', tank: 'Q1-01', of: 'dose', agent: 'copperIonic' }], [days(8), { kind: 'move', lot: 'L1', from: 'Q1-01', to: 'Q2-01', n: 3 }]]
  expect(causesOf(clock(days(9), rows, 'Q2-01'))).toEqual(['treatment 4', 'treatment 4'])
  expect(causesOf(clock(days(9), rows))).toEqual(['treatment 4'])
  const cleared: [number, Made] = [days(10), { kind: 'step', tank: 'Q1-01', of: 'cleared', agent: 'copperIonic' }]
  expect(causesOf(clock(days(11), [...rows, cleared]))).toEqual(['treatment 4', 'treatment 6'])
  // What is not in the water cannot be cleared out of it.
  expect(causesOf(clock(days(11), [...rows, [days(10), { kind: 'step', tank: 'Q1-01', of: 'cleared', agent: 'praziquantel' }]]))).toEqual(['treatment 4'])
})

test('an agent keeps fish from release until it is gone: by itself after its days, or when it is cleared', () => {
  const own = watch({ phases: [{ id: 'watch', kind: 'watch', days: 1 }], onTreatment: null, release: [{ gate: 'cleared' }] })
  const ready = (agent: string, hours: number): string => clock(hours, [[0, arrive({ policy: 'own' })], [days(2), { kind: 'step', tank: 'Q1-01', of: 'dose', agent }]], 'Q1-01', [own]).status
  expect([ready('formalin', days(4) + 14), ready('formalin', days(4) + 16), ready('copperIonic', days(90))]).toEqual(['holding', 'ready', 'holding'])
})

test('a last phase made longer takes back who had passed it, and keeps the day it began', () => {
  const own = watch()
  const rows: [number, Made][] = [[0, arrive({ policy: 'own' })], [days(11), { kind: 'lengthen', lot: 'L1', tank: 'Q1-01', days: 5, reason: 'not sure' }]]
  expect(clock(days(10), rows, 'Q1-01', [own])).toMatchObject({ status: 'ready', earliest: '2031-05-11' })
  expect(clock(days(11), rows, 'Q1-01', [own])).toMatchObject({ status: 'holding', day: 12, of: 15, phaseBegunOn: '2031-05-01', earliest: '2031-05-16', restarts: [] })
  expect(clock(days(15), rows, 'Q1-01', [own])).toMatchObject({ status: 'ready', earliest: '2031-05-16' })
})

test('who has no hold begins one untold; who ended one begins anew, and what was before is no part of it', () => {
  const begin = (at: number): [number, Made] => [at, { kind: 'policy', lot: 'L1', tank: 'Q1-01', to: 'shopHold', reason: 'spots next door' }]
  expect(clock(days(3), [[0, arrive({ policy: null })], begin(days(2))])).toMatchObject({ status: 'holding', begunOn: '2031-05-03', day: 2, restarts: [] })
  const ended: [number, Made][] = [[0, arrive({ policy: 'shopHold' })], [days(1), { kind: 'sign', tank: 'Q1-01', word: 'spots', decision: 'confirmed' }], [days(4), { kind: 'end', lot: 'L1', tank: 'Q1-01', reason: 'tank needed' }]]
  expect(clock(days(5), ended)).toMatchObject({ status: 'endedEarly', ended: { on: '2031-05-05', days: 11, gates: [], reason: 'tank needed' } })
  expect(clock(days(5), [...ended, begin(days(5))])).toMatchObject({ status: 'holding', begunOn: '2031-05-06', restarts: [], ended: null })
})

test('a count that finds more fish restarts nothing; one that finds some where none stood are fish without a hold', () => {
  const found = (tank: string, by: number): [number, Made] => [days(3), { kind: 'count', lot: 'L1', tank, by }]
  expect(clock(days(4), [[0, arrive()], found('Q1-01', 2)])).toMatchObject({ status: 'holding', restarts: [] })
  expect(clock(days(4), [[0, arrive()], found('S1-01', 2)], 'S1-01')).toMatchObject({ status: 'noHold' })
  expect(clock(days(4), [[0, arrive()], found('Q1-01', -6)])).toMatchObject({ status: 'gone' })
})

test('a pairing counts only for fish that have met nobody since it began', () => {
  const own = watch({ phases: [{ id: 'pair', kind: 'watch', days: 0, gates: [{ gate: 'pairing' }] }], onAddition: null })
  const pairing = (startedAt: number): [number, Made] => [days(9), { kind: 'pairing', lots: ['L1', 'L2'], startedAt: startAt + startedAt * 60, result: 'passed' }]
  const rows: [number, Made][] = [[0, arrive({ policy: 'own' })], [days(3), arrive({ lot: 'L3', tank: 'Q1-02' })]]
  expect(clock(days(10), [...rows, pairing(days(2))], 'Q1-01', [own]).waitsFor).toEqual(['pairing'])
  expect(clock(days(10), [...rows, pairing(days(4))], 'Q1-01', [own]).status).toBe('ready')
})

test('what was known on a day is what the clock said then', () => {
  const events = happened([[0, arrive()], [days(6), { kind: 'sign', tank: 'Q1-01', word: 'spots', decision: 'confirmed' }], [days(6), { kind: 'sign', tank: 'Q1-01', word: 'spots', decision: 'dismissed' }]])
  const written = events.map((event, index) => ({ ...event, recordedAt: startAt + [0, days(6), days(8)][index]! * 60, ...(index === 2 ? { replaces: 'e01' } : {}) }) as HoldEvent)
  const causes = (known: number): string[] => eventsInForce(written, startAt + days(9) * 60, startAt + known * 60).map(({ id }) => id)
  expect([causes(days(5)), causes(days(7)), causes(days(9))]).toEqual([['e00'], ['e00', 'e01'], ['e00', 'e02']])
})

/** Gives a gate what it waits for, an hour later. */
function answered(name: string, phase: string | null, policy: HoldPolicy): Made[] {
  const gates = [...(policy.phases.find(({ id }) => id === phase)?.gates ?? []), ...policy.release]
  const named = gates.find((gate): gate is Extract<Gate, { gate: 'reading' }> => gate.gate === 'reading' && name === `reading:${gate.what}`)
  const place = { tank: 'Q1-01', lot: 'L1' }
  if (name === 'eating') return [{ kind: 'meal', ...place, answer: 'all' }]
  if (name === 'fillingOut') return [{ kind: 'body', ...place, state: 'normal' }]
  if (name === 'pairing') return [{ kind: 'pairing', lots: ['L1', 'L2'], startedAt: startAt + 60, result: 'passed' }]
  if (name === 'looked') return [{ kind: 'look', tank: 'Q1-01' }]
  if (name === 'cleared') return ['praziquantel', 'acriflavine', 'metronidazole', 'copperIonic'].map((agent) => ({ kind: 'step', tank: 'Q1-01', of: 'cleared', agent }))
  if (name.startsWith('steps:')) return [{ kind: 'step', ...place, of: name.slice(6) as 'dose', ...(name === 'steps:dose' ? { agent: 'praziquantel' } : {}) }]
  return named ? [{ kind: 'reading', tank: 'Q1-01', what: named.what, value: named.lo ?? named.hi ?? 0 }] : []
}

test.each(shippedPolicies.map((policy) => [policy.id, policy] as const))('%s is sound, and ends after the sum of its phases when every gate is given as soon as it is asked', (id, policy) => {
  expect(policyProblems(policy)).toEqual([])
  const rows: [number, Made][] = [[0, arrive({ policy: id })]]
  const served = policy.phases.reduce((sum, { days: each }) => sum + each, 0)
  for (let hour = 1; hour <= days(served) + 20; hour += 1) {
    const now = clock(hour, rows, 'Q1-01')
    const level = policy.phases.find((each) => each.id === now.phase)?.level
    if (level && hour % 24 === 12) rows.push([hour, { kind: 'reading', tank: 'Q1-01', what: level.what, value: level.hi ?? 0 }])
    for (const name of now.waitsFor) {
      // A transfer every third day; everything else at once.
      if (name === 'steps:transfer' && hour % 72 !== 0) continue
      for (const event of answered(name, now.phase, policy)) rows.push([hour, event])
    }
  }
  const ready = clock(days(served) + 21, rows)
  expect([ready.status, ready.restarts.filter(({ cause }) => cause !== 'treatment')]).toEqual(['ready', []])
})

test.each<[string, Partial<HoldPolicy>]>([
  ['phase named twice', { phases: [{ id: 'watch', kind: 'watch', days: 3 }, { id: 'watch', kind: 'watch', days: 4 }] }],
  ['unknown kind of phase', { phases: [{ id: 'watch', kind: 'rest' as 'watch', days: 3 }] }],
  ['days not 0 to 365', { phases: [{ id: 'watch', kind: 'watch', days: 2.5 }] }],
  ['days not 0 to 365', { phases: [{ id: 'watch', kind: 'watch', days: 366 }] }],
  ['unknown way of counting', { phases: [{ id: 'watch', kind: 'watch', days: 3, counts: 'nights' as 'looked' }] }],
  ['level without a range', { phases: [{ id: 'watch', kind: 'watch', days: 3, counts: 'atLevel', level: { what: 'copper', lo: null, hi: null, gapDays: 1 } }] }],
  ['range upside down', { phases: [{ id: 'watch', kind: 'watch', days: 3, counts: 'atLevel', level: { what: 'copper', lo: 0.2, hi: 0.1, gapDays: 1 } }] }],
  ['phase without days or gates', { phases: [{ id: 'watch', kind: 'watch', days: 0 }] }],
  ['unknown gate', { release: [{ gate: 'steps', of: 'dose', times: 1 }] }],
  ['goes back to no phase', { onAddition: { by: 'water', from: 'any', back: 'observe' } }],
  ['own treatment would restart it', { phases: [{ id: 'watch', kind: 'watch', days: 3, gates: [{ gate: 'steps', of: 'feed', times: 2 }] }] }],
])('a policy is refused: %s', (problem, change) => {
  expect(policyProblems(watch(change))).toEqual([problem])
})

test('no rule ever chooses a policy whose medicine is refused for the fish, or for what is in their water', () => {
  const groups = ['dragonet', 'wrasse', 'invertebrate', 'softWaterFish', 'other', null]
  const rule = fc.record({ policy: fc.constantFrom(...shippedPolicies.map(({ id }) => id)), water: fc.option(fc.constantFrom('marine', 'fresh'), { nil: undefined }), group: fc.option(fc.constantFrom('dragonet', 'wrasse'), { nil: undefined }) })
  fc.assert(fc.property(fc.array(rule), fc.constantFrom(...groups), fc.boolean(), fc.subarray(['carbon', 'plants', 'with:formalin', 'livingFilter']), (rules, group, isWeak, contents) => {
    const { policy, rule: chosen, skipped } = policyFor(rules, { water: 'marine', group, supplier: null, origin: null, isWeak }, contents, policiesById())
    const { agents } = shippedPolicies.find(({ id }) => id === policy)!
    const conditions = [...(group === null ? ['unknownSpecies'] : [group]), ...(isWeak ? ['weakFish'] : []), ...contents]
    expect(agents.flatMap((agent) => conditions.filter((condition) => ['R', 'X'].includes(shippedMatrix[condition]?.[agent] ?? 'A')))).toEqual([])
    expect(skipped.every(({ why }) => why.length > 0) && (chosen === null ? policy === 'shopHold' : rules[chosen]?.policy === policy)).toBe(true)
  }), { numRuns: tries(1000, 300) })
})

// The table of the specification: chance that a carrier would have shown, in per cent, groups of 20; and what 19 % becomes after a week.
test.each([
  [1, [0, 0, 2.2], [0, 1.5, 27], [0.3, 9.2, 48], [1.5, 17, 50], [19, 17, 11]],
  [2, [0, 0.2, 7.8], [0.1, 5.7, 63], [1.3, 27, 76], [5, 36, 76], [19, 15, 5.1]],
  [3, [0, 0.4, 15], [0.2, 12, 84], [2.7, 44, 89], [9.7, 51, 89], [19, 11, 2.3]],
  [5, [0, 1.1, 33], [0.6, 28, 98], [7.1, 69, 98], [21, 72, 98], [18, 6.5, 0.4]],
  [10, [0, 4, 70], [2.4, 69, 100], [24, 96, 100], [48, 96, 100], [15, 1, 0]],
])('a pairing of %d of each shows what the published table says', (paired, oneDay, threeDays, week, fortnight, risk) => {
  const looks = [1, 2, 3, 5, 7, 10, 14]
  const near = (share: number | null, percent: number): boolean => Math.abs(100 * (share ?? NaN) - percent) <= (percent >= 10 ? 0.5 : 0.05) + 1e-9
  const shown = (until: number): number[] => (['low', 'likely', 'high'] as const).map((name) => chanceToShow({ n: 20, paired }, paired, looks.filter((at) => at <= until), shippedEvidence[name]))
  for (const [until, percents] of [[1, oneDay], [3, threeDays], [7, week], [14, fortnight]] as const) expect(shown(until).map((share, index) => near(share, percents[index] ?? NaN))).toEqual([true, true, true])
  const proof = pairingEvidence({ a: { n: 20, paired }, b: { n: 20, paired }, looks: [24, 48, 72, 120, 168].map((h) => ({ h, isSign: false })), nowH: 169 })
  expect([proof.risk.low, proof.risk.likely, proof.risk.high].map((share, index) => near(share, risk[index] ?? NaN))).toEqual([true, true, true])
})

test('more clean looks and more fish never prove less; a look that was missed is named', () => {
  fc.assert(fc.property(fc.integer({ min: 2, max: 60 }), fc.integer({ min: 1, max: 6 }), fc.subarray([1, 2, 3, 5, 7, 10], { minLength: 1 }), (n, paired, looks) => {
    const { likely } = shippedEvidence
    const chosen = Math.min(paired, n - 1)
    const base = chanceToShow({ n, paired: chosen }, chosen, looks, likely)
    expect(base).toBeGreaterThanOrEqual(0)
    expect(chanceToShow({ n, paired: chosen }, chosen, [...looks, 12], likely)).toBeGreaterThanOrEqual(base - 1e-9)
    expect(chanceToShow({ n, paired: chosen + 1 }, chosen + 1, looks, likely)).toBeGreaterThanOrEqual(base - 1e-9)
    expect(chanceToShow({ n, paired: chosen + 1 }, chosen + 1, looks, likely)).toBeLessThanOrEqual(1 + 1e-9)
  }), { numRuns: tries(500, 60) })
  const { verdict, missing, blocksMerge } = pairingEvidence({ a: { n: 9, paired: 2 }, b: { n: 9, paired: 2 }, looks: [24, 80].map((h) => ({ h, isSign: false })), nowH: 100 })
  expect([verdict, missing, blocksMerge]).toEqual(['running', [48], true])
})

test('before a release the salinity goes to the house in equal daily steps, none above its limit, and fish stand a day at it', () => {
  fc.assert(fc.property(fc.double({ min: 8, max: 40, noNaN: true }), fc.integer({ min: 0, max: 20 }), (now, ahead) => {
    const today = '2031-05-10'
    const earliest = `2031-05-${String(10 + ahead).padStart(2, '0')}`
    const { answer, on, raise, missing } = releaseCheck({ today, clock: { status: 'ready', earliest, waitsFor: [] }, volumeL: 100, salinity: { now, house: 34 }, upPpt: 45 })
    const isOff = Math.abs(34 - now) > 1
    expect([answer, missing, raise.length > 0]).toEqual(isOff ? ['wait', ['salinity'], true] : ['release', [], false])
    expect(raise.every(({ from, to, on: stepOn }, index) => Math.abs(to - from) <= (to > from ? 3 : 12) + 1e-9 && daysBetween(stepOn, on ?? '') === raise.length - index && stepOn >= today)).toBe(true)
    if (isOff) expect([raise[0]?.from, raise.at(-1)?.to, on! >= earliest]).toEqual([now, expect.closeTo(34, 9), true])
    // What is taken out and put in comes to the step.
    expect(raise.every(({ from, to, swapL }) => Math.abs((from * (100 - swapL) + (to > from ? 45 : 0) * swapL) / 100 - to) < 1e-9)).toBe(true)
  }), { numRuns: tries(500, 100) })
})

test('a hold as a bar: what was passed as long as it took, what is to come as long as it takes at least; the wish stands beside the floor', () => {
  const own = watch({ phases: [{ id: 'settle', kind: 'condition', days: 2, gates: [{ gate: 'fillingOut' }] }, { id: 'watch', kind: 'watch', days: 5, wishDays: 9 }, { id: 'last', kind: 'watch', days: 3 }], onSign: { back: 'watch', reach: 'tank', words: ['spots'] } })
  const rows: [number, Made][] = [[0, arrive({ policy: 'own' })], [days(3), { kind: 'body', tank: 'Q1-01', state: 'full' }], [days(5), { kind: 'sign', tank: 'Q1-01', word: 'spots', decision: 'confirmed' }]]
  const bar = (hours: number) => holdBar(roomAfter(hours, rows, [own]), 'L1', 'Q1-01')
  const part = (phase: string, from: string, to: string, state: string) => ({ phase, kind: phase === 'settle' ? 'condition' : 'watch', from: `2031-05-${from}`, to: `2031-05-${to}`, state })
  expect(bar(days(4))).toEqual({ from: '2031-05-01', today: '2031-05-05', earliest: '2031-05-12', wish: '2031-05-16', restarts: [], parts: [part('settle', '01', '04', 'passed'), part('watch', '04', '09', 'now'), part('last', '09', '12', 'later')] })
  // After a sign the watch is drawn from the day it began again; what went before is its mark.
  expect(bar(days(6))).toMatchObject({ earliest: '2031-05-14', restarts: [{ on: '2031-05-06', cause: 'sign', lost: 2 }], parts: [part('settle', '01', '04', 'passed'), part('watch', '06', '11', 'now'), part('last', '11', '14', 'later')] })
  expect(bar(days(20))).toMatchObject({ earliest: '2031-05-14', wish: null, parts: [{ state: 'passed' }, { state: 'passed' }, part('last', '11', '14', 'passed')] })
  expect(holdBar(roomAfter(5, rows, [own]), 'L1', 'Q2-01')).toBeNull()
})

test('a hold by itself: nothing is short on the day it is ready, and day by day it only comes nearer', () => {
  expect(Array.from({ length: 14 }, (_, index) => clock(index * day + 1, [[0, arrive({ policy: 'shopHold' })]])).map(({ day: at, earliest }) => `${at} ${earliest}`)).toEqual(Array.from({ length: 14 }, (_, index) => `${index + 1} 2031-05-15`))
})
