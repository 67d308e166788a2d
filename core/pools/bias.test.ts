import { expect, test } from '@jest/globals'
import { always, carried, comparison, liveRoom, survivalOf, type Rule } from '../testing/pooledRooms'
import { tries } from '../testing/tries'
import { shippedHazard, type HazardByDays } from './hazard'

// The table of docs/pools.md: what every usual rule invents between two lots that are alike, and this one does not.
const rooms = tries(100, 8)
/** Points of survival, and of the ratio of deaths, by which so few rooms may stray from the table. */
const [points, ratios] = [rooms >= 100 ? 0.8 : 2, rooms >= 100 ? 0.08 : 0.2]

const flat: HazardByDays = [[0, 3], [3, 2], [7, 1.5], [21, 1]]
const steep: HazardByDays = [[0, 20], [3, 8], [7, 3], [21, 1]]
const byStock = carried(null)
const oldest = always((a, b) => b.days - a.days)
const newest = always((a, b) => a.days - b.days)
const rules = {
  'oldest first': { loss: oldest, sale: oldest },
  'newest first': { loss: newest, sale: newest },
  'by stock': { loss: byStock, sale: byStock },
  'stock x hazard': { loss: carried(shippedHazard), sale: byStock },
  'too flat': { loss: carried(flat), sale: byStock },
  'too steep': { loss: carried(steep), sale: byStock },
} satisfies Record<string, Rule>
type Name = keyof typeof rules

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length

function tell(fish: [number, number], timesWorse: number) {
  const lived = Array.from({ length: rooms }, (_, room) => liveRoom((room + 1) * 7919, fish, timesWorse, Object.values(rules)))
  return (name: Name, book: 'booked' | 'shares') => {
    const index = Object.keys(rules).indexOf(name)
    const bias = (which: 0 | 1): number => mean(lived.map(({ so, told }) => 100 * (survivalOf((told[index] as (typeof told)[number])[book][which]) - survivalOf(so[which]))))
    return { older: bias(0), newer: bias(1), ratio: mean(lived.map(({ told }) => comparison((told[index] as (typeof told)[number])[book]).ratio)) }
  }
}

const near = (found: { older: number; newer: number }, older: number, newer: number): void => {
  expect(Math.abs(found.older - older)).toBeLessThan(points)
  expect(Math.abs(found.newer - newer)).toBeLessThan(points)
}

test('two lots that are alike: the rule invents no difference, the others do', () => {
  const told = tell([10, 10], 1)
  near(told('stock x hazard', 'booked'), 0, 0)
  near(told('stock x hazard', 'shares'), 0, 0)
  near(told('by stock', 'booked'), -3.9, 4)
  near(told('too flat', 'shares'), -1.8, 1.8)
  near(told('too steep', 'shares'), 1.3, -1.1)
  expect(told('oldest first', 'booked').older).toBeLessThan(-15)
  expect(told('newest first', 'booked').newer).toBeLessThan(-15)
})

test('a large old lot and a small new one', () => {
  const told = tell([14, 5], 1)
  near(told('stock x hazard', 'booked'), -0.3, 0.6)
  near(told('stock x hazard', 'shares'), 0, 0)
  near(told('by stock', 'booked'), -2, 5.4)
})

test('a true difference is hidden by about half, and called neither away nor round', () => {
  const told = tell([10, 10], 2)
  const strays = (name: Name, ratio: number): number => Math.abs(told(name, 'shares').ratio - ratio)
  expect(strays('stock x hazard', 1.39)).toBeLessThan(ratios)
  expect(strays('by stock', 0.82)).toBeLessThan(ratios)
  expect(strays('too flat', 1.1)).toBeLessThan(ratios)
  expect(strays('too steep', 1.64)).toBeLessThan(ratios)
})
