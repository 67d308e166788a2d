import { expect, test } from '@jest/globals'
import { noHandling } from '../species/handling'
import type { LotFacts, Look } from '../facts/facts'
import { foodsKnown, asksToday, hungryWords, lotAppetite, usualWords } from './stopWords'
import { lotEvents, type RunOfLot } from './lotEvents'
import { markOf, touchSign, withoutSign } from './markTouch'
import { shippedRoundRules as rules } from './roundRules'

const [hourMs, dayMs] = [3_600_000, 86_400_000]
const nowMs = Date.UTC(2031, 4, 20, 9)
const lot = (change: Partial<LotFacts> = {}): LotFacts => ({
  ...{ lotId: 'a', lotCode: '12-01', speciesId: 's', species: 'Clown loach', origin: 'Hollow Reed', quantity: 5, expected: 5_000_000, sinceMs: nowMs - 8 * dayMs, arrivedAtMs: nowMs - 8 * dayMs, isBeforeBooks: false, hold: null },
  ...{ noted: { sizeCm: null, strain: null, water: null, atMs: 0 }, book: { handling: noHandling, firstMealDays: 2, bearsHunger: null, firstFoods: 'mysis, worms', ways: { shareSeen: 0.5, tolerance: null, habits: ['bottom'], mouth: 'small', massG: null, tradedCm: null, adultCm: null } } },
  ...{ lastAnswer: null, lastMeal: null, refusals: 0, losses: [], doses: [], ...change },
})
const refused = (daysAgo: number): Look => ({ id: `${daysAgo}`, on: '', number: 1, ate: 'none', signs: [], marks: [], answers: [], counts: [], seen: null, expected: 5, note: null, atMs: nowMs - daysAgo * dayMs, recordedAtMs: 0 })
const run = (change: Partial<RunOfLot> = {}): RunOfLot => ({ kind: 'acclimation', schoolKey: 'drip', isDelivery: true, isCrossing: false, darkUntilMs: null, startedAtMs: nowMs - 10 * hourMs, outAtMs: nowMs - 8 * hourMs, ...change })

test('what happened to a lot: how it came, who came to it, what it was bathed or treated with', () => {
  const events = (of: LotFacts, runs: RunOfLot[] = [], others: LotFacts[] = []) => lotEvents(of, { lots: [of, ...others] }, runs, nowMs).map(({ event, school, hoursAgo }) => [event, school ?? null, Math.round(hoursAgo)])
  expect(events(lot())).toEqual([['arrival', null, 192]])
  expect(events(lot({ sinceMs: nowMs - dayMs }))).toEqual([['arrival', null, 192], ['move', null, 24]])
  const justIn = lot({ sinceMs: nowMs - 8 * hourMs, arrivedAtMs: nowMs - 11 * hourMs })
  expect(events(justIn, [run()])).toEqual([['arrival', 'drip', 8]])
  expect(events(justIn, [run({ isCrossing: true, outAtMs: null, schoolKey: 'ramp' })])).toEqual([['arrival', 'ramp', 0], ['crossing', 'ramp', 0]])
  expect(events(justIn, [run({ darkUntilMs: nowMs + hourMs })])).toEqual([['arrival', 'drip', 8], ['dark', null, 0]])
  expect(events(lot(), [run({ kind: 'bath', isDelivery: false }), run({ kind: 'look' })])).toEqual([['bath', null, 8], ['arrival', null, 192]])
  expect(events(lot({ isBeforeBooks: true }), [], [lot({ lotId: 'b', sinceMs: nowMs - 5 * hourMs })])).toEqual([['company', null, 5]])
  const dose = (seq: number, daysAgo: number, value: number) => ({ seq, what: 'copper', value, instrument: null, lotId: null, atMs: nowMs - daysAgo * dayMs })
  // Begun, kept, raised: what only keeps a level explains nothing.
  expect(events(lot({ isBeforeBooks: true, doses: [dose(3, 1, 20), dose(2, 2, 10), dose(1, 3, 10)] }))).toEqual([['treatment', null, 24], ['treatment', null, 72]])
})

test('what is still usual, what is asked today, and what to try', () => {
  const young = lot({ sinceMs: nowMs - 46 * hourMs, arrivedAtMs: nowMs - 46 * hourMs })
  const inTank = { lot: 'a', fish: 5, days: 2, inHold: true, species: { firstMealDays: 2 }, events: lotEvents(young, { lots: [young] }, [], nowMs) }
  expect(usualWords({ lots: [inTank] }, rules)).toEqual(['hiding usual for 26 h yet', 'eating nothing usual for 2 h yet'])
  expect([asksToday([young], nowMs), asksToday([lot({ isBeforeBooks: true })], nowMs)]).toEqual([['two days here: how does Clown loach look?', 'first meal of Clown loach?'], []])
  const foods = foodsKnown([{ name: 'Frozen mix', servesAs: ['mysis'] }, { name: 'Granules', servesAs: [] }], [{ lotId: 'a', ateBefore: 'Granules; spinach' }])
  const appetite = lotAppetite(lot(), { tankId: 't', looks: [0, 1, 2, 3].map(refused) }, foods, nowMs, rules)
  expect(hungryWords(lot(), appetite)).toBe('Clown loach: no meal for 8 days. Try granules (ate it at the seller’s); mysis (the book names it).')
  expect(hungryWords(lot(), lotAppetite(lot(), { tankId: 't', looks: [] }, foods, nowMs, rules))).toBeNull()
  // The others ate, this lot did not.
  const others = { ...refused(0), ate: 'all' as const, answers: [{ lotId: 'a', ate: 'none' as const }] }
  expect(lotAppetite(lot(), { tankId: 't', looks: [others] }, foods, nowMs, rules).listed).toBe(true)
})

test('touch by touch a sign is there, is clear, is asked about or gone', () => {
  const slight = touchSign([], 'pale', false).marks
  const clear = touchSign(slight, 'pale', false).marks
  expect([slight, clear, touchSign(clear, 'pale', false)]).toEqual([[{ sign: 'pale', severity: 1, lotId: null }], [{ sign: 'pale', severity: 2, lotId: null }], { marks: [], asksWhose: false }])
  expect(touchSign(clear, 'pale', true)).toEqual({ marks: clear, asksWhose: true })
  expect([markOf(clear, 'pale', 'b'), withoutSign(clear, 'pale')]).toEqual([[{ sign: 'pale', severity: 2, lotId: 'b' }], []])
})
