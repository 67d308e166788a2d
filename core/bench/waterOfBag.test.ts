import { describe, expect, test } from '@jest/globals'
import { baseUnits } from '../units/units'
import { salinityDoubt } from '../units/salinityDoubt'
import { notKept, outsideKept } from '../species/keptIn'
import { spanWords } from '../time/spanWords'
import { usualPractice } from '../acclimation/question'
import { deliveryOf } from './deliveryOf'
import { guessBagTemperature } from './bagTemperature'
import { waterOfBag, waterOfSalinity, type WaterFacts, type WaterFigures } from './waterOfBag'

const nothing: WaterFacts = { standing: null, usual: null, waters: [], phMax: null }
const all: WaterFacts = { ...nothing, waters: ['fresh', 'brackish', 'marine'] }
const of = (facts: WaterFacts, figures: Partial<WaterFigures> = {}) => waterOfBag(facts, { targetPpt: 34, ...figures }, 'Molly', (ppt) => `${ppt} ppt`)

describe('which water is in a bag', () => {
  test('the strongest fact says it: reading, told, their tank, source, species', () => {
    const everything: WaterFacts = { standing: null, usual: 'fresh', waters: ['fresh', 'brackish', 'marine'], phMax: null }
    expect(of(everything, { measuredPpt: 20, toldPpt: 9 })).toMatchObject({ waterClass: 'marine', by: 'reading' })
    expect(of({ ...everything, usual: 'brackish' }, { toldPpt: 9 })).toMatchObject({ waterClass: 'brackish', by: 'told' })
    expect(of({ ...all, standing: 'brackish' })).toMatchObject({ waterClass: 'brackish', by: 'their tank' })
    expect(of({ ...all, standing: 'marine' }, { toldPpt: 30 })).toMatchObject({ waterClass: 'marine', by: 'their tank' })
    expect(of(everything)).toMatchObject({ waterClass: 'hard', by: 'source' })
    expect(of({ ...nothing, waters: ['marine'] })).toMatchObject({ waterClass: 'marine', by: 'species' })
    expect([waterOfSalinity(15.1), waterOfSalinity(15), waterOfSalinity(3), waterOfSalinity(2.9)]).toEqual(['marine', 'brackish', 'brackish', 'fresh'])
  })
  test('fresh water is soft by its alkalinity, else as the source or the species is known', () => {
    const fresh: WaterFacts = { ...nothing, waters: ['fresh'] }
    expect([of(fresh, { alkalinityMeqL: 0.6 }), of({ ...fresh, phMax: 6.8 }, { alkalinityMeqL: 3 }), of({ ...fresh, phMax: 6.8 }), of({ ...fresh, hardness: 'soft' }), of({ ...fresh, usual: 'soft' }), of(fresh)].map(({ waterClass }) => waterClass)).toEqual(['soft', 'hard', 'soft', 'soft', 'soft', 'hard'])
  })
  test('what was told and what the source is known for may be two waters; near its tank it does not matter', () => {
    expect(of({ ...all, usual: 'fresh' }, { toldPpt: 33 })).toMatchObject({ waterClass: 'unknown', asks: ['salinity'], why: 'Read the salinity first: what was told and what the source usually ships in are two waters.' })
    expect(of({ ...nothing, waters: ['fresh'] }, { toldPpt: 3.2, targetPpt: 0.5 })).toMatchObject({ waterClass: 'brackish', by: 'told' })
    expect(of({ ...nothing, usual: 'brackish', waters: ['fresh'] }).why).toBe('Read the salinity first: Molly lives in fresh water, and this source ships in brackish water.')
  })
  test('bags that read apart are not averaged; without a tank the sentence names none', () => {
    expect(of(all, { measuredPpt: 16, readPpt: [0.3, 32] })).toMatchObject({ waterClass: 'unknown', why: 'The bags read 0.3 ppt to 32 ppt: take those that read alike, or read them again.' })
    expect(of(all, { targetPpt: NaN }).why).toBe('Read the salinity first: Molly is sold from fresh, brackish and marine water.')
  })
})

