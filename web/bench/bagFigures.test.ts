import { expect, test } from '@jest/globals'
import { standardLimits } from '../../core/limits/houseLimits'
import { schools } from '../../core/acclimation/schools'
import { baseUnits } from '../../core/units/units'
import { createUnits } from '../ui/useUnits'
import { allDraws, answerQuestion, firstDraws, type JudgeProgress } from './answerQuestion'
import { bagInputs, toQuestion } from '../../core/bench/bagFigures'
import { deliveryOf } from '../../core/bench/deliveryOf'
import { readDesk, shownBound } from '../ui/FigureField'

const figures = { bags: 2, fish: 1, massG: 20, waterL: 1.5, gasL: 3, hours: 24, packedC: 25, transitC: 24, tankC: 25.5, tankPpt: 34, tankAlkalinity: 2.7, tankPh: 8.2, roomC: 22 }
const words = { waterClass: 'marine', gas: 'oxygen', fed: 'no', binder: 'no', tolerance: 'normal' }

test('every field of the form finds its way into the question; what was not measured is left out', () => {
  expect(bagInputs.filter(({ isOptional, options }) => !isOptional && !options).map(({ name }) => name).sort()).toEqual(Object.keys(figures).sort())
  expect(toQuestion(figures, words)).toEqual({
    ...{ waterClass: 'marine', told: {}, measured: {}, guessedC: 24, guessedFrom: 'skin', bags: 2, isFed: false, hasSpareTank: false, prepared: null, tolerance: 'normal', roomC: 22, roomPco2Uatm: 600 },
    bag: { fish: 1, massG: 20, waterL: 1.5, gasL: 3, hours: 24, packedC: 25, transitC: 24 },
    tank: { tempC: 25.5, salinityPpt: 34, alkalinityMeqL: 2.7, ph: 8.2 },
  })
  expect(toQuestion({ ...figures, measuredPpt: 33, measuredPh: 6.9 }, { ...words, gas: 'air', fed: 'yes' })).toMatchObject({ measured: { salinityPpt: 33, ph: 6.9 }, isFed: true, bag: { oxygenAtm: 0.209 } })
})

test('figures are typed in the room’s unit, bounds shown in it', () => {
  const american = createUnits({ temperatureUnit: '°F', volumeUnit: 'gal', salinityUnit: 'ppt', sgReference: '25/25' })
  expect([readDesk({ quantity: 'temperature' }, '77', american), readDesk({}, '1,5', american), readDesk({}, ' ', american), readDesk({}, 'warm', american)]).toEqual([25, 1.5, undefined, NaN])
  expect([shownBound(american)({ quantity: 'temperature' }, 35), shownBound(createUnits(baseUnits))({ unit: 'mg/L' }, 10_000)]).toEqual(['95.0 °F', '10,000 mg/L'])
})

test('a first answer, then the firm one with the reading worth taking; progress in between, never backwards within an answer', () => {
  const told: JudgeProgress[] = []
  // One reading left open keeps it short: everything else is known.
  const facts = { kinds: [], triage: null, tankWater: null, tankAgents: [], isOneWater: false, hoursSaid: null, speciesName: 'fish', waterFacts: { standing: null, usual: null, waters: [], phMax: null } }
  const delivery = deliveryOf(facts, { ...figures, bags: 1, measuredC: 22, measuredPpt: 33, measuredPh: 6.93, measuredTan: 3.6 }, words, { slowsFloats: true, gradesHours: true, valveSettings: 2, people: null }, baseUnits)
  answerQuestion({ delivery, limits: standardLimits, schools, defaults: {}, units: baseUnits }, (progress) => void told.push(progress))
  const answers = told.filter(({ answer }) => answer !== null)
  expect(answers.map(({ done, answer }) => [done, answer?.verdict.draws, answer?.reading === null])).toEqual([[firstDraws, firstDraws, true], [allDraws, allDraws, false]])
  expect(answers[1]?.answer).toMatchObject({ verdict: { recommended: 'netOver' }, reading: 'No further reading would change this; none is worth opening the bag for.' })
  expect(told.length).toBeGreaterThan(40)
}, 120_000)
