import { describe, expect, test } from '@jest/globals'
import { drawnCrates } from '../testing/lossRows'
import { crateSteps, isAlarming, waterSteps, type AlarmLot } from './alarmStreams'
import { evidenceOf, evidenceWords, type EvidenceAsked } from './evidenceOf'
import { evidenceNames } from './causeTable'
import { mulberry } from './mulberry'
import { groupOfLot, leftOutWords, seasonOf, strataOfLot, transitClass, type OutcomeExit, type OutcomeLot } from './outcomeLot'
import { outcomesPage, theOthers, type OutcomesQuestion } from './outcomesPage'
import { shippedOutcomes } from './outcomeRules'
import type { LossMovement, RiskLot } from './riskSets'
import { usualLosses, usualShareBy } from './usualLosses'

const lot = (crate: string, more: Partial<OutcomeLot> = {}): OutcomeLot => ({
  ...{ lot: `l${crate}`, code: crate, crate, crateNumber: 1, crateId: crate, species: 'Cherry barb', strain: null, origin: 'pond raised', supplier: 'Hollow Reed', condition: 'sound', transitHours: 9, school: 'Net-over', hold: null, water: 'Rack' },
  ...{ opened: '2031-03-01', received: 20, deadInBag: 0, n: 20, exits: [], events: [], until: 40, missing: 0, corrected: 0, shared: 0 },
  ...more,
})
const question: OutcomesQuestion = { by: 'supplier', day: 14, died: 'anything', supplier: null, species: null, origin: null, from: null, until: null, pair: null }
const asked = (lots: OutcomeLot[], more: Partial<OutcomesQuestion> = {}) => outcomesPage({ lots, today: '2031-05-04', question: { ...question, ...more }, rules: shippedOutcomes })

describe('what lots are told by', () => {
  test('months, no names of seasons; hours by the limits of the house; a lot of several schools is left out and said to be', () => {
    expect(['2031-12-31', '2031-01-01', '2031-03-01', '2031-08-31', '2031-11-30'].map(seasonOf)).toEqual(['Dec–Feb', 'Dec–Feb', 'Mar–May', 'Jun–Aug', 'Sep–Nov'])
    expect([1.9, 2, 8, 29.9, 30].map((hours) => transitClass(hours, shippedOutcomes))).toEqual(['under 2 h', '2 to 8 h', '8 to 30 h', '8 to 30 h', '30 h and more'])
    const mixed = lot('c1', { school: 'mixed' })
    expect([groupOfLot(mixed, 'school', shippedOutcomes), leftOutWords(mixed, 'school', shippedOutcomes), leftOutWords(lot('c2', { transitHours: null }), 'transit', shippedOutcomes)]).toEqual([null, 'began in several schools', 'packing time not said'])
    expect(strataOfLot(lot('c1'), 'school', shippedOutcomes)).toEqual(['Cherry barb, sound, 8 to 30 h', 'Cherry barb, sound', 'sound'])
  })
})

/** Crates of a kind with a loss, as lots of a supplier. */
function cratesOf(seed: number, supplier: string, species: string, crates: number, loss: number): OutcomeLot[] {
  return drawnCrates(mulberry(seed), { group: `${supplier}${species}`, crates, loss, icc: 0.05, fish: [15, 30] }).map((row) => lot(row.crate, { lot: `${row.crate}-l`, supplier, species, n: row.n, received: row.n, exits: row.out.map(({ day, dead }): OutcomeExit => [day, 7, dead]) }))
}

test('a supplier who sends the delicate kinds looks bad over all fish, and is no worse like for like: the ranking does not fall for it either', () => {
  const lots = [...cratesOf(1, 'Brackwater', 'Knight goby', 14, 0.25), ...cratesOf(2, 'Brackwater', 'Zebra danio', 5, 0.02), ...cratesOf(3, 'Hollow Reed', 'Knight goby', 5, 0.25), ...cratesOf(4, 'Hollow Reed', 'Zebra danio', 14, 0.02)]
  const { comparisons, ranking } = asked(lots)
  const [only] = comparisons
  expect([only?.comparison.used, only?.word === 'clear' || only?.word === 'likely']).toEqual(['adjusted', false])
  expect(Math.abs(only?.comparison.difference ?? 0)).toBeGreaterThan(0.08)
  expect(Math.abs(only?.comparison.adjusted?.difference ?? 1)).toBeLessThan(Math.abs(only?.comparison.difference ?? 0) / 2)
  expect(ranking?.groups.every(({ word }) => word === 'not apart')).toBe(true)
})

test('each group is held against all others in one family; filters and months leave out what they say', () => {
  const lots = ['A', 'B', 'C'].flatMap((supplier, index) => cratesOf(10 + index, supplier, 'Cherry barb', 5, index === 2 ? 0.4 : 0.05))
  const { comparisons, tests, groups } = asked(lots)
  expect([groups.length, tests, comparisons.every(({ b }) => b === theOthers)]).toEqual([3, 3, true])
  expect(comparisons[0]).toMatchObject({ a: 'C', better: theOthers, sentence: expect.stringContaining('Seen, not tried') })
  expect(asked(lots, { pair: ['A', 'C'] }).comparisons).toHaveLength(1)
  expect([asked(lots, { supplier: 'A' }).sentence, asked(lots, { from: '2031-04' }).sentence]).toEqual(['Nothing to compare: all of these fish are of one group.', 'No lot of these has been opened yet.'])
})

