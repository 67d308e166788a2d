import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { tries } from '../testing/tries'
import { addDays, daysBetween } from '../time/daysBetween'
import { shippedAgents, shippedMatrix } from './agents'
import { courseWindows } from './courseWindows'
import { doseCheck, type DoseAsked } from './doseCheck'
import { ladderStep, redoseAfterChange } from './ladderStep'
import { levelEstimate, type LevelEvent } from './levelEstimate'
import { lowSalinityPlan } from './lowSalinityPlan'
import { transferSchedule } from './transferSchedule'
import { treatmentLevel } from './treatmentLevel'

const numRuns = tries(3000, 500)
const agents = Object.keys(shippedAgents)
const groups = ['other', 'invertebrate', 'wrasse', 'dragonet', 'scaleless', null]
const contents = ['rockOrSand', 'carbon', 'uv', 'binder', 'livingFilter', 'plants']
const label = { strengthMgPerMl: 2, strengthBasis: 'as copper', targetMgL: 0.18, targetBasis: 'as copper' }
const asked = (change: Partial<DoseAsked> = {}): DoseAsked => ({ agent: 'copperIonic', label, water: { kind: 'marine', tanks: [{ netL: 100 }], isNeverDosed: true }, fish: [{ group: 'other' }], ...change })

test('a number is worked out only where litres, label and a fresh reading of the right kit are there', () => {
  const reasons = (change: Partial<DoseAsked>): string[] => doseCheck(asked(change)).reasons.map(({ code, answer }) => `${code} ${answer}`)
  const dosed = { kind: 'marine' as const, tanks: [{ netL: 100 }], agents: ['copperIonic'] }
  const level = { c: 0.1, sd: 0.01, ageH: 2, kit: 'copper, ionic', isJump: false }
  expect(reasons({ water: { kind: 'marine', tanks: [], isNeverDosed: true } })).toEqual(['noVolume X'])
  expect(reasons({ water: { kind: 'marine', tanks: [{ netL: 40 }, {}], isNeverDosed: true } })).toEqual(['noVolume X'])
  expect(reasons({ water: { kind: 'marine', tanks: [{ grossL: 100 }], isNeverDosed: true } })).toEqual(['grossVolume W'])
  expect(reasons({ label: null })).toEqual(['noLabel X'])
  expect(reasons({ label: { ...label, targetBasis: 'as product' } })).toEqual(['basis X'])
  expect(reasons({ water: dosed })).toEqual(['readFirst X'])
  expect(reasons({ water: dosed, level: { ...level, ageH: 24.5 } })).toEqual(['readFirst X'])
  expect(reasons({ water: dosed, level: { ...level, kit: 'copper, chelated' } })).toEqual(['wrongKit X'])
  expect(reasons({ water: dosed, level: { ...level, isJump: true } })).toEqual(['readAgain X'])
  expect(reasons({ water: dosed, level })).toEqual([])
  expect(reasons({ fish: [{ group: 'other', isWeak: true, sensitivities: ['copper'] }, { group: null, book: { copperIonic: 'forbidden' } }] })).toEqual(['bookForbidden R', 'weakFish R', 'bookSensitive W', 'unknownSpecies W'])
})

test('the dose goes to the whole water, gross litres count less, and are dosed with more care', () => {
  const dose = (tanks: { netL?: number; grossL?: number }[], sumpL = 0) => doseCheck(asked({ label: { ...label, targetMgL: 0.2 }, water: { kind: 'marine', tanks, sumpL, isNeverDosed: true } }))
  expect([dose([{ netL: 100 }, { netL: 50 }], 30).volumeL, dose([{ netL: 100 }, { grossL: 50 }]).volumeL]).toEqual([180, 145])
  expect(dose([{ netL: 100 }]).rise).toBeCloseTo(0.2 / (1 + 1.645 * 0.05), 9)
  expect(dose([{ grossL: 100 }]).rise).toBeCloseTo(0.2 / (1 + 1.645 * 0.15), 9)
  const powder = doseCheck(asked({ agent: 'salt', label: { activeShare: 0.95, strengthBasis: 'as salt', targetMgL: 3000, targetBasis: 'as salt' } }))
  expect([powder.productMl, powder.productG]).toEqual([null, expect.closeTo(315.789, 3)])
})

