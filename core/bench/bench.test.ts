import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { fillAfter, overflowAfter } from '../acclimation/mixing'
import { offeredSchools, type AcclimationQuestion } from '../acclimation/question'
import { schools, type School } from '../acclimation/schools'
import { standardLimits } from '../limits/houseLimits'
import { baseUnits } from '../units/units'
import { atMin, judgedFigures, marineBag, runOf, runStartMs, withEvent } from '../testing/benchRun'
import { isEstimate } from './bagFigures'
import type { RunView } from './benchView'
import { alarmsOf, isForgotten, snoozeMs } from './alarms'
import { dropRate } from './dropRate'
import { estimateWater, salinityAtStart } from './estimateWater'
import { planRechecks } from './expectedCourse'
import { flowWords } from './flowWords'
import { followRun } from './followRun'
import { knownFigures, type KnownFacts } from './knownFigures'
import { paceAdvice, paceOf } from './pace'
import { waiting } from '../testing/waiting'
import { withPendingRun } from './pendingRun'
import { planRun } from './planRun'
import { adviseRun } from './runAdvice'
import { createSimulatedMeter } from './simulatedMeter'
import { bathCaution, planBath, planLook } from './specialRuns'
import { tries } from '../testing/tries'

const limits = standardLimits
/** A drip run whose bag floated and was poured: the drip began after `minutes`. */
const dripping = (minutes = 21, more = {}) => withEvent(withEvent(runOf('drip', marineBag, more), minutes - 1, { kind: 'step' }), minutes, { kind: 'step' })
const dripL = 1.5

describe('the plan of a run', () => {
  test.each(['straight', 'netOver', 'siphon', 'drip', 'dripAir', 'rapid', 'step'])('%s takes the litres and minutes it is judged by', (key) => {
    const { steps } = runOf(key).plan
    const judged = judgedFigures(marineBag, key)
    const before = steps.slice(0, steps.findIndex(({ countsOut }) => countsOut))
    expect(before.reduce((sum, { minutes }) => sum + (minutes ?? 0), 0)).toBeCloseTo(judged?.minutes ?? NaN, 6)
    expect(before.flatMap(({ water }) => water).reduce((sum, deed) => sum + ('litres' in deed ? deed.litres : 0), 0)).toBeCloseTo(judged?.litres ?? NaN, 6)
    expect(steps.filter(({ countsOut }) => countsOut)).toHaveLength(1)
  })

  test('a crossing rests, goes by the hour under the limit, and ends near the tank', () => {
    const mono: AcclimationQuestion = { ...marineBag, waterClass: 'brackish', measured: { tempC: 25, salinityPpt: 9 }, hasSpareTank: true, tolerance: 'hardy', tank: { ...marineBag.tank, salinityPpt: 33 }, practice: { slowsFloats: true, gradesHours: true, valveSettings: 0, people: null } }
    const hours = runOf('overflow', mono).plan.steps.filter(({ title }) => title.startsWith('Overflow, hour'))
    const reached = [9, ...hours.map(({ toPpt }) => toPpt ?? 0)]
    expect(Math.max(...reached.slice(1).map((ppt, index) => ppt - (reached[index] ?? 0)))).toBeLessThanOrEqual(limits.salinityPerHour * 1.25)
    expect(reached.at(-1)).toBeCloseTo(32.7, 6)
    const settings = runOf('overflow', { ...mono, practice: { slowsFloats: true, gradesHours: true, valveSettings: 2, people: { fromHour: 8, untilHour: 20, startHour: 11 } } }).plan.steps.filter(({ title }) => title.startsWith('Overflow, setting'))
    expect(settings.map(({ title }) => title)).toEqual([expect.stringMatching(/^Overflow, setting 1 of 2: \d+ h$/), expect.stringMatching(/^Overflow, setting 2 of 2: /)])
    // Nobody is asked to come at night: it is changed between eight and eight.
    const changedAt = (11 + 1.5 + (settings[0]?.minutes ?? 0) / 60) % 24
    expect([changedAt >= 8 && changedAt < 20, settings.at(-1)?.toPpt]).toEqual([true, expect.closeTo(33, 0)])
    const [gate] = runOf('ramp', mono).plan.steps
    expect(gate).toMatchObject({ title: 'Bring M1-01 to 9.0 ppt', gate: { salinityPpt: 9, withinPpt: 1 }, fish: 'bag', countsOut: false })
    const days = runOf('ramp', mono).plan.steps.filter(({ title }) => title.includes(': day '))
    expect(days.map(({ toPpt }) => toPpt)).toEqual([12, 15, 18, 21, 24, 27, 30, 33])
    expect(days[0]?.detail).toContain('g of salt')
  })

  test('a tank made ready goes back to house salinity over days, after the fish are in it', () => {
    const { steps } = runOf('matched', { ...marineBag, prepared: { tempC: 24, salinityPpt: 28.5 } }).plan
    expect(steps.map(({ title }) => title)).toEqual(['Float the bags shut', 'Siphon tank water in', 'Let them out into M1-01', 'M1-01: day 1 of 2, to 31.3 ppt', 'M1-01: day 2 of 2, to 34.0 ppt'])
  })

  test('bath and dip go by the agent’s entry and say what is missing in it; a look needs no agent', () => {
    const agent = { id: 'a', name: 'methylene blue', substance: 'methylene blue', strengthMgPerMl: 10, bathMgL: 5, bathMinutes: 20, dipMgL: null, dipMinutes: null, cautions: null }
    const scene = { agent, fish: 12, bags: 1, kinds: [], to: 'H1-01', bag: { tempC: 24, salinityPpt: 0.3 }, then: null, limits, units: baseUnits }
    expect(planBath('bath', scene)).toMatchObject({ ok: true, litres: 8, doseMl: 4, minutes: 20 })
    expect(planBath('dip', scene)).toEqual({ ok: false, reason: 'The entry of methylene blue has no dip: put level and minutes there, from the label (Setup, Agents).' })
    expect(planBath('bath', { ...scene, agent: { ...agent, strengthMgPerMl: null } })).toMatchObject({ ok: false })
    expect(bathCaution).toContain('veterinarian')
    expect(planLook('R1-01', standardLimits).map(({ countsOut }) => countsOut)).toEqual([false, false])
  })
})

