import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { namesNear } from './nearestName'
import { entriesNamed, namesOf, speciesBook } from './speciesBook'

const known = speciesBook.flatMap((entry) => namesOf(entry).map((name) => ({ name, means: entry.name })))
const tradeNames = JSON.parse(readFileSync(join('core', 'fixtures', 'trade-names.json'), 'utf8')) as Record<'fresh' | 'marine', string[]>

describe('the nearest name', () => {
  test.each([
    ['Cherry barbs', ['Cherry barb']],
    ['knight gobi', ['Knight goby']],
    ['Honney gourami', ['Honey gourami']],
    ['Cardinal tetra', ['Cardinal tetra']],
    ['rummynose tetra', ['Rummy-nose tetra']],
    ['Puntius titeya', ['Cherry barb']],
    ['Moonfish of nowhere', []],
    ['', []],
    ['~', []],
    ['constructor', []],
    ['blue tang', ['Regal tang', 'Powder blue tang']],
    ['Algae eater', ['Siamese algae eater', 'Chinese algae eater', 'Otocinclus']],
    ['ghost shrimp', []],
    // Each of these was once offered another animal.
    ['sucker algae eater', []],
    ['bamboo', []],
    ['dojo', []],
    ['sand-sifting star', []],
    ['tomato clownfish', []],
  ])('%s may be %j', (typed, names) => expect(namesNear(typed, known)).toEqual(names))

  test('a name with one letter wrong in a word of five and more is always found', () => {
    const long = speciesBook.filter(({ name }) => /\p{L}{5,}/u.test(name)).map(({ name }) => name)
    fc.assert(
      fc.property(fc.constantFrom(...long), fc.nat(), (name, at) => {
        const letters = [...name.matchAll(/\p{L}{5,}/gu)].flatMap(({ index, 0: word }) => Array.from(word, (_, offset) => index + offset))
        const index = letters[at % letters.length] ?? 0
        return namesNear(`${name.slice(0, index)}q${name.slice(index + 1)}`, known).includes(name)
      }),
    )
  })

  test('whatever is typed, in whatever alphabet, it is answered', () => {
    fc.assert(fc.property(fc.string({ unit: 'grapheme', maxLength: 80 }), (typed) => namesNear(typed, known).every((name) => speciesBook.some((entry) => entry.name === name))))
  })
})

describe('nine hundred names of the trade', () => {
  const names = Object.entries(tradeNames).flatMap(([water, list]) => list.map((name) => ({ name, water })))
  // Found by one of its names, or offered: the animal that a keeper means by it, in the same water.
  const offered = names.flatMap(({ name, water }) => [...entriesNamed(name).map((entry) => entry.name), ...(entriesNamed(name).length === 0 ? namesNear(name, known) : [])].map((means) => ({ name, water, means })))

  test('none is offered an animal of another water', () => {
    expect(names.length).toBeGreaterThan(900)
    expect(offered.filter(({ water, means }) => !(speciesBook.find((entry) => entry.name === means)?.waters as string[]).includes(water))).toEqual([])
  })

  test('the few that are near are the same animal, or its next of kin', () => {
    const near = names.flatMap(({ name }) => (entriesNamed(name).length === 0 ? namesNear(name, known).map((means) => [name, means]) : []))
    expect(near).toEqual([
      ['yo-yo loach', 'Yoyo loach'],
      ['red line torpedo barb', 'Denison barb'],
      ['hockey stick tetra', 'Penguin tetra'],
      ['walking catfish', 'Striped Raphael catfish'],
      ['tigertail cucumber', 'Sea cucumber'],
    ])
  })
})