test('no dose lifts the band of a level over its limit, and nobody overrides what kills', () => {
  fc.assert(fc.property(fc.constantFrom(...agents), fc.double({ min: 0, max: 0.3, noNaN: true }), fc.double({ min: 0, max: 0.05, noNaN: true }), fc.constantFrom(...groups), fc.subarray(contents), fc.boolean(), (agent, c, sd, group, there, leadOverrides) => {
    const kit = shippedAgents[agent]?.kit ?? ''
    const answer = doseCheck(asked({ agent, label: { ...label, hiMgL: 0.2 }, water: { kind: 'marine', tanks: [{ netL: 80 }], contents: there, agents: [] }, fish: [{ group }], level: { c, sd, ageH: 1, kit, isJump: false }, leadOverrides }))
    const worst = answer.reasons[0]?.answer
    if (worst === 'X' || (group === 'invertebrate' && worst === 'R')) expect([answer.answer, answer.override, answer.doseMg]).toEqual(['refuse', 'nobody', null])
    if (worst === 'R' && group !== 'invertebrate') expect([answer.answer, answer.override]).toEqual([leadOverrides ? 'warn' : 'refuse', 'lead'])
    if (answer.rise === null || answer.rise === 0) return
    const start = kit === '' ? { c: 0, sd: 0 } : { c, sd }
    expect(start.c + answer.rise + 1.645 * (start.sd + 0.05 * answer.rise)).toBeLessThanOrEqual(0.2 + 1e-9)
  }), { numRuns })
})

test('one fish more, one thing more in the water, one agent more: no answer becomes milder', () => {
  const rank = { allow: 0, warn: 1, refuse: 2 }
  fc.assert(fc.property(fc.constantFrom(...agents), fc.array(fc.constantFrom(...groups), { minLength: 1, maxLength: 3 }), fc.subarray(contents), fc.constantFrom(...groups), fc.constantFrom(...contents), fc.constantFrom(...agents), (agent, fish, there, group, content, present) => {
    const of = (more: boolean) => doseCheck(asked({ agent, water: { kind: 'marine', tanks: [{ netL: 80 }], isNeverDosed: true, contents: more ? [...there, content] : there, agents: more ? [present] : [] }, fish: [...fish, ...(more ? [group] : [])].map((each) => ({ group: each })) }))
    const [before, after] = [of(false), of(true)]
    expect(rank[after.answer]).toBeGreaterThanOrEqual(rank[before.answer])
    expect(after.reasons).toEqual(expect.arrayContaining(before.reasons))
  }), { numRuns })
})

test('every agent of the table is known, and what an invertebrate dies of is refused whoever asks', () => {
  for (const row of Object.values(shippedMatrix)) expect(Object.keys(row).sort()).toEqual([...agents].sort())
  expect(agents.filter((agent) => shippedMatrix.invertebrate?.[agent] === 'X')).toEqual(['copperIonic', 'copperChelated', 'formalin', 'peroxide', 'methyleneBlue', 'chloroquine', 'acriflavine', 'lowSalinity'])
})

const events = fc.array(fc.record({ t: fc.integer({ min: 0, max: 200 }), dose: fc.option(fc.double({ min: 0, max: 40, noNaN: true }), { nil: undefined }), change: fc.option(fc.record({ f: fc.double({ min: 0, max: 0.9, noNaN: true }) }), { nil: undefined }) }), { maxLength: 12 })
const par = { V: 200, lambda: 0.004, c0: 0.05, sd0: 0.01, doseRel: 0.05, q: 1e-7 }

test('a level is followed as the model of the science says, whatever the order of entry; later events are not known yet', () => {
  fc.assert(fc.property(events, fc.integer({ min: 0, max: 200 }), (rows, now) => {
    const distinct = rows.filter(({ t }, index) => rows.findIndex((each) => each.t === t) === index)
    const known = distinct.filter(({ t }) => t <= now).sort((a, b) => a.t - b.t)
    const slow = treatmentLevel({ volumeL: 200, lossPerH: 0.004, startMgL: 0.05, startSd: 0.01, doseRelativeSd: 0.05, driftPerH: 1e-7 }, [...known.map(({ t, dose, change }) => ({ atH: t, doseMg: dose, change: change && { share: change.f } })), { atH: now }])
    const { c, sd, ageH, basis } = levelEstimate({ par, events: [...distinct].reverse(), now })
    expect([c, sd]).toEqual([expect.closeTo(slow.mgL, 9), expect.closeTo(slow.sd, 9)])
    expect([ageH, basis]).toEqual([null, 'reckoned'])
  }), { numRuns })
})