describe('the pace of a run', () => {
  test('a slow flow is found within 5 % of its true end from one reading and from several', () => {
    const planned = (1000 * 3 * dripL) / 60
    for (const share of [0.4, 0.6, 0.9, 1.3]) {
      const flow = (planned * share) / 1000
      const read = (minutes: number): number => Number(fillAfter(minutes, { volumeL: dripL, flow, from: 28, to: 34 }).toFixed(1))
      let run = dripping()
      for (const minutes of [8, 16, 24]) run = withEvent(run, 21 + minutes, { kind: 'reading', salinityPpt: read(minutes) })
      const now = followRun(run, limits, atMin(46))
      const truthMs = atMin(21 + 60 / share)
      expect(Math.abs((now.dueAtMs ?? 0) - truthMs) / (60_000 * (60 / share))).toBeLessThan(0.05)
      expect(now.pace?.by).toBe('readings')
      expect(now.advice).toMatch(share < 1 ? (share > 0.85 ? /^Slower|^$/ : /^Slower than planned: open to \d+ mL a minute/) : /^Faster than planned: close to/)
    }
  })

  test('overflow by the hour is re-fitted as well; the hour ends when it reads what it should', () => {
    const mono: AcclimationQuestion = { ...marineBag, measured: { tempC: 25, salinityPpt: 9 }, tank: { ...marineBag.tank, salinityPpt: 33 }, practice: { slowsFloats: true, gradesHours: true, valveSettings: 0, people: null } }
    let run = runOf('overflow', mono)
    for (const minutes of [20, 22, 25, 85]) run = withEvent(run, minutes, { kind: 'step' })
    const deed = run.plan.steps[4]?.water[0]
    const litres = deed && 'litres' in deed ? deed.litres : NaN
    run = withEvent(run, 105, { kind: 'reading', salinityPpt: overflowAfter(20, { volumeL: 10, flow: (0.5 * litres) / 60, from: 9, to: 33 }) })
    expect(paceOf(run, atMin(105))).toMatchObject({ by: 'readings', endMs: expect.closeTo(atMin(85 + 120), -4) })
  })

  test('in fresh water, where salinity says nothing, the drop counter does; setting the flow begins anew', () => {
    const fresh: AcclimationQuestion = { ...marineBag, waterClass: 'hard', measured: { tempC: 23 }, tank: { tempC: 25, salinityPpt: 0.3, alkalinityMeqL: 3, ph: 7.8 } }
    let run = withEvent(withEvent(runOf('drip', fresh), 15, { kind: 'step' }), 16, { kind: 'step' })
    run = withEvent(run, 26, { kind: 'reading', salinityPpt: 0.3 })
    expect(paceOf(run, atMin(26))).toMatchObject({ by: 'plan', endMs: atMin(76) })
    run = withEvent(run, 26, { kind: 'flow', mlPerMin: 50 })
    const pace = paceOf(run, atMin(36))
    expect(pace).toMatchObject({ by: 'drop counter', mlPerMin: 50, litresIn: expect.closeTo(0.75 + 0.5) })
    expect((pace?.endMs ?? 0) - atMin(26)).toBeCloseTo(((4500 - 750) / 50) * 60_000, 0)
    run = withEvent(run, 40, { kind: 'flow', mlPerMin: 0 })
    expect(paceOf(run, atMin(41))?.endMs).toBe(Infinity)
    expect(paceAdvice(run, paceOf(run, atMin(41)) as never, atMin(41), baseUnits)).toContain('Nothing flows')
  })

  test('floating ends when the readings say within a degree', () => {
    const run = withEvent(runOf('netOver'), 6, { kind: 'reading', tempC: 25.5 - 2.5 * Math.exp(-6 / 15) })
    expect(followRun(run, limits, atMin(7)).dueAtMs).toBeCloseTo(atMin(15 * Math.log(2.5)), -4)
    expect(followRun(withEvent(run, 9, { kind: 'reading', tempC: 24.9 }), limits, atMin(9)).dueAtMs).toBe(atMin(9))
  })
})

