import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { ateAnswers, signs } from '../rounds/rounds.schema'
import { noHandling } from '../species/handling'
import { fightsSince, flagOf, longestHold, lookBefore, lossesSince } from './askFacts'
import { eventsOf } from './eventsOf'
import type { FactEvent, KnownFacts, Look, LotStanding } from './facts'
import { foldAll, foldFacts, nothingKnown } from './foldFacts'
import { observedAt } from './observation'

const dayMs = 86_400_000
const nowMs = Date.UTC(2031, 4, 20, 9)
const bare: KnownFacts = { ...nothingKnown, tankId: 't1' }
const lot = (lotId: string, quantity: number, sinceMs: number, change: Partial<LotStanding> = {}): LotStanding => ({
  ...{ lotId, lotCode: lotId, speciesId: 's', species: 'Cherry barb', origin: 'Hollow Reed', quantity, expected: quantity * 1_000_000, sinceMs, arrivedAtMs: sinceMs, isBeforeBooks: false, hold: null },
  ...{ noted: { sizeCm: null, strain: null, water: null, atMs: 0 }, book: { handling: noHandling, firstMealDays: null, bearsHunger: null, firstFoods: null }, ...change },
})
const look = (id: string, atMs: number, change: Partial<Look> = {}): Look => ({ id, on: '2031-05-20', number: 1, ate: 'all', signs: [], marks: [], answers: [], counts: [], seen: null, expected: 5, note: null, atMs, recordedAtMs: atMs, ...change })
const stands = (standing: LotStanding): FactEvent => ({ kind: 'stands', tankId: 't1', lot: standing })
const checked = (each: Look, replacesId: string | null = null): FactEvent => ({ kind: 'checked', tankId: 't1', look: each, replacesId })
const lost = (id: string, lotId: string, atMs: number, cause = 'found dead'): FactEvent => ({ kind: 'lost', tankId: 't1', loss: { id, lotId, lotCode: lotId, species: 'Cherry barb', poisons: null, quantity: 1, cause, isAttributed: false, atMs } })

test('a lot knows its meals since it came, and nothing of those before', () => {
  const tank = foldAll(bare, [checked(look('a', 10)), checked(look('b', 20, { ate: 'none' })), checked(look('c', 30, { ate: 'not fed' })), stands(lot('old', 3, 5)), stands(lot('new', 4, 15))])
  expect(tank.lots.map(({ lotId, lastMeal, lastAnswer, refusals }) => [lotId, lastMeal?.atMs ?? null, lastAnswer?.ate, refusals])).toEqual([['new', null, 'none', 1], ['old', 10, 'none', 1]])
  const fed = foldFacts(tank, checked(look('d', 40, { ate: 'most' })))
  expect(fed.lots.map(({ lastMeal, refusals }) => [lastMeal, refusals])).toEqual([[{ ate: 'most', atMs: 40 }, 0], [{ ate: 'most', atMs: 40 }, 0]])
  // The touch was wrong: it stands as it was before, and the correction counts.
  const corrected = foldFacts(fed, checked(look('e', 40, { ate: 'none' }), 'd'))
  expect([corrected.looks.map(({ id }) => id), corrected.lots.map(({ refusals }) => refusals)]).toEqual([['e', 'c', 'b', 'a'], [2, 2]])
})

test('losses and fights go with what is taken back; fish that left are gone', () => {
  const tank = foldAll(bare, [stands(lot('a', 5, 0)), lost('m1', 'a', 10), lost('m2', 'a', 20, 'eaten'), checked(look('l', 15, { signs: ['chased'] }))])
  expect([lossesSince(tank, 15).map(({ id }) => id), fightsSince(tank, 0), tank.lots[0]?.losses.length]).toEqual([['m2'], 2, 2])
  const back = foldFacts(tank, { kind: 'taken back', tankId: 't1', movementId: 'm2' })
  expect([fightsSince(back, 0), back.lots[0]?.losses.map(({ id }) => id)]).toEqual([1, ['m1']])
  expect(foldFacts(back, stands(lot('a', 0, 0))).lots).toEqual([])
})

test('readings and doses are told since they came, the newest first; a corrected one is none', () => {
  const measured = (seq: number, atMs: number, lotId: string | null = null) => ({ seq, what: 'copper', value: 0.18, instrument: 'kit', lotId, atMs })
  const tank = foldAll(bare, [stands(lot('a', 5, 100)), { kind: 'dosed', tankId: 't1', measured: measured(1, 50), replacesSeq: null }, { kind: 'dosed', tankId: 't1', measured: measured(2, 150), replacesSeq: null }, { kind: 'dosed', tankId: 't1', measured: measured(3, 160, 'b'), replacesSeq: null }, { kind: 'read', tankId: 't1', measured: measured(4, 170), replacesSeq: null }])
  expect([tank.doses.map(({ seq }) => seq), tank.lots[0]?.doses.map(({ seq }) => seq), tank.readings.length]).toEqual([[3, 2, 1], [2], 1])
  expect(foldFacts(tank, { kind: 'read', tankId: 't1', measured: measured(5, 171), replacesSeq: 4 }).readings.map(({ seq }) => seq)).toEqual([5])
})

