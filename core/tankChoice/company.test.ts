import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { standardLimits } from '../limits/houseLimits'
import { animalAs } from '../species/animalAs'
import { speciesBook } from '../species/speciesBook'
import { companyBetween, conflictBetween, ownKindFinding } from './company'
import { prepareChoice } from './prepareChoice'
import { brokenRules, cautionsFor } from './rules'
import { cautionsOf } from './explainChoice'
import type { Animal, ChoiceTank } from './tankChoice'

const entry = (name: string) => {
  const found = speciesBook.find((each) => each.name === name)
  if (!found) throw new Error(`no ${name} in the book`)
  return found
}
const newcomer = (name: string, sizeCm: number | null = null, strain: string | null = null): Animal => animalAs(entry(name), { sizeCm, strain, notedDaysAgo: 0, isResident: false })
const resident = (name: string, sizeCm: number | null = null, notedDaysAgo = 0): Animal => animalAs(entry(name), { sizeCm, strain: null, notedDaysAgo, isResident: true })
const worst = (a: Animal, b: Animal): string | undefined => companyBetween(a, b)[0]?.level

/** Thirty mixes that end or may end badly: who stands there grown, and who comes in at the size it is traded. */
const forbiddenMixes = [
  ['Figure-eight puffer', 'Nerite snail'],
  ['Valentini puffer', 'Trochus snail'],
  ['Clown loach', 'Mystery snail'],
  ['Yoyo loach', 'Nerite snail'],
  ['Assassin snail', 'Nerite snail'],
  ['Oscar', 'Clown loach'],
  ['Oscar', 'Bristlenose catfish'],
  ['Knight goby', 'Bumblebee goby'],
  ['Red-clawed crab', 'Bumblebee goby'],
  ['Angelfish (fresh water)', 'Neon tetra'],
  ['Firemouth cichlid', 'Neon tetra'],
  ['Paradise fish', 'Neon tetra'],
  ['Pictus catfish', 'Ember tetra'],
  ['Siamese fighter', 'Red cherry shrimp'],
  ['Tiger barb', 'Red cherry shrimp'],
  ['Clown loach', 'Amano shrimp'],
  ['Longnose hawkfish', 'Peppermint shrimp'],
  ['Fancy goldfish', 'Nerite snail'],
  ['Lionfish', 'Firefish'],
  ['Picasso triggerfish', 'Long-spined urchin'],
  ['Brown-banded bamboo shark', 'Blue-legged hermit crab'],
  ['Silver arowana', 'Cardinal tetra'],
] as const
const warnedMixes = [
  ['Tiger barb', 'Siamese fighter'],
  ['Serpae tetra', 'Angelfish (fresh water)'],
  ['Tiger barb', 'Guppy'],
  ['Firemouth cichlid', 'Guppy'],
  ['Six-line wrasse', 'Cleaner shrimp'],
  ['Emperor angelfish', 'Giant clam'],
  ['Raccoon butterflyfish', 'Zoanthid colony'],
  ['Valentini puffer', 'Stony coral'],
] as const