describe('alarms', () => {
  test('fish that wait in their vessel to be counted out: a warning at two thirds of what it bears, an alarm past it, for the rest as well', () => {
    const poured = withEvent(withEvent(runOf('siphon'), 1, { kind: 'step' }), 21, { kind: 'step' })
    const vesselAt = (run: typeof poured, minutes: number): string[] => alarmsOf({ ...run, inVessel: 2 }, followRun(run, limits, atMin(minutes)), limits, atMin(minutes)).filter(({ key }) => key === 'vessel').map(({ level }) => level)
    expect([vesselAt(poured, 30), vesselAt(poured, 70), vesselAt(poured, 90)]).toEqual([[], ['watch'], ['act']])
    const partly = withEvent(poured, 25, { kind: 'count', note: '1 counted into M1-01; 1 stay' })
    expect(alarmsOf({ ...partly, inVessel: 1 }, followRun(partly, limits, atMin(700)), limits, atMin(700)).map(({ words }) => words)[0]).toMatch(/^1 fish in the vessel, no air stone for 11 hours; it bears them .*Count them into a tank now/)
    expect(alarmsOf({ ...partly, inVessel: 0 }, followRun(partly, limits, atMin(90)), limits, atMin(90)).filter(({ key }) => key === 'vessel')).toEqual([])
  })

  const keysAt = (run: ReturnType<typeof runOf>, minutes: number): string[] => alarmsOf(run, followRun(run, limits, atMin(minutes)), limits, atMin(minutes)).map(({ key, level }) => `${level} ${key}`)

  test('a timer that ran out sounds, is put off by a touch and comes back; left alone it is forgotten', () => {
    const run = runOf('netOver')
    expect(keysAt(run, 14)).toEqual([])
    expect(keysAt(run, 16)).toEqual(['act step-0'])
    const put = withEvent(run, 16, { kind: 'snooze', alarm: 'step-0', untilMs: atMin(16) + snoozeMs })
    expect([keysAt(put, 17), keysAt(put, 22)]).toEqual([[], ['act step-0']])
    const at = (minutes: number): boolean => isForgotten(followRun(run, limits, atMin(minutes)), limits, atMin(minutes))
    expect([at(16), at(15 + limits.runForgottenMinutes + 1)]).toEqual([false, true])
  })

  test('lid at once, a reading when none was taken, a vessel that will be full and one that is', () => {
    expect(keysAt(dripping(), 22)).toEqual(['watch lid'])
    expect(keysAt(dripping(), 50)).toEqual(['watch read'])
    expect(keysAt(dripping(21, { vesselL: 4 }), 26)).toEqual(['watch lid', 'watch full'])
    expect(keysAt(dripping(21, { vesselL: 4 }), 70)).toContain('act full')
    const small = dripping(21, { vesselL: 4 })
    const inGallons = followRun(small, limits, atMin(70), { ...baseUnits, volumeUnit: 'gal' })
    expect(alarmsOf(small, inGallons, limits, atMin(70)).map(({ words }) => words).join()).toMatch(/The vessel is full: about 1\.\d US gal of 1\.1 US gal\./)
  })

  test('a fouled bag in air is called out before its limit, and figures for ammonia are withheld with a binder', () => {
    const fouled: AcclimationQuestion = { ...marineBag, waterClass: 'hard', told: {}, measured: { tempC: 23, ph: 7.4, tanMgL: 12 }, bag: { ...marineBag.bag, fish: 20, massG: 4 }, tank: { tempC: 25, salinityPpt: 0.3, alkalinityMeqL: 3, ph: 7.8 } }
    const run = withEvent(withEvent(runOf('dripAir', fouled), 15, { kind: 'step' }), 16, { kind: 'step' })
    const now = followRun(run, limits, atMin(17))
    expect(now.ammoniaAt?.soonestMs).toBeLessThanOrEqual(now.ammoniaAt?.likelyMs ?? 0)
    expect(keysAt(run, 30)).toContain('act ammonia')
    const bound = withEvent(run, 20, { kind: 'binder', isOn: true })
    expect([followRun(bound, limits, atMin(30)).ammoniaAt, keysAt(bound, 30).join()]).toEqual([null, expect.not.stringContaining('ammonia')])
  })
})