test('a reading that cannot be is marked until one that can be; a level not read for a day is stale', () => {
  const at = (rows: LevelEvent[], now: number) => levelEstimate({ par: { ...par, c0: 0, sd0: 0 }, events: [{ t: 0, dose: 36 }, ...rows], now })
  expect(at([{ t: 6, reading: 0.05 }], 6).isJump).toBe(true)
  expect(at([{ t: 6, reading: 0.05 }, { t: 8, reading: 0.05 }], 8)).toMatchObject({ isJump: false, basis: 'measured', ageH: 0 })
  expect(at([{ t: 6, reading: 0.17 }], 31)).toMatchObject({ isJump: false, basis: 'stale', ageH: 25 })
  // Under the limit of the kit is not zero.
  expect(at([{ t: 6, below: 0.05 }], 6).c).toBe(0.025)
})

test('a ladder that is followed goes in by halves, holds its level, and comes out: never over its limit', () => {
  fc.assert(fc.property(fc.double({ min: 60, max: 400, noNaN: true }), fc.double({ min: 0, max: 0.004, noNaN: true }), fc.infiniteStream(fc.double({ min: -1, max: 1, noNaN: true })), (V, lossPerH, luck) => {
    const ladder = { target: 0.18, lo: 0.15, hi: 0.2 }
    let [c, stage, since, served, most, isDone] = [0, 'enter' as 'enter' | 'part' | 'level' | 'down', 0, 0, 0, false]
    for (let hour = 0; hour < 24 * 60 && !isDone; hour += 24) {
      c *= Math.exp(-24 * lossPerH)
      const level = { c: Math.max(0, c + 0.008 * (luck.next().value as number)), sd: 0.008, ageH: 0, isJump: false }
      const step = ladderStep({ V, label: { strengthMgPerMl: 2 }, ladder, stage, hoursInStage: hour - since, isEating: true, servedDays: served, levelDays: 14, level, isNeverDosed: stage === 'enter' })
      c += (step.doseMg ?? 0) / V
      if (step.changeL !== null) c *= 1 - step.changeL / V
      most = Math.max(most, c)
      if (step.do === 'dosePart') [stage, since] = ['part', hour]
      if (step.do === 'raise') [stage, since] = ['level', hour]
      if (stage === 'level' && c >= 0.15 && c <= 0.2) served += 1
      isDone = step.do === 'done'
    }
    expect([most <= 0.2, isDone]).toEqual([true, true])
  }), { numRuns: tries(1000, 200) })
  expect(ladderStep({ V: 100, label: {}, ladder: { target: 0.18, lo: 0.15, hi: 0.2 }, stage: 'level', hoursInStage: 1, isEating: true, servedDays: 1, levelDays: 14, level: { c: 0.25, sd: 0.01, ageH: 1, isJump: false } })).toMatchObject({ do: 'changeDown', changeL: expect.closeTo(28, 9), changes: 1 })
  expect(ladderStep({ V: 100, label: {}, ladder: { target: 0.18, lo: 0.15, hi: 0.2 }, stage: 'part', hoursInStage: 50, isEating: false, servedDays: 1, levelDays: 14, level: { c: 0.09, sd: 0.01, ageH: 30, isJump: false } }).do).toBe('read')
})

test.each([['asIs', 0, 0.135], ['redose', 8.1, 0.18], ['premix', 0, 0.18]] as const)('a change of a quarter by the school %s', (school, doseMg, levelAfter) => {
  expect(redoseAfterChange({ V: 180, f: 0.25, level: 0.18, school })).toMatchObject({ doseMg: expect.closeTo(doseMg, 9), levelAfter: expect.closeTo(levelAfter, 9) })
})

