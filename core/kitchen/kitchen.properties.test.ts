import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { habits } from '../rounds/roundRules'
import { mouths } from '../species/speciesWords'
import { tries } from '../testing/tries'
import { foodLoad } from './foodLoad'
import { shippedKitchen } from './kitchenRules'
import { dryFoodG, thawList, type KitchenLot, type ThawAsked } from './thawList'

const foods = shippedKitchen.foods.map(({ food }) => food)
const lot: fc.Arbitrary<Omit<KitchenLot, 'lot'>> = fc.record(
  {
    rack: fc.constantFrom('R1', 'R2', 'R10', 'M1', 'Q1'),
    water: fc.constantFrom('fresh' as const, 'brackish' as const, 'marine' as const),
    quantity: fc.integer({ min: 1, max: 400 }),
    massG: fc.double({ min: 0.01, max: 400, noNaN: true }),
    tempC: fc.double({ min: 4, max: 33, noNaN: true }),
    mouth: fc.constantFrom(...mouths),
    habits: fc.uniqueArray(fc.constantFrom(...habits), { maxLength: 2 }),
    days: fc.nat({ max: 40 }),
    isConditioning: fc.boolean(),
    everyOtherDay: fc.boolean(),
    withoutFood: fc.boolean(),
    medicated: fc.option(fc.constantFrom(...foods), { nil: undefined, freq: 6 }),
    lastAte: fc.constantFrom('all' as const, 'most' as const, 'some' as const, 'none' as const),
  },
  { requiredKeys: ['rack', 'water', 'quantity', 'massG', 'tempC', 'mouth', 'habits', 'days'] },
)
const asked: fc.Arbitrary<ThawAsked> = fc.record({
  feedAtMin: fc.integer({ min: 30_000_000, max: 31_000_000 }),
  dayShare: fc.double({ min: 0.05, max: 1, noNaN: true }),
  feedsFirstDay: fc.boolean(),
  lots: fc.array(lot, { maxLength: 25 }).map((lots) => lots.map((each, index) => ({ ...each, lot: `L-${index}` }))),
  stock: fc.uniqueArray(fc.record({ food: fc.constantFrom(...foods), pieces: fc.nat({ max: 6 }) }), { selector: ({ food }) => food, maxLength: foods.length }),
})
const sumOf = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0)
const ruleOf = (food: string) => shippedKitchen.foods.find((rule) => rule.food === food)!

test('every gram that is thawed is given or spare, and no more is opened than is on hand', () => {
  fc.assert(
    fc.property(asked, (list) => {
      const { foods: opened, portions, short, rations } = thawList(list)
      for (const { food, pieces, spareG, needG, startAtMin, outAtMin } of opened) {
        const given = sumOf(portions.filter((each) => each.food === food).map(({ grams }) => grams))
        expect(given + spareG).toBeCloseTo(pieces * ruleOf(food).pieceG, 6)
        expect(spareG).toBeGreaterThanOrEqual(-1e-9)
        expect(given).toBeLessThanOrEqual(needG + 1e-9)
        expect(pieces).toBeLessThanOrEqual(list.stock.find((each) => each.food === food)?.pieces ?? 0)
        if (startAtMin !== null) expect([startAtMin % 5, startAtMin < list.feedAtMin]).toEqual([0, true])
        expect(outAtMin).toBeGreaterThan(list.feedAtMin)
        // What is short would have been opened.
        expect((short.find((each) => each.food === food)?.pieces ?? 0) + pieces).toBeGreaterThanOrEqual(1)
      }
      expect(sumOf(rations.map(({ grams }) => grams))).toBeCloseTo(sumOf(portions.map(({ grams }) => grams)), 6)
    }),
    { numRuns: tries(2000, 500) },
  )
})

test('every lot is fed, skipped with why, or left out loudly; never two of them, and never with food that does not suit it', () => {
  fc.assert(
    fc.property(asked, (list) => {
      const { rations, skipped, leftOut, meals } = thawList(list)
      const fed = new Set(rations.map((each) => each.lot))
      for (const { lot: name, mouth, medicated, withoutFood } of list.lots) {
        expect([fed.has(name), skipped.some((each) => each.lot === name), leftOut.includes(name)].filter(Boolean)).toHaveLength(1)
        if (withoutFood) expect(fed.has(name)).toBe(false)
        for (const { food, bowl } of rations.filter((each) => each.lot === name)) {
          if (medicated) expect([food, bowl]).toEqual([medicated, 'medicated'])
          else expect([ruleOf(food).mouths.includes(mouth), bowl === 'medicated']).toEqual([true, false])
        }
      }
      expect(meals.every((each) => fed.has(each.lot))).toBe(true)
    }),
    { numRuns: tries(2000, 500) },
  )
})

