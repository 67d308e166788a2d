import { expect, test } from '@jest/globals'
import { shippedRoundRules } from './roundRules'
import type { LotInTank } from './seenInTank'
import { usualOver } from './usualOver'

const hourMs = 3_600_000
const [fromMs, toMs] = [0, 14 * 24 * hourMs]
/** Fish that came by a drip so many hours ago, usually 95 % of them seen. */
const came = (hoursAgo: number): LotInTank => ({ lot: 'A', fish: 10, days: 5, inHold: true, species: { shareSeen: 0.95, firstMealDays: 2, tolerance: 'normal', habits: [] }, events: [{ event: 'arrival', school: 'drip', hoursAgo }] })
const over = (lots: LotInTank[], looks: Parameters<typeof usualOver>[1] = []) => usualOver(lots, looks, { fromMs, toMs }, shippedRoundRules)
const hours = (atMs: number): number => atMs / hourMs

test('after an arrival little is eaten and little shows itself for its windows; before it nothing is said of fish that were not there', () => {
  const { appetite, shareSeen, signs } = over([came(120)])
  // They came at hour 216: nothing for two days (to the first meal, 24 h each), and some for two days more.
  expect(appetite.map(({ atMs, least }) => [hours(atMs), least])).toEqual([[0, 'most'], [216, 'none'], [264, 'some'], [312, 'most']])
  expect(shareSeen.map(({ atMs, share }) => [hours(atMs), Number(share.toFixed(3))])).toEqual([[0, 0.95], [216, 0.475], [240, 0.76], [288, 0.95]])
  expect(signs.filter(({ sign }) => sign === 'hiding' || sign === 'fast breathing').map(({ sign, fromMs: from, toMs: to }) => [sign, hours(from), hours(to)])).toEqual([['fast breathing', 216, 224], ['hiding', 216, 288]])
})

test('a full meal ends what explains a refusal, from then on', () => {
  const { appetite } = over([came(120)], [{ atMs: 230 * hourMs, ate: 'all', answers: [] }])
  expect(appetite.map(({ atMs, least }) => [hours(atMs), least])).toEqual([[0, 'most'], [216, 'none'], [232, 'most']])
})

test('what is usual for one of several lots is usual in the tank; of an empty one nothing is said', () => {
  expect(over([{ ...came(2000), lot: 'B' }, came(120)]).appetite).toEqual(over([came(120)]).appetite)
  expect(over([])).toEqual({ appetite: [{ atMs: 0, least: 'most' }], shareSeen: [{ atMs: 0, share: 1 }], signs: [] })
})