test('taps give the flow within ten, a pause begins anew', () => {
  const taps = Array.from({ length: 10 }, (_, index) => 1000 * index)
  expect(dropRate(taps, 20)).toEqual({ dropsPerMin: 60, mlPerMin: 3, taps: 10, isSettled: true })
  expect(dropRate(taps.slice(0, 2), 20)).toBeNull()
  expect(dropRate([0, 1000, 2000, 60_000, 60_500, 61_000], 20)?.dropsPerMin).toBe(120)
  expect([flowWords(3, 20), flowWords(75, 20), flowWords(1000, 20), flowWords(0, 20)]).toEqual(['about 60 drops a minute', '75 mL a minute: a cup of 100 mL in 80 s', '1000 mL a minute: a cup of 100 mL in 6 s', 'no flow'])
})

test('rechecks follow the course of the method: six after a crossing, four else', () => {
  const labels = (question: AcclimationQuestion): string[] => planRechecks(question, runStartMs, runStartMs + 23 * 3_600_000).map(({ label }) => label)
  expect(labels(marineBag)).toEqual(['15 min', '1 h', '4 h', 'next morning'])
  expect(labels({ ...marineBag, measured: { salinityPpt: 9 } })).toEqual(['15 min', '1 h', '4 h', 'next morning', '24 h', '48 h'])
})