test('more on hand never leaves more lots without food', () => {
  fc.assert(
    fc.property(asked, (list) => {
      const more = { ...list, stock: foods.map((food) => ({ food, pieces: 500 })) }
      const [few, many] = [thawList(list), thawList(more)]
      expect(many.leftOut).toEqual([])
      expect(few.skipped).toEqual(many.skipped)
    }),
    { numRuns: tries(500, 200) },
  )
})

test('fish that ate nothing get half, conditioned ones more, cold ones less, none below nothing', () => {
  const settled = { quantity: 10, massG: 1, tempC: 25 }
  expect(dryFoodG(settled)).toBeCloseTo(0.2, 9)
  expect(dryFoodG({ ...settled, lastAte: 'none' })).toBeCloseTo(0.1, 9)
  expect(dryFoodG({ ...settled, lastAte: 'some' })).toBeCloseTo(0.15, 9)
  expect(dryFoodG({ ...settled, isConditioning: true, lastAte: 'none' })).toBeCloseTo(0.13, 9)
  expect(dryFoodG({ ...settled, tempC: 15 })).toBeCloseTo(0.1, 9)
  expect(dryFoodG({ ...settled, tempC: 4 })).toBeCloseTo(0.1, 9)
  expect(dryFoodG({ ...settled, tempC: 33 })).toBeCloseTo(0.25, 9)
})

test('a medicated food that is out is not replaced: its lot is left out, and how much is short is said', () => {
  const one = { lot: 'A', rack: 'Q1', water: 'marine', quantity: 30, massG: 5, tempC: 25, mouth: 'small', habits: [], days: 3, medicated: 'gel food' } as const
  const { leftOut, short, portions, foods: opened } = thawList({ feedAtMin: 30_000_000, lots: [one], stock: [{ food: 'mysis', pieces: 9 }] })
  expect({ leftOut, short, portions }).toEqual({ leftOut: ['A'], short: [{ food: 'gel food', pieces: 2 }], portions: [] })
  expect(opened).toMatchObject([{ food: 'gel food', pieces: 0, spareG: 0, startAtMin: null }])
})

const water = fc.record({
  volumeL: fc.double({ min: 5, max: 2000, noNaN: true }),
  fish: fc.array(fc.record({ quantity: fc.integer({ min: 1, max: 60 }), massG: fc.double({ min: 0.05, max: 100, noNaN: true }) }), { minLength: 1, maxLength: 4 }),
  tempC: fc.double({ min: 15, max: 31, noNaN: true }),
  ph: fc.double({ min: 5.5, max: 8.6, noNaN: true }),
  salinityPpt: fc.double({ min: 0, max: 36, noNaN: true }),
  dryFoodG: fc.oneof(fc.constant(0), fc.double({ min: 0.001, max: 30, noNaN: true })),
  protein: fc.double({ min: 0.3, max: 0.65, noNaN: true }),
  filterShare: fc.constantFrom(0, 0.3, 0.95),
})

test('with what is said to be changed and fed, a water stands at its limit at most', () => {
  fc.assert(
    fc.property(water, (each) => {
      const { changeLPerDay, foodShare, isEnough } = foodLoad(each)
      expect(changeLPerDay).toBeLessThanOrEqual(each.volumeL / 2 + 1e-9)
      if (!isEnough) return expect([foodShare, changeLPerDay]).toEqual([each.dryFoodG > 0 ? 0 : 1, each.volumeL / 2])
      const fed = foodLoad({ ...each, dryFoodG: each.dryFoodG * foodShare })
      expect(fed.nh3MgLPerDay / (changeLPerDay / each.volumeL)).toBeLessThanOrEqual(shippedKitchen.kitchen.nh3LimitMgL * (1 + 1e-6))
      // Never "do not feed" where less food would do.
      if (each.dryFoodG > 0) expect(foodShare).toBeGreaterThanOrEqual(0)
    }),
    { numRuns: tries(2000, 500) },
  )
})
