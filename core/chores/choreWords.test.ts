import { expect, test } from '@jest/globals'
import { routineDue } from '../due/due'
import { lotFacts, tankFacts } from '../testing/factsOf'
import { baseUnits, wordFigures } from '../units/units'
import type { ChoreAtPlace } from './choreView'
import { choreAsks, ruleWords } from './choreWords'
import { cardWords, choresOnRound } from './choresOnRound'

const at = (change: Partial<ChoreAtPlace> = {}): ChoreAtPlace => ({ choreId: 'c', placeId: 'p', chore: 'Filter bags', kind: 'filter bags', place: 'R1-01', systemId: null, tankId: 't1', tankCode: 'R1-01', dueOn: '2031-05-04', lateDays: 0, words: null, uses: [], fish: [], note: null, ...change })
const asks = (...of: Parameters<typeof choreAsks>) => { const words = choreAsks(...of); return words === null ? null : wordFigures(words, () => baseUnits) }

test('a water change says litres, warmth, salinity and salt; where nobody says what a water is kept at, litres', () => {
  const litres = { litres: 20, fromTankId: null }
  expect(asks('water change', litres, { tempC: 25, salinityPpt: 34 }, null)).toBe('20 L at 25 °C, 34 ppt: 740 g of salt mix')
  expect(asks('water change', { ...litres, litres: 60 }, { tempC: 25, salinityPpt: 34 }, null)).toBe('60 L at 25 °C, 34 ppt: 2.22 kg of salt mix')
  expect(asks('water change', litres, { tempC: 25, salinityPpt: 0.3 }, null)).toBe('20 L at 25 °C')
  expect(asks('water change', litres, null, null)).toBe('20 L')
  expect(asks('water change', { litres: 20, fromTankId: 'x' }, { tempC: 25, salinityPpt: 34 }, 'D1-01')).toBe('20 L with water of D1-01: a contact between both')
  expect([asks('lamp', litres, null, null), asks('decor', litres, null, null)]).toEqual([null, 'soiled decor comes to the shop, is bleached and rinsed there, never at the customer’s'])
})

test('how a chore comes round, in words', () => {
  const rule = { days: null, weekdays: [], fish: null, earlyDays: 0 }
  expect([ruleWords({ ...rule, kind: 'every', days: 3 }), ruleWords({ ...rule, kind: 'every', days: 1 }), ruleWords({ ...rule, kind: 'fixed', days: 14 }), ruleWords({ ...rule, kind: 'weekdays', weekdays: [4, 1] }), ruleWords({ ...rule, kind: 'arrivals', fish: 100 }), ruleWords({ ...rule, kind: 'once' })]).toEqual(['every 3 days after it was done', 'every day after it was done', 'every 14 days, by the calendar', 'Mon, Thu', 'after every 100 fish that come', 'once'])
})

test('on the round a chore stands at its tank, that of a system at the first of its tanks with fish, and anything else nowhere', () => {
  const tanks = [tankFacts({ tankId: 'e', systemId: 'sys' }), tankFacts({ tankId: 'f', systemId: 'sys', lots: [lotFacts()] }), tankFacts({ tankId: 't1', systemId: 'own' })]
  const due = [at(), at({ placeId: 'q', tankId: null, tankCode: null, systemId: 'sys', place: 'Sale rack' }), at({ placeId: 'r', tankId: null, tankCode: null, place: 'store room' })]
  expect([...choresOnRound(due, tanks)].map(([tankId, rows]) => [tankId, rows.map(({ placeId }) => placeId)])).toEqual([['t1', ['p']], ['f', ['q']]])
  expect(cardWords(at({ tankCode: null, place: 'Sale rack', words: 'wipe', uses: [{ item: 'felt bag', count: 2 }] }))).toBe('Filter bags, Sale rack: wipe; 2 × felt bag')
  expect(cardWords(at())).toBe('Filter bags')
})

test('a chore is due once, however many places it has; late it presses', () => {
  const due = routineDue({ on: '2031-05-04', due: [at({ lateDays: 2 }), at({ placeId: 'q', place: 'M1-01' }), at({ choreId: 'd', chore: 'Wipe' })] })
  expect(due.map(({ about, what, urgency, detail, to }) => [about, what, urgency, detail, to])).toEqual([['Filter bags', 'R1-01, M1-01', 'now', 'late by 2 days', '/chores#chore-c'], ['Wipe', 'R1-01', 'soon', null, '/chores#chore-d']])
})