test('after a run in the dark the lights come up by the house’s hours: with a look that is due then, or as one of its own', () => {
  const planned = (darkHours: number | null) => planRechecks(marineBag, runStartMs, runStartMs + 23 * 3_600_000, darkHours).map(({ label, usual }) => (usual.startsWith('lights up slowly now; ') ? `${label}, lights up` : label))
  expect(planned(null)).toEqual(['15 min', '1 h', '4 h', 'next morning'])
  expect(planned(4)).toEqual(['15 min', '1 h', '4 h, lights up', 'next morning'])
  expect(planned(6)).toEqual(['15 min', '1 h', '4 h', '6 h, lights up', 'next morning'])
  expect(planned(30)).toEqual(['15 min', '1 h', '4 h', 'next morning', '30 h, lights up'])
})

test('the simulated meter reads the vessel with its own flow, the same twice, and says that it is simulated', () => {
  const meter = createSimulatedMeter(limits)
  const run = dripping()
  const reading = meter.read(run, atMin(50))
  expect(meter.read(run, atMin(50))).toEqual(reading)
  expect(meter.isSimulated).toBe(true)
  expect(reading?.salinityPpt).toBeGreaterThan(29)
  expect(reading?.salinityPpt).toBeLessThan(34.5)
  expect(meter.read(withEvent(run, 90, { kind: 'step' }), atMin(91))).not.toBeNull()
  expect(meter.read(withEvent(withEvent(run, 90, { kind: 'step' }), 91, { kind: 'step' }), atMin(92))).toBeNull()
})

// Whatever is asked, figures stay finite, between their waters, and what mixing says by hand is what the model says.
test('any delivery gives a run of finite, bounded figures; salt is conserved', () => {
  const anyQuestion = fc.record({
    ...{ bags: fc.integer({ min: 1, max: 60 }), fish: fc.integer({ min: 1, max: 60 }), massG: fc.double({ min: 0.1, max: 60, noNaN: true }), waterL: fc.double({ min: 0.2, max: 20, noNaN: true }), hours: fc.double({ min: 0.1, max: 60, noNaN: true }) },
    ...{ bagC: fc.double({ min: 12, max: 32, noNaN: true }), tankC: fc.double({ min: 16, max: 30, noNaN: true }), bagPpt: fc.double({ min: 0, max: 38, noNaN: true }), tankPpt: fc.double({ min: 0, max: 38, noNaN: true }) },
    ...{ isPooled: fc.boolean(), minutes: fc.double({ min: 0, max: 150, noNaN: true }), pick: fc.nat() },
  })
  fc.assert(
    fc.property(anyQuestion, ({ bags, fish, massG, waterL, hours, bagC, tankC, bagPpt, tankPpt, isPooled, minutes, pick }) => {
      const question: AcclimationQuestion = { ...marineBag, bags, bag: { ...marineBag.bag, fish, massG, waterL, gasL: 2 * waterL, hours }, measured: { tempC: bagC, salinityPpt: bagPpt }, tank: { ...marineBag.tank, tempC: tankC, salinityPpt: tankPpt } }
      const offered = offeredSchools(question, schools).filter(({ key }) => key !== 'overflow' && key !== 'ramp')
      let run = runOf(offered[pick % offered.length]?.key ?? '', question, {}, isPooled)
      if (run.plan.steps[0]?.minutes === null) run = withEvent(run, 1, { kind: 'step' })
      const now = followRun(run, limits, atMin(minutes))
      const water = now.water.now
      expect(Object.values(water ?? {}).every(Number.isFinite)).toBe(true)
      expect(water?.unionisedMgL ?? 0).toBeGreaterThanOrEqual(0)
      const [low, high] = [Math.min(bagPpt, tankPpt), Math.max(bagPpt, tankPpt)]
      expect(now.water.curve.salinityPpt.every((ppt) => ppt >= Math.min(low, 0.05) - 1e-6 && ppt <= Math.max(high, 0.05) + 1e-6)).toBe(true)
      expect(now.litres).toBeGreaterThan(0)
      expect(JSON.stringify(alarmsOf(run, now, limits, atMin(minutes)))).not.toMatch(/NaN|Infinity|null/)
      // The salinity that the steps leave behind, reckoned by hand, is that of the model on its way out.
      const out = run.plan.steps.findIndex(({ countsOut }) => countsOut)
      const planned = estimateWater({ ...run, events: [] }, limits, runStartMs).curve.salinityPpt
      expect(planned.at(-2) ?? NaN).toBeCloseTo(salinityAtStart(run, out), bagPpt < 0.06 ? 0 : 2)
    }),
    { numRuns: tries(5000) },
  )
})