describe('what is to be expected', () => {
  const died = (on: string, day: number, fish: number) => ({ ...({ crate: on, n: 100, until: 60 } as const), opened: on, species: 'Otocinclus', out: [{ day, dead: fish, gone: 0 }] })
  test('an outbreak of the last weeks does not hide itself; a kind that dies easily is expected to', () => {
    const [before, after] = [usualLosses([died('2031-01-01', 5, 40)], '2031-05-04', shippedOutcomes), usualLosses([died('2031-04-20', 5, 40)], '2031-05-04', shippedOutcomes)]
    expect([before.factorOf('Otocinclus') > 2, after.factorOf('Otocinclus'), after.factorOf('nobody knows')]).toEqual([true, 1, 1])
    expect(usualShareBy(14, 'Otocinclus', before)).toBeGreaterThan(usualShareBy(14, 'Guppy', before))
  })
  test('a delivery is no step above the usual by being one; what jumped is no loss of the water; a crate speaks once its week is over', () => {
    const move = (seq: number, kind: LossMovement['kind'], from: string, to: string, quantity: number, on: string, cause: string | null = null): LossMovement => ({ seq, id: `m${seq}`, kind, lot: 'A', from, to, quantity, on, cause })
    const movements = [move(1, 'arrive', 'outside', 'bag', 100, '2031-05-01'), move(2, 'move', 'bag', 'T1', 100, '2031-05-01'), move(3, 'loss', 'T1', 'outside', 2, '2031-05-02', 'found dead'), move(4, 'loss', 'T1', 'outside', 5, '2031-05-02', 'jumped')]
    const usual = usualLosses([], '2031-05-04', shippedOutcomes)
    const steps = waterSteps({ movements, lots: new Map([['A', { opened: '2031-05-01' }]]), speciesOf: () => 'Guppy', waterOf: (place) => (place === 'T1' ? 'W' : null), today: '2031-05-04', usual })
    expect(steps.get('W')?.map(({ on, dead, expected }) => [on, dead, Math.round(expected * 100) / 100])).toEqual([['2031-05-01', 0, 1], ['2031-05-02', 2, 1], ['2031-05-03', 0, 0.56], ['2031-05-04', 0, 0.56]])
    expect([isAlarming('jumped'), isAlarming('not found'), isAlarming(null)]).toEqual([false, true, true])
    const risk: RiskLot & AlarmLot = { lot: 'A', crate: 'c1', species: 'Guppy', supplier: 'Hollow Reed', opened: '2031-05-01', received: 100, deadInBag: 1, n: 99, out: [{ day: 1, dead: 7, gone: 0, kinds: { 'found dead': 2, jumped: 5 } }], until: 9, left: 92, missing: 0, corrected: 0, shared: 0 }
    const ofSupplier = (today: string) => crateSteps([risk], ({ supplier }) => supplier, today, usual).get('Hollow Reed')
    expect([ofSupplier('2031-05-08'), ofSupplier('2031-05-09')?.map(({ on, dead }) => [on, dead])]).toEqual([undefined, [['2031-05-08', 3]]])
  })
})

describe('evidence', () => {
  const nothing: EvidenceAsked = { lots: [], losses: [], signs: [], looks: [], otherLotsHere: null, otherTanksHere: null, sameCrateElsewhere: null, isAllAtOnce: false, readingOff: null, newcomers: null, movedLately: null }
  test('is unknown where nobody looked or measured, whatever is asked', () => expect(Object.values(evidenceOf(nothing, shippedOutcomes)).every((answer) => answer === 'unknown')).toBe(true))
  test('is no only where it was looked for and is not so', () => {
    const told = evidenceOf({ ...nothing, looks: [{ ate: 'none', hoursAgo: 5 }, { ate: 'none', hoursAgo: 29 }, { ate: 'not fed', hoursAgo: 40 }, { ate: 'none', hoursAgo: 53 }], losses: [{ day: 2, hoursAgo: 4, cause: 'found dead', fish: 3 }], lots: [{ deadInBag: 0, transitHours: 31, isWeak: null, run: { worst: 1.4, binds: 'dose', hasBinder: false } }] }, shippedOutcomes)
    expect(told).toMatchObject({ gasping: 'no', spots: 'no', stillEating: 'no', notEating: 'yes', early: 'yes', late: 'no', deadInBag: 'no', longTransit: 'yes', weakOnArrival: 'unknown', ammoniaOverLimit: 'yes', stepOverLimit: 'unknown', noBody: 'no', thin: 'no' })
  })
  test('while a binder works, nobody knows of ammonia', () => expect(evidenceOf({ ...nothing, lots: [{ deadInBag: null, transitHours: null, isWeak: null, run: { worst: 0.3, binds: 'nh3', hasBinder: true } }] }, shippedOutcomes)).toMatchObject({ ammoniaOverLimit: 'unknown', stepOverLimit: 'no' }))
  test('every piece of it has words', () => expect(evidenceNames.filter((name) => evidenceWords[name] === undefined)).toEqual([]))
})