describe('who may share a tank', () => {
  test.each(forbiddenMixes)('forbidden: %s and %s', (there, coming) => expect(worst(newcomer(coming), resident(there))).toBe('forbidden'))
  test.each(warnedMixes)('warned of: %s and %s', (there, coming) => expect(worst(newcomer(coming), resident(there))).toBe('warning'))

  test('of the everyday stock of the first edition, few pairs are forbidden: it does not cry wolf', () => {
    const shareOf = (water: string): number => {
      const all = speciesBook.slice(0, 143).filter((each) => each.water === water)
      const pairs = all.flatMap((there) => all.filter((coming) => coming !== there).map((coming) => companyBetween(newcomer(coming.name), resident(there.name)).some(({ level, why }) => level === 'forbidden' && why.startsWith(`${there.name} eats`))))
      return pairs.filter(Boolean).length / pairs.length
    }
    expect(shareOf('fresh')).toBeLessThanOrEqual(0.05)
    expect(shareOf('marine')).toBeLessThanOrEqual(0.02)
  })

  const conflict = (...pair: Parameters<typeof conflictBetween>): string | null => conflictBetween(...pair)?.why ?? null
  test('sizes decide where they are known, and the guess errs on the side of the fish where they are not', () => {
    // A young oscar swallows no loach of its own length; a grown one does, and so does one whose size nobody knows.
    expect([conflict(newcomer('Clown loach', 6), resident('Oscar', 6)), conflict(newcomer('Clown loach', 6), resident('Oscar', 28)), conflict(newcomer('Clown loach', 6), resident('Oscar'))]).toEqual([null, 'Oscar eats Clown loach', 'Oscar eats Clown loach'])
    // Noted long ago, it has grown since.
    expect(conflict(newcomer('Clown loach', 6), resident('Oscar', 6, 200))).toBe('Oscar eats Clown loach')
    // Residents of unknown size are young to whoever comes and would eat them, and a loach of seven centimetres does not count as fifteen.
    expect([conflict(newcomer('Oscar', 28), resident('Clown loach')), newcomer('Clown loach').sizeCm]).toEqual(['Oscar eats Clown loach', 7])
  })

  test('fish without an entry in the newer fields are judged as before', () => {
    const plain = { ...newcomer('Tiger barb'), eats: [], company: null, ownKind: null, fins: null, poisons: null }
    expect([companyBetween(plain, { ...newcomer('Siamese fighter'), company: null }), ownKindFinding(plain, 40)]).toEqual([[], null])
    expect(animalAs({ name: 'Moonfish' }, { sizeCm: null, strain: null, notedDaysAgo: 0, isResident: true })).toMatchObject({ sizeCm: null, asPreyCm: null, minTankL: null, sensitivities: [] })
  })

  test('a strain with long fins is bitten where the plain form is not', () => {
    expect([worst(newcomer('Zebra danio', null, 'golden'), resident('Tiger barb')), worst(newcomer('Zebra danio', null, 'long-finned'), resident('Tiger barb'))]).toEqual([undefined, 'warning'])
  })

  test('what two kinds have against each other does not depend on who is asked first, and names both', () => {
    const names = speciesBook.map(({ name }) => name)
    fc.assert(
      fc.property(fc.constantFrom(...names), fc.constantFrom(...names), (one, other) => {
        const [a, b] = [newcomer(one), resident(other)]
        const said = (first: Animal, second: Animal) => companyBetween(first, second).map(({ level }) => level)
        expect(said(a, b).sort()).toEqual(said(b, a).sort())
        expect(companyBetween(a, b).every(({ why }) => why.includes(one) || why.includes(other))).toBe(true)
      }),
      { numRuns: 600 },
    )
  })
})

describe('its own kind inside one line', () => {
  test.each([
    ['Siamese fighter', 1, null],
    ['Siamese fighter', 12, 'forbidden'],
    ['Firefish', 2, 'forbidden'],
    ['Banggai cardinalfish', 2, null],
    ['Banggai cardinalfish', 6, 'warning'],
    ['Harlequin rasbora', 40, null],
    ['Mandarin dragonet', 3, 'note'],
  ])('%s, %i of them', (name, count, level) => expect(ownKindFinding(newcomer(name), count)?.level ?? null).toBe(level))

  test('an entry that only says it fights its own kind means one in a tank', () => {
    const own = animalAs({ name: 'House fighter', temperament: 'fights its own kind' }, { sizeCm: null, strain: null, notedDaysAgo: 0, isResident: false })
    expect(ownKindFinding(own, 12)?.level).toBe('forbidden')
  })
})

