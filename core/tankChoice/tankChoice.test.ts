import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { standardLimits } from '../limits/houseLimits'
import { speciesBook } from '../species/speciesBook'
import { animalOf, choiceInstance } from '../testing/choiceInstance'
import { gapOf, plainBound } from './boundChoice'
import { buildModel } from './buildModel'
import { conflictBetween, eats } from './company'
import { costsOf, forTank, rulesAgainst, tankOptions } from './explainChoice'
import { ownCosts, prepareChoice } from './prepareChoice'
import { brokenRules } from './rules'
import { faultsOf, scoreChoice } from './scoreChoice'
import { cheapestFit, firstFit, improveChoice } from './searchChoice'
import { homelessPoints, type ChoiceTank, type Occupant } from './tankChoice'
import { baseUnits, wordFigures } from '../units/units'

const book = (name: string, share = 0.6) => animalOf(speciesBook.find((entry) => entry.name === name)!, share)
const line = (name: string, count: number, share?: number) => ({ id: name, animal: book(name, share), count, supplier: 'Hollow Reed Hatchery' })
const standing = (name: string, quantity: number, more: Partial<Occupant> = {}): Occupant => ({ animal: book(name), quantity, supplier: 'Hollow Reed Hatchery', heldDays: null, ...more })
const tank = (more: Partial<ChoiceTank> = {}): ChoiceTank => ({
  ...{ id: 't', code: 'R1-01', waterId: 's', water: 'fresh', tempC: 25, salinityPpt: 0, agents: [], zoneId: null, netVolumeL: 60, purpose: 'sale', state: 'ready', occupants: [], fights: 0 },
  ...more,
})

const inBase = (sentence: string): string => wordFigures(sentence, () => baseUnits)

describe('hard rules', () => {
  test.each([
    ['plain', line('Cherry barb', 10), tank(), []],
    ['water', line('Royal gramma', 1), tank(), ['0 ppt, outside 26 ppt to 36 ppt by 26.0 ppt']],
    ['water by its kind where no salinity is known', line('Royal gramma', 1), tank({ salinityPpt: null }), ['fresh water, needs marine']],
    ['temperature', line('White cloud minnow', 10), tank({ tempC: 28 }), ['28 °C, outside 16 °C to 23 °C by 5.0 °C']],
    ['copper', line('Amano shrimp', 10), tank({ agents: ['copper'] }), ['copper in the water, Amano shrimp does not bear it']],
    ['unclean', line('Cherry barb', 10), tank({ state: 'not clean after illness' }), ['not clean after illness']],
    ['a mouth', line('Chili rasbora', 20), tank({ occupants: [standing('Oscar', 1)] }), ['Oscar eats Chili rasbora']],
    ['its own kind', line('Siamese fighter', 1), tank({ occupants: [standing('Siamese fighter', 1)] }), ['Siamese fighter fights its own kind']],
    ['a source it never met', line('Cherry barb', 8), tank({ unmet: [{ source: 'Hollow Reed Hatchery', other: 'Brackwater Nurseries', state: 'never' }, { source: 'Pale Harbour Livestock', other: 'Brackwater Nurseries', state: 'never' }] }), ['Hollow Reed Hatchery and Brackwater Nurseries have never met; no pairing passed']],
    ['another source in its hold', line('Cherry barb', 8), tank({ occupants: [standing('Cherry barb', 8, { supplier: 'Brackwater Nurseries', heldDays: 4 })] }), ['Cherry barb of Brackwater Nurseries is held there']],
    ['room', line('Fancy goldfish', 20), tank({ tempC: 20 }), ['160 g of fish, room for 120 g']],
    ['volume', line('Oscar', 1), tank(), ['60 L, needs 150 L']],
    ['unknown animals break nothing', { ...line('Cherry barb', 1), animal: { ...book('Cherry barb'), water: null, groupMin: null, massG: null, salinityPptMin: null, tempCMin: null, tempCMax: null } }, tank({ salinityPpt: null }), []],
  ])('%s', (_, asked, place, expected) => expect(brokenRules(asked, place, standardLimits).map(({ why }) => inBase(why))).toEqual(expected))

  test('who eats whom depends on the size they are now', () => {
    const [young, adult] = [book('Angelfish (fresh water)', 0.2), book('Angelfish (fresh water)', 1)]
    expect([eats(young, book('Ember tetra', 0.9)), eats(adult, book('Ember tetra', 0.9))]).toEqual([false, true])
    expect(conflictBetween(book('White cloud minnow'), book('Discus'))).toMatchObject({ code: 'no-common', why: 'White cloud minnow and Discus bear no common temperature' })
  })
})