test('transfers come every so many hours into a tank that is dry; a late one is an entry, and all are wanting again', () => {
  const hour = 60
  fc.assert(fc.property(fc.array(fc.integer({ min: 60, max: 90 }), { maxLength: 6 }), fc.integer({ min: 2, max: 3 }), (gaps, count) => {
    const done = gaps.reduce<number[]>((minutes, gap) => [...minutes, (minutes.at(-1) ?? 0) + gap * hour], [])
    const { served, rows, status } = transferSchedule({ start: 0, tanks: ['A', 'B', 'C'].slice(0, count), done, now: 0, timeZone: 'UTC' })
    const lastLate = gaps.map((gap) => gap > 78).lastIndexOf(true)
    expect(served).toBe(gaps.length - 1 - lastLate)
    expect(rows.map(({ k }) => k)).toEqual(Array.from({ length: Math.max(0, 4 - served) }, (_, index) => served + 1 + index))
    expect(rows.every(({ due, isDry, from, to }, index) => isDry && from !== to && due === (rows[index - 1]?.due ?? done.at(-1) ?? 0) + 72 * hour)).toBe(true)
    expect(status).toBe(rows.length === 0 ? 'finished' : 'on time')
  }), { numRuns })
  const at = (now: number) => transferSchedule({ start: 0, tanks: ['A', 'B'], now: now * hour, timeZone: 'UTC' }).status
  expect([at(72), at(73), at(78), at(79)]).toEqual(['on time', 'due', 'due', 'start again'])
  expect(transferSchedule({ start: 0, tanks: ['A', 'A'], everyH: 96, now: 0, timeZone: 'UTC', match: { from: { T: 25, S: 34 }, to: { T: 25, S: 30 } } }).problems).toEqual(['longer than 72 h', 'one tank only', 'salinity'])
})

test('low salinity: every step mixes to what it says, none larger than its limit; what cannot work is named', () => {
  fc.assert(fc.property(fc.double({ min: 28, max: 38, noNaN: true }), fc.double({ min: 9, max: 15, noNaN: true }), fc.integer({ min: 1, max: 40 }), (S0, low, holdDays) => {
    const { down, up, lowFrom, upFrom, watchFrom } = lowSalinityPlan({ V: 120, S0, low, house: 34, startOn: '2031-05-05', holdDays, Sn: 45 })
    const mixed = (from: number, swapL: number, added: number): number => (from * (120 - swapL) + added * swapL) / 120
    expect(down.every(({ from, to, swapL }) => from - to <= 12 + 1e-6 && Math.abs(mixed(from, swapL, 0) - to) < 1e-9)).toBe(true)
    expect(up.every(({ from, to, swapL }) => to - from <= 3 + 1e-6 && Math.abs(mixed(from, swapL, 45) - to) < 1e-9)).toBe(true)
    expect([down.at(-1)?.to, up.at(-1)?.to, daysBetween(lowFrom ?? '', upFrom ?? ''), watchFrom]).toEqual([expect.closeTo(low, 9), expect.closeTo(34, 9), holdDays, up.at(-1)?.on])
  }), { numRuns: tries(500, 100) })
  expect(lowSalinityPlan({ V: 120, S0: 12, low: 12, house: 34, startOn: '2031-05-05', holdDays: 28, Sd: 12, Sn: 34 })).toMatchObject({ problems: ['added water not fresher than the aim', 'make-up water not saltier than the house', 'not lower than it is'], down: [], driftPpt: null })
})

test('days under treatment are those of the course and of every sign, once each, in spans that do not touch', () => {
  fc.assert(fc.property(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 0, max: 6 }), fc.integer({ min: 1, max: 4 }), fc.array(fc.integer({ min: 0, max: 40 }), { maxLength: 4 }), fc.integer({ min: 1, max: 5 }), (days, pauseDays, times, signs, onSignDays) => {
    const on = (day: number): string => addDays('2031-05-01', day) ?? ''
    const { windows, endsOn } = courseWindows({ from: on(0), days, pauseDays, times, signs: signs.map(on), onSignDays, mostDays: 7 })
    const treated = new Set([...Array.from({ length: times * days }, (_, index) => Math.floor(index / days) * (days + pauseDays) + (index % days)), ...signs.flatMap((day) => Array.from({ length: onSignDays }, (_, index) => day + index))])
    const covered = windows.flatMap(({ from, to }) => Array.from({ length: daysBetween(from, to) + 1 }, (_, index) => daysBetween('2031-05-01', from) + index))
    expect([covered, endsOn]).toEqual([[...treated].sort((a, b) => a - b), on(Math.max(...treated))])
    expect(windows.every(({ from }, index) => index === 0 || daysBetween(windows[index - 1]?.to ?? '', from) > 1)).toBe(true)
    expect(windows.every(({ from, to, isTooLong }) => isTooLong === daysBetween(from, to) + 1 > 7)).toBe(true)
  }), { numRuns })
})