const anyEvent: fc.Arbitrary<FactEvent> = fc.oneof(
  fc.record({ lotId: fc.constantFrom('a', 'b', 'c'), sinceMs: fc.nat(50) }).map(({ lotId, sinceMs }) => stands(lot(lotId, 3, sinceMs))),
  fc.record({ id: fc.uuid(), atMs: fc.nat(100), ate: fc.constantFrom(...ateAnswers), seen: fc.uniqueArray(fc.constantFrom(...signs), { maxLength: 2 }) }).map(({ id, atMs, ate, seen }) => checked(look(id, atMs, { ate, signs: seen }))),
  fc.record({ id: fc.uuid(), lotId: fc.constantFrom('a', 'b', 'c'), atMs: fc.nat(100), cause: fc.constantFrom('eaten', 'jumped') }).map(({ id, lotId, atMs, cause }) => lost(id, lotId, atMs, cause)),
)

test('in whatever order devices send what they have, the same is known; one by one or at once; told twice, nothing more', () => {
  fc.assert(
    fc.property(fc.uniqueArray(anyEvent, { maxLength: 12, selector: (event) => (event.kind === 'stands' ? event.lot.lotId : event.kind === 'checked' ? event.look.id : event.kind === 'lost' ? event.loss.id : '') }), fc.infiniteStream(fc.nat(1000)), (events, dice) => {
      const known = foldAll(bare, events)
      const mixed = events.map((event) => ({ event, at: dice.next().value as number })).sort((a, b) => a.at - b.at).map(({ event }) => event)
      expect(foldAll(bare, mixed)).toEqual(known)
      expect(mixed.reduce(foldFacts, bare)).toEqual(known)
      expect(foldAll(known, events)).toEqual(known)
      expect(foldAll({ ...bare, tankId: 'elsewhere' }, events)).toEqual({ ...bare, tankId: 'elsewhere' })
    }),
  )
})

test('a check is taken apart into what it says', () => {
  const marks = [{ sign: 'spots' as const, severity: 2, lotId: 'a' }, { sign: 'spots' as const, severity: 1, lotId: null }]
  expect(observedAt({ ate: 'some', signs: ['hiding', 'spots'], marks, seen: 4, note: 'the left one' }).map(({ kind, word, severity, lotId, value, note }) => [kind, word ?? value ?? note, severity, lotId])).toEqual([
    ['ate', 'some', null, null],
    ['sign', 'hiding', 1, null],
    ['sign', 'spots', 2, 'a'],
    ['sign', 'spots', 1, null],
    ['seen', 4, null, null],
    ['note', 'the left one', null, null],
  ])
})

test('a touch says what it changes before anybody has answered for it', () => {
  const [from, to] = [foldAll(bare, [stands(lot('a', 5, 10))]), foldAll({ ...bare, tankId: 't2' }, [])]
  const tanks = new Map([['t1', from], ['t2', to]])
  const input = { lotId: 'a', quantity: 2, toTankId: 't2', note: null, happenedAtMs: 30 }
  const events = eventsOf({ key: 'k', command: 'moveFish', tankId: 't1', input }, (id) => tanks.get(id))
  const of = (tank: KnownFacts) => foldAll(tank, events).lots.map(({ lotId, quantity, sinceMs }) => [lotId, quantity, sinceMs])
  expect([of(from), of(to)]).toEqual([[['a', 3, 10]], [['a', 2, 30]]])
  expect(eventsOf({ key: 'k', command: 'moveFish', tankId: 't1', input: { ...input, lotId: 'nobody' } }, (id) => tanks.get(id))).toEqual([])
})

test('what facts are asked: the hold that has longest to go, the look before a round, the word on the glass', () => {
  const tank = foldAll(bare, [
    stands(lot('held', 3, nowMs - 3 * dayMs, { hold: { policy: 'Shop hold', day: 4, of: 14, isServed: false, waitsFor: ['days'], earliest: '2031-05-31', added: null } })),
    stands(lot('newer', 9, nowMs - dayMs, { hold: { policy: 'Shop hold', day: 2, of: 14, isServed: false, waitsFor: ['days'], earliest: '2031-06-02', added: null } })),
    stands(lot('born', 2, nowMs - 30 * dayMs)),
    stands(lot('ready', 2, nowMs - 30 * dayMs, { hold: { policy: 'Shop hold', day: 15, of: 14, isServed: true, waitsFor: [], earliest: '2031-06-09', added: null } })),
    checked(look('y', nowMs - dayMs, { on: '2031-05-19', ate: 'none', signs: ['hiding'] })),
    checked(look('t', nowMs - 3_600_000, { ate: 'none' })),
  ])
  expect([longestHold(tank), longestHold(foldFacts(tank, stands(lot('newer', 0, nowMs))))]).toEqual([{ day: 2, of: 14 }, { day: 4, of: 14 }])
  expect([lookBefore(tank, { on: '2031-05-20', number: 1 })?.id, lookBefore(tank, { on: '2031-05-19', number: 1 })]).toEqual(['y', null])
  expect([flagOf(tank, tank.looks[0] ?? null, nowMs), flagOf(foldFacts(tank, lost('m', 'held', nowMs)), null, nowMs)]).toEqual([{ level: 'watch', word: 'ate none' }, { level: 'harm', word: '1 lost' }])
})