test('the figures of a recommendation: a pooled bucket that needs air is told to dilute first; a matched tank to be brought back', () => {
  const crowded: AcclimationQuestion = { ...marineBag, waterClass: 'hard', bags: 12, measured: { tempC: 23 }, bag: { ...marineBag.bag, fish: 16, massG: 6, waterL: 1.2 }, tank: { tempC: 26, salinityPpt: 0.3, alkalinityMeqL: 3, ph: 7.8 } }
  const advised = (key: string, question: AcclimationQuestion, isPooled: boolean, temperament: string | null = null): Record<string, string> => {
    const scene = { question, limits, to: 'R1-01', tankL: 60, isPooled, dropsPerMl: 20 }
    return Object.fromEntries(adviseRun(runOf(key, question, {}, isPooled).plan.steps, scene, temperament).map(({ label, value }) => [label, value]))
  }
  expect(advised('pooled', crowded, true)['air stone']).toMatch(/^only after diluting: oxygen reaches its limit after about \d+ min\. Dilute first: air in undiluted bag water turns its ammonia toxic\.$/)
  expect(advised('drip', marineBag, false)).toMatchObject({ float: '15 min', flow: '75 mL a minute: a cup of 100 mL in 80 s', 'tank water': '4.5 L', vessel: '8 L or more, with a lid', 'air stone': expect.stringMatching(/^none: oxygen lasts/), lights: 'low until they have settled' })
  expect(advised('netOver', { ...marineBag, prepared: { tempC: 25, salinityPpt: 28 } }, false, 'territorial')).toMatchObject({ 'tank water': 'none', lights: expect.stringContaining('off for some hours'), afterwards: '2 days of bringing the tank to 34.0 ppt' })
})

test('steps and figures speak the units of the room', () => {
  const units = { temperatureUnit: '°F', volumeUnit: 'gal', salinityUnit: 'SG', sgReference: '25/25' } as const
  const scene = { question: { ...marineBag, prepared: { tempC: 25, salinityPpt: 28.5 } }, limits, to: 'M1-01', tankL: 100, isPooled: false, dropsPerMl: 20, units }
  const steps = planRun(schools.find(({ key }) => key === 'matched') as School, scene)
  expect(steps.map(({ title, detail }) => `${title}: ${detail}`).join(' ')).not.toMatch(/\d L\b|ppt|°C/)
  expect(steps.at(-1)?.title).toBe('M1-01: day 2 of 2, to 1.0256 SG 25/25')
  expect(adviseRun(steps, scene, null)).toContainEqual({ label: 'tank water', value: '1.6 US gal' })
})