const instance = fc.tuple(fc.integer({ min: 1, max: 14 }), fc.integer({ min: 1, max: 40 }), fc.integer({ min: 0, max: 2 ** 31 - 1 })).map(([lines, tanks, seed]) => prepareChoice(choiceInstance(lines, tanks, seed)))

describe('suggestions', () => {
  test('none breaks a hard rule, local search never makes one worse, and none is below the bound', () => {
    fc.assert(
      fc.property(instance, (prepared) => {
        for (const from of [firstFit(prepared), cheapestFit(prepared)]) {
          const better = improveChoice(prepared, from)
          const [before, after] = [scoreChoice(prepared, from).total, scoreChoice(prepared, better).total]
          expect([faultsOf(prepared, from), faultsOf(prepared, better), after <= before + 1e-6, plainBound(prepared) <= after + 1e-6]).toEqual([[], [], true, true])
          expect(gapOf(prepared, after, after)).toBe(0)
        }
      }),
      { numRuns: 150 },
    )
  })

  test('the programme says of every sound choice what it costs, and gives a choice back that costs no more', () => {
    fc.assert(
      fc.property(instance, (prepared) => {
        const model = buildModel(prepared)
        const choice = improveChoice(prepared, cheapestFit(prepared))
        const columns = model.columnsOf(choice)
        const cost = model.offset + columns.reduce((sum, value, index) => sum + value * (model.costs[index] ?? 0), 0)
        const held = model.rows.every(({ columns: row, values, lower, upper }) => {
          const sum = row.reduce((total, column, index) => total + (values[index] ?? 0) * (columns[column] ?? 0), 0)
          return sum >= lower - 1e-6 && sum <= upper + 1e-6
        })
        const total = scoreChoice(prepared, choice).total
        // A group in a dominated tank is written in the better one, so the programme may know it cheaper.
        expect([held, cost <= total + 1e-6]).toEqual([true, true])
        const back = model.choiceOf(columns)
        expect([faultsOf(prepared, back), scoreChoice(prepared, back).total <= total + 1e-6]).toEqual([[], true])
      }),
      { numRuns: 150 },
    )
  })

  test('every tank is explained: possible ones break nothing and say what they cost more, the others say why not', () => {
    fc.assert(
      fc.property(instance, (prepared) => {
        const choice = cheapestFit(prepared)
        for (const [at] of prepared.input.lines.entries()) {
          const options = tankOptions(prepared, choice, at)
          expect(options).toHaveLength(prepared.input.tanks.length)
          for (const { tank: place, broken, more } of options) {
            const moved = choice.with(at, place)
            expect(broken.length > 0).toBe(faultsOf(prepared, moved).includes(at))
            expect(more).toBeCloseTo(scoreChoice(prepared, moved).total - scoreChoice(prepared, choice).total, 6)
          }
        }
      }),
      { numRuns: 40 },
    )
  })

  test('the reasons add up: what a line is said to cost in a tank is what the whole choice costs more with it there', () => {
    fc.assert(
      fc.property(instance, fc.nat(), fc.nat(), (prepared, whichLine, whichTank) => {
        const { lines, tanks } = prepared.input
        const [at, place] = [whichLine % lines.length, whichTank % tanks.length]
        for (const choice of [cheapestFit(prepared), lines.map(() => null)]) {
          const without = scoreChoice(prepared, choice.with(at, null))
          const said = costsOf(prepared, choice, at, place)
          expect(said.reduce((sum, { points }) => sum + points, 0)).toBeCloseTo(scoreChoice(prepared, choice.with(at, place)).total - (without.total - homelessPoints), 6)
          expect(said.every(({ points, why }, index) => points > 0 && why.length > 3 && points <= (said[index - 1]?.points ?? Infinity))).toBe(true)
        }
      }),
      { numRuns: 200 },
    )
  })

  test('the last free hospital tank costs whoever takes it first, not those that join', () => {
    const prepared = prepareChoice({ lines: [line('Cherry barb', 6), line('Honey gourami', 2)], tanks: [tank({ id: 'h', purpose: 'hospital' }), tank({ id: 'a' })], shipping: { tempC: null, salinityPpt: null }, limits: standardLimits })
    const says = (choice: (number | null)[]) => costsOf(prepared, choice, 1, 0).map(({ why }) => why)
    expect([says([1, null]).includes('the last free hospital tank'), says([0, null]).includes('the last free hospital tank')]).toEqual([true, false])
  })

  test('what speaks for a tank: friends in it, its water, the room that is left', () => {
    const tanks = [tank({ id: 'a', tempC: 24.5 }), tank({ id: 'b', occupants: [standing('Cherry barb', 6)] }), tank({ id: 'c', tempC: null, occupants: [standing('Honey gourami', 2)] })]
    const prepared = prepareChoice({ lines: [line('Cherry barb', 10)], tanks, shipping: { tempC: null, salinityPpt: null }, limits: standardLimits })
    const said = [0, 1, 2].map((place) => forTank(prepared, 0, place).map(inBase))
    expect(said[0]?.slice(0, 2)).toEqual(['stands empty', '24.5 °C'])
    expect(said[1]?.[0]).toBe('joins 6 of its kind')
    expect(said[2]?.[0]).toBe('nobody in it harms or is harmed')
    expect(said[0]?.at(-1)).toMatch(/^\d+ of 120 g it still takes$/)
    const reef = prepareChoice({ lines: [line('Royal gramma', 1)], tanks: [tank({ water: 'marine', salinityPpt: 34 })], shipping: { tempC: null, salinityPpt: null }, limits: standardLimits })
    expect(forTank(reef, 0, 0).map(inBase)).toContain('34 ppt')
  })

  test('lines of one crate that cannot live together name each other; too many for a tank say how heavy they are together', () => {
    const both = prepareChoice({ lines: [line('Oscar', 1, 1), line('Cherry barb', 10)], tanks: [tank({ netVolumeL: 400 })], shipping: { tempC: null, salinityPpt: null }, limits: standardLimits })
    expect(rulesAgainst(both, [0, 0], 1, 0)).toMatchObject([{ code: 'eats', why: 'Oscar eats Cherry barb' }])
    expect(rulesAgainst(both, [null, 0], 1, 0)).toEqual([])
    const heavy = prepareChoice({ lines: [line('Cherry barb', 70), line('Honey gourami', 70)], tanks: [tank()], shipping: { tempC: null, salinityPpt: null }, limits: standardLimits })
    const against = rulesAgainst(heavy, [0, 0], 1, 0)
    expect([rulesAgainst(heavy, [0, null], 0, 0), against.length]).toEqual([[], 1])
    expect(against[0]).toMatchObject({ code: 'overload', why: expect.stringMatching(/^\d+ g of fish, room for 120 g$/) })
  })

  test('a group too small is a cost, and falls away where enough of its kind stand', () => {
    const input = { lines: [line('Kuhli loach', 2)], tanks: [tank({ id: 'a' }), tank({ id: 'b', occupants: [standing('Kuhli loach', 5)] })], shipping: { tempC: null, salinityPpt: null }, limits: standardLimits }
    const prepared = prepareChoice(input)
    expect([0, 1].map((place) => costsOf(prepared, [null], 0, place).map(({ why }) => why))).toEqual([['2 together, kept at least 6', 'opens another tank'], []])
    expect(cheapestFit(prepared)).toEqual([1])
  })

  test('kinds that fought elsewhere cost where they would meet again, and nowhere else', () => {
    const there = tank({ occupants: [standing('Honey gourami', 3)] })
    const input = { lines: [], tanks: [], shipping: { tempC: null, salinityPpt: null }, limits: standardLimits }
    const points = (of: typeof there): number => ownCosts(line('Cherry barb', 6), of, input).reduce((sum, each) => sum + each.points, 0)
    const fought = [{ a: 'Cherry barb', b: 'Honey gourami', weight: 0.5 }]
    expect(points({ ...there, fought }) - points(there)).toBeCloseTo(0.5 * standardLimits.fightPoints, 9)
    expect(points({ ...tank(), fought }) - points(tank())).toBe(0)
  })

  test('a hold is not restarted and an empty tank not opened where a friend stands', () => {
    const input = {
      lines: [line('Cherry barb', 8)],
      tanks: [tank({ id: 'a', waterId: 'held', occupants: [standing('Honey gourami', 4, { heldDays: 9 })] }), tank({ id: 'b', waterId: 'calm' }), tank({ id: 'c', waterId: 'calm', occupants: [standing('Cherry barb', 6)] })],
      shipping: { tempC: 25, salinityPpt: null },
      limits: standardLimits,
    }
    const prepared = prepareChoice(input)
    expect(cheapestFit(prepared)).toEqual([2])
    expect([0, 1, 2].map((place) => costsOf(prepared, [2], 0, place).map(({ points, why }) => `${points} ${why}`))).toEqual([['9 restarts holds on its water', '6 shares with Honey gourami'], ['3 opens another tank'], []])
    expect(rulesAgainst(prepared, [2], 0, 0)).toEqual([])
  })
})
