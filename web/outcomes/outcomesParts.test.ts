import { expect, test } from '@jest/globals'
import { outcomesPage } from '../../core/outcomes/outcomesPage'
import type { OutcomeLot } from '../../core/outcomes/outcomeLot'
import { shippedOutcomes } from '../../core/outcomes/outcomeRules'
import { lotRows, outcomesRows } from './outcomesCsv'
import { fishAddress, questionOf } from './outcomesQuestion'
import { curveWords, percentOf, toSurvivalChart } from './survivalChart'

const lot = (crate: number, more: Partial<OutcomeLot> = {}): OutcomeLot => ({
  ...{ lot: `l${crate}`, code: `${crate}-1`, crate: `c${crate}`, crateNumber: crate, crateId: `c${crate}`, species: 'Cherry barb', strain: null, origin: 'pond raised', supplier: crate % 2 === 0 ? 'Hollow Reed' : '=Pale Harbour' },
  ...{ condition: 'sound', transitHours: 9, school: 'Net-over', hold: null, water: 'Rack', opened: '2031-04-01', received: 20, deadInBag: 1, n: 19, exits: [[2, 7, 1], [9, -1, 4]], events: [[2, 'Heater']], until: 30, missing: 0, corrected: 0, shared: 0 },
  ...more,
})
const lots = [1, 2, 3, 4, 5, 6, 7, 8].map((crate) => lot(crate))
const view = outcomesPage({ lots, today: '2031-05-04', question: questionOf(new URLSearchParams(), 14), rules: shippedOutcomes })

test('an address that asks nothing asks the usual; what is no question is as if it were not there', () => {
  expect(questionOf(new URLSearchParams('by=staff&day=x&of=witchcraft&from=May&a=A&b=A'), 14)).toEqual({ by: 'supplier', day: 14, died: 'anything', supplier: null, species: null, origin: null, from: null, until: null, pair: null })
  expect(questionOf(new URLSearchParams('by=transit&day=300&of=late gasping&from=2031-04&a=A&b=B'), 14)).toMatchObject({ by: 'transit', day: 120, died: 'late gasping', from: '2031-04', pair: ['A', 'B'] })
  expect(fishAddress(new URLSearchParams('by=origin'), 'pond raised')).toBe('/outcomes/fish?by=origin&group=pond+raised')
})

test('everything that is shown goes out, and every lot with what died of what', () => {
  const rows = outcomesRows(view, { by: 'supplier', day: 14 })
  expect([...new Set(rows.map(({ table }) => table))]).toEqual(['survival', 'dead in the bag', 'comparison', 'ranking', 'what died of what'])
  expect(rows.find(({ table }) => table === 'dead in the bag')).toMatchObject({ fish: 80, dead: 4, value: 0.05 })
  expect(lotRows(lots)[0]).toMatchObject({ code: '1-1', supplier: '=Pale Harbour', 'died: first days': 1, outbreaks: 'Heater', exits: '2 first days 1; 9 alive 4' })
})

test('a curve is drawn with its band, grey where few are left, and said in words', () => {
  const inks = { ink: '#000', soft: '#555', line: '#ccc', water: '#aff', harm: '#a00', watch: '#aa0' } as Parameters<typeof toSurvivalChart>[2]
  const { data, options } = toSurvivalChart(view.curves, 14, inks, { day: 2, words: 'this loss, day 2' })
  expect([data.datasets.length, (options.scales?.y as { max: number }).max]).toEqual([6, 100])
  expect(curveWords(view.curves, 14)).toMatch(/^(=Pale Harbour|Hollow Reed): 94\.7 % alive on day 14 \(\d+(\.\d)? % to \d+(\.\d)? %\)\. /)
  expect([percentOf(null), percentOf(1), percentOf(0.5), percentOf(0.004)]).toEqual(['–', '100 %', '50 %', '0.4 %'])
})