describe('a line in a tank', () => {
  const tank = (more: Partial<ChoiceTank> = {}): ChoiceTank => ({ ...{ id: 't', code: 'R1-01', waterId: 't', water: 'fresh', tempC: 25, salinityPpt: null, agents: [], zoneId: null, netVolumeL: 200, purpose: 'sale', state: 'ready', occupants: [], fights: 0 }, ...more })
  const line = (animal: Animal, count = 1) => ({ id: 'l', animal, count, supplier: 's' })
  const broken = (animal: Animal, place: ChoiceTank, count = 1): string[] => brokenRules(line(animal, count), place, standardLimits).map(({ why }) => why)

  test('a dye that kills snails is forbidden them; the mild one is the bath of a loach', () => {
    expect(broken(newcomer('Nerite snail'), tank({ agents: ['methylene blue'] }))).toEqual(['methylene blue in the water, Nerite snail does not bear it'])
    expect(broken(newcomer('Kuhli loach', 7), tank({ agents: ['methylene blue'] }), 8)).toEqual([])
    expect([broken(newcomer('Neon tetra'), tank({ agents: ['copper'] }), 10), cautionsFor(line(newcomer('Neon tetra'), 10), tank({ agents: ['copper'] })).map(({ level, why }) => `${level}: ${why}`)]).toEqual([[], ['warning: copper in the water, Neon tetra bears it with care only']])
  })

  test('every water it lives in will do where nobody knows the salinity', () => {
    expect([broken(newcomer('Spotted scat', 5), tank()), broken(newcomer('Spotted scat', 5), tank({ water: 'marine' })), broken(newcomer('Cherry barb'), tank({ water: 'marine' }))]).toEqual([[], [], ['marine water, needs fresh']])
  })

  test('what poisons its water has one of its own, alone', () => {
    const cowfish = newcomer('Longhorn cowfish')
    const reef = tank({ water: 'marine', salinityPpt: 34 })
    expect(broken(cowfish, reef)).toEqual([])
    expect(broken(cowfish, { ...reef, waterId: 'shared' })).toEqual(['Longhorn cowfish poisons the water it shares; a tank of its own water'])
    expect(broken(newcomer('Firefish'), { ...reef, occupants: [{ animal: resident('Longhorn cowfish'), quantity: 1, supplier: 's', heldDays: null }] })).toContain('Longhorn cowfish poisons the water it shares when frightened')
  })

  test('the tank it needs follows the size it has now', () => {
    const needs = (sizeCm: number | null) => newcomer('Angelfish (fresh water)', sizeCm).minTankL
    expect([needs(3), needs(null), needs(5), needs(10), needs(15)]).toEqual([15, 30, 30, 60, 60])
    expect([newcomer('Oscar').minTankL, newcomer('Oscar', 25).minTankL]).toEqual([60, 150])
  })

  test('pH and hardness it is not kept in are mentioned', () => {
    expect(cautionsFor(line(newcomer('Chili rasbora'), 10), tank({ ph: 8.1, alkalinityMeqL: 5 })).map(({ level }) => level)).toEqual(['note', 'note'])
    expect(cautionsFor(line(newcomer('Electric yellow cichlid')), tank({ ph: 8, alkalinityMeqL: 0.4 })).map(({ why }) => why)).toEqual(['soft water, kept in hard'])
  })

  test('a warning costs, so that a tank without one is taken; beside another line it is said', () => {
    const [barbs, fighter] = [{ ...line(newcomer('Tiger barb'), 8), id: 'barbs' }, { ...line(newcomer('Siamese fighter')), id: 'fighter' }]
    const stocked = tank({ id: 'a', occupants: [{ animal: resident('Tiger barb'), quantity: 8, supplier: 's', heldDays: null }] })
    const prepared = prepareChoice({ lines: [barbs, fighter], tanks: [stocked, tank({ id: 'b', code: 'R1-02' })], shipping: { tempC: null, salinityPpt: null }, limits: standardLimits })
    expect(Number(prepared.costs[1]?.[0])).toBeGreaterThan(Number(prepared.costs[1]?.[1]) + standardLimits.warningPoints)
    expect(cautionsOf(prepared, [1, 1], 1, 1).map(({ why }) => why)).toContain('Tiger barb bites the long fins of Siamese fighter')
  })
})
