import { expect, test } from '@jest/globals'
import type { HoldClock } from './holdClock'
import { causeWords, clockWords, decideWords, endEarlyWords, endedWords, expectedWords, exposedWords, gateWords, pairingWords, restartWords, whatIfWords } from './holdWords'
import { pairingEvidence } from './pairingEvidence'

const clock = (change: Partial<HoldClock> = {}): HoldClock => ({ status: 'holding', policy: 'observeFirst', phase: 'observe', day: 5, of: 14, begunOn: '2031-05-01', phaseBegunOn: '2031-05-01', restarts: [], waitsFor: ['days', 'eating'], earliest: '2031-05-15', ifSign: '2031-05-19', ifAddition: null, undecided: [], ended: null, departures: [], ...change })

test.each<[string, Partial<HoldClock>, string | null]>([
  ['on its way', {}, 'Observe day 5 of 14; ready not before Thu 15 May. Waits for eating.'],
  ['with nothing but days', { waitsFor: ['days'] }, 'Observe day 5 of 14; ready not before Thu 15 May.'],
  ['served, one gate closed', { day: 20, waitsFor: ['decision'], earliest: '2031-05-20' }, '14 days served; waits for a decision.'],
  ['a phase of gates alone', { phase: 'pair', day: 1, of: 0, waitsFor: ['eating', 'pairing'] }, 'Observe: waits for eating and a passed pairing; ready not before Thu 15 May.'],
  ['all passed, not released', { phase: null, day: null, of: null, waitsFor: ['cleared', 'eating', 'looked'] }, 'All days served; waits for clear water, eating and a look.'],
  ['ready', { status: 'ready', phase: null, day: null, of: null, waitsFor: [] }, 'Ready since Thu 15 May.'],
  ['no hold', { status: 'noHold', earliest: null }, null],
])('a clock in words: %s', (_what, change, words) => expect(clockWords(clock(change), 'observe')).toBe(words))

test('what began a hold again is told with its day and its cost', () => {
  const on = { on: '2031-05-08', lost: 1 }
  expect(restartWords(on, { cause: 'sign', word: 'spots', tank: 'Q1-02' })).toBe('Began again on Thu 8 May: sign spots in Q1-02 (1 day lost).')
  expect(causeWords({ cause: 'addition', lot: '31-07', by: 'tank' })).toBe('31-07 came into its tank')
  expect(causeWords({ cause: 'treatment' })).toBe('treatment')
  expect(causeWords({ cause: 'exposure', what: 'a net' })).toBe('breach (a net)')
  expect(causeWords({ cause: 'policy', policy: 'Copper ladder', reason: 'spots came back' })).toBe('now Copper ladder: spots came back')
})

test('what is to be decided, and what was to be expected', () => {
  expect(decideWords({ count: 2, word: 'clamped fins', tank: 'Q1-01', when: 'Sat 08:10', lots: ['31-01', '31-04'], before: '2031-05-15', after: '2031-05-22' })).toBe('2 to decide: clamped fins, Q1-01, Sat 08:10. If it counts, 31-01 and 31-04 restart: Thu 22 May instead of Thu 15 May.')
  expect(expectedWords('Sun 09:00', 'the crossing')).toBe('A usual sign until Sun 09:00 after the crossing: noted, nothing restarts.')
  expect(exposedWords(clock())).toBe('A sign today would mean Mon 19 May.')
  expect(exposedWords(clock({ ifAddition: '2031-05-20' }))).toBe('A sign today would mean Mon 19 May; fish added today Tue 20 May.')
  expect(exposedWords(clock({ ifSign: null, ifAddition: '2031-05-20' }))).toBe('Fish added today would mean Tue 20 May.')
  expect(exposedWords(clock({ ifSign: null }))).toBeNull()
})

test('what something would do: whose dates move, who would stand unseen, or nobody', () => {
  const row = (lot: string, before: string | null, after: string) => ({ lot, tank: 'Q1-01', before, after, lost: 7, causes: ['addition'] })
  const said = (rows: ReturnType<typeof row>[], unprotected: { lot: string; tank: string }[] = []) => whatIfWords({ rows, unprotected }, (lot) => `lot ${lot}`, 'Firefish into Q1-02')
  expect(said([row('1', '2031-05-15', '2031-05-22'), row('new', null, '2031-05-22')])).toEqual(['Firefish into Q1-02: 7 days for lot 1 (Thu 15 May becomes Thu 22 May).'])
  expect(said([], [{ lot: '9', tank: 'Q1-01' }])).toEqual(['lot 9 has no hold and would stand with held fish: no clock would show it.'])
  expect(said([row('1', '2031-05-15', '2031-05-22'), row('2', '2031-05-16', '2031-05-22'), row('3', '2031-05-15', '2031-05-22')])).toEqual(['Firefish into Q1-02: 7 days for lot 1 and lot 3 (Thu 15 May becomes Thu 22 May).', 'Firefish into Q1-02: 7 days for lot 2 (Fri 16 May becomes Thu 22 May).'])
  const standing = ['1', '2', '3', '4', '5', '5'].map((lot) => ({ lot, tank: 'Q1-01' }))
  expect(said([], standing)).toEqual(['lot 1, lot 2, lot 3 and 2 more lots have no hold and would stand with held fish: no clock would show it.'])
  expect(said([row('new', null, '2031-05-22')])).toEqual(['Moves nobody’s clock.'])
})

test('an end before its time says what is missing, and what was said of it', () => {
  expect(endEarlyWords({ days: 6, gates: ['eating', 'reading:copper'] })).toBe('6 days short, and eating and a reading of copper in its range. Why?')
  expect(endEarlyWords({ days: 1, gates: [] })).toBe('1 day short. Why?')
  expect(endedWords({ days: 7, gates: [], reason: 'tank needed' })).toBe('Ended 7 days early: tank needed.')
  expect(endedWords({ days: 0, gates: ['looked'], reason: null })).toBe('Ended without a look: nobody said why.')
  expect(endedWords({ days: 0, gates: [], reason: null })).toBe('Ended when it was ready.')
  expect(['steps:transfer', 'reading:copper', 'salinity'].map(gateWords)).toEqual(['transfers', 'a reading of copper in its range', 'the salinity of the house'])
})

test('a pairing says what it proves, and that one of each proves little', () => {
  const looks = [24, 48, 72, 120, 168].map((h) => ({ h, isSign: false }))
  const proof = (paired: number, sign = false) => pairingEvidence({ a: { n: 20, paired }, b: { n: 20, paired }, looks: sign ? [...looks, { h: 169, isSign: true }] : looks, nowH: 170 })
  expect(pairingWords(proof(1), 7)).toBe('Clean for 7 days. If one group carried something, it would have shown with 9 % (under 1–48). Risk of merging about 17 %, before 19 %; 2 fish at risk instead of 40. This proves little; more fish of each would.')
  expect(pairingWords(proof(5), 7)).toBe('Clean for 7 days. If one group carried something, it would have shown with 69 % (7–98). Risk of merging about 6 %, before 19 %; 10 fish at risk instead of 40.')
  expect(pairingWords(proof(5, true), 7)).toBe('A sign was seen that was not to be expected: the groups stay apart.')
})