test('bags that read apart are one water only once a person says what the chosen ones read; a word of the supplier averages nothing', () => {
  const facts = { kinds: [], triage: null, tankWater: null, tankAgents: [], isOneWater: false, hoursSaid: null, speciesName: 'Molly', waterFacts: all, readPpt: [0.3, 32] as const }
  const asked = (figures: object, options: object) => deliveryOf(facts, { tankPpt: 34, measuredPpt: 16, ...figures }, { waterClass: 'marine' }, usualPractice, baseUnits, options)
  expect(asked({}, { isClassTyped: true })).toMatchObject({ question: null, water: { waterClass: 'unknown', asks: ['salinity'] } })
  expect(asked({ measuredPpt: 0.3 }, { isReadTyped: true })).toMatchObject({ water: { waterClass: 'hard' }, question: { measured: { salinityPpt: 0.3 } } })
})

test('a temperature nobody read: skin, their tank, other bags, packs, room air; the longer under way, the nearer to the room', () => {
  const facts = { skinC: null, otherBagsC: null, hasWorkingPacks: false, packedC: 26, hours: 24, roomC: 14 }
  expect(guessBagTemperature({ ...facts, skinC: 20, otherBagsC: 18 })).toEqual({ tempC: 20, from: 'skin' })
  expect(guessBagTemperature({ ...facts, theirTankC: 24, otherBagsC: 18 })).toEqual({ tempC: 24, from: 'their tank' })
  expect(guessBagTemperature({ ...facts, otherBagsC: 18, hasWorkingPacks: true })).toEqual({ tempC: 18, from: 'other bags' })
  expect(guessBagTemperature({ ...facts, hasWorkingPacks: true })).toEqual({ tempC: 26, from: 'packs' })
  const [soon, later] = [2, 40].map((hours) => guessBagTemperature({ ...facts, hours }).tempC) as [number, number]
  expect([soon > 23 && soon < 26, later > 14 && later < 15]).toEqual([true, true])
})

describe('a salinity on the wrong scale', () => {
  test('a gravity in a field of ppt is asked about, with the room’s reference pair', () => {
    expect(salinityDoubt(1.025, baseUnits)).toEqual({ question: 'Is it specific gravity?', choices: [{ label: 'SG 25/25: 33.2 ppt', ppt: 33.2 }, { label: 'no, 1.025 ppt', ppt: 1.025 }] })
    expect(salinityDoubt(1.025, { ...baseUnits, sgReference: '60F/60F' })?.choices[0]?.ppt).toBe(32.6)
    expect([0.3, 0.98, 1.05, 34, NaN].map((typed) => salinityDoubt(typed, baseUnits))).toEqual([null, null, null, null, null])
  })
  test('ppt in a field of gravity likewise', () => {
    const gravity = { ...baseUnits, salinityUnit: 'SG' as const }
    expect(salinityDoubt(34, gravity)).toEqual({ question: 'Is it ppt?', choices: [{ label: '34 ppt', ppt: 34 }] })
    expect([salinityDoubt(1.025, gravity), salinityDoubt(60, gravity)]).toEqual([null, null])
  })
})

test('a tank outside what a species is kept in is said with the difference, in the room’s units; what nobody knows is not', () => {
  const kept = { ...notKept, tempCMin: 10, tempCMax: 22, phMin: 6, phMax: 7, salinityPptMax: 1, hardness: 'soft' }
  const said = outsideKept('Goldfish', kept, { tempC: 27, ph: 8.2, salinityPpt: 34, alkalinityMeqL: 5 }, { ...baseUnits, temperatureUnit: '°F' })
  expect(said.map(({ code }) => code)).toEqual(['temperature', 'salinity', 'pH', 'hardness'])
  expect(said[0]?.why).toBe('Goldfish is kept at 50.0 °F to 71.6 °F; this tank stands at 80.6 °F, 9.0 °F too warm')
  expect(outsideKept('Goldfish', kept, { tempC: 9 }, baseUnits).map(({ why }) => why)).toEqual(['Goldfish is kept at 10.0 °C to 22.0 °C; this tank stands at 9.0 °C, 1.0 °C too cold'])
  expect([outsideKept('Goldfish', kept, {}, baseUnits), outsideKept('Goldfish', notKept, { tempC: 40, ph: 3 }, baseUnits)]).toEqual([[], []])
})

test('spans are said as people say them', () => {
  expect([0, 75, 119.6, 150, 540, 1440, 5597, 12060].map(spanWords)).toEqual(['0 min', '75 min', '2 h', '2 h 30 min', '9 h', '24 h', '3 days 21 h', '8 days 9 h'])
})