test('what is known of a bag: measured before told before usual, each with its source; a guess is called one', () => {
  const facts: KnownFacts = {
    species: { name: 'Royal gramma', massG: 8, tolerance: 'delicate' },
    water: { standing: null, usual: null, waters: ['marine'], phMax: 8.4 },
    ...{ otherBagsC: null, hasWorkingPacks: false, instruments: { salinityBy: 'hydrometer', phBy: 'kit' }, units: baseUnits },
    bags: [{ fish: 1, skinTempC: 22, waterTempC: null, salinityPpt: 30, ph: null, ammoniaMgL: null, hasBinder: false }, { fish: 2, skinTempC: 24, waterTempC: null, salinityPpt: 32, ph: null, ammoniaMgL: null, hasBinder: true }],
    ...{ hoursInBag: null, usualHours: 21, preparedPpt: 31, hasSpareTank: true, limits },
    shipping: { tempC: 25, salinityPpt: 29, ph: 8, alkalinityMeqL: null, from: 'told' },
    tank: { water: 'marine', tempC: 26, salinityPpt: null, ph: null, alkalinityMeqL: null },
  }
  const { figures, words } = knownFigures(facts)
  expect(figures).toMatchObject({ measuredPpt: { value: 31, from: 'measured' }, guessedC: { value: 23, from: 'bag’s skin' }, hours: { value: 21, from: 'told' }, toldPpt: { value: 29, from: 'told' }, tankC: { value: 26, from: 'system' }, tankPpt: { value: 34, from: 'guess' }, fish: { value: 2, from: 'list' }, preparedPpt: { value: 31, from: 'system' } })
  expect(figures.measuredC).toBeUndefined()
  expect(words).toEqual({ waterClass: 'marine', guessedFrom: 'skin', salinityBy: 'hydrometer', phBy: 'kit', gas: 'oxygen', fed: 'no', binder: 'yes', tolerance: 'delicate', spareTank: 'yes' })
  // Whatever the tank is, the water in the bag is not guessed from it.
  const silent = { ...facts, bags: facts.bags.map((bag) => ({ ...bag, salinityPpt: null, skinTempC: null })), shipping: { ...facts.shipping, salinityPpt: null, tempC: null }, species: { ...facts.species, name: 'Black molly' }, water: { ...facts.water, waters: ['fresh', 'brackish', 'marine'] } } as const
  expect(knownFigures(silent)).toMatchObject({ words: { waterClass: 'unknown', guessedFrom: 'room air' }, water: { asks: ['salinity'], why: 'Read the salinity first: Black molly is sold from fresh, brackish and marine water, and this tank stands at 31.0 ppt.' } })
  expect(knownFigures(silent).figures.guessedC?.value).toBeCloseTo(22 + 3 * Math.exp(-21 / 12), 2)
  expect(knownFigures({ ...silent, otherBagsC: 19 })).toMatchObject({ figures: { guessedC: { value: 19, from: 'other bags' } } })
  expect(knownFigures({ ...silent, hasWorkingPacks: true })).toMatchObject({ figures: { guessedC: { value: 25 } }, words: { guessedFrom: 'packs' } })
  expect(knownFigures({ ...silent, shipping: { ...silent.shipping, salinityPpt: 0.2, alkalinityMeqL: 0.8 } }).words.waterClass).toBe('soft')
  expect([isEstimate('guess'), isEstimate('bag’s skin'), isEstimate('measured'), isEstimate('told')]).toEqual([true, true, false, false])
})

test('what waits on this device is shown at once, and once: a step that another device did meanwhile is not done twice', () => {
  const run = { ...runOf('netOver'), sources: [], standing: [] } as unknown as RunView
  const doStep = { command: 'doStep', key: 'k1', input: { stepIndex: 0, happenedAtMs: atMin(15) } } as const
  const reading = { command: 'recordRunReading', key: 'k2', input: { tempC: 24, salinityPpt: null, ph: null, tanMgL: null, isSimulated: false, happenedAtMs: atMin(16) } } as const
  const shown = withPendingRun(run, waiting({ runId: run.id }, [doStep, { ...doStep, key: 'k3' }, reading, { command: 'setRunSwitch', key: 'k4', input: { what: 'air', isOn: true, happenedAtMs: atMin(16) } }, { command: 'setFlow', key: 'k5', input: { mlPerMin: 3, happenedAtMs: atMin(16) } }, { command: 'snoozeAlarm', key: 'k6', input: { alarm: 'lid', happenedAtMs: atMin(16) } }]))
  expect(shown.events.map(({ kind, stepIndex }) => [kind, stepIndex])).toEqual([['step', 0], ['reading', 1], ['air', 1], ['flow', 1], ['snooze', 1]])
})
