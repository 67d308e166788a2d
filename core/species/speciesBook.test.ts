import { describe, expect, test } from '@jest/globals'
import { registerValuesSchema } from '../setup/registerSchema'
import { nameKey } from '../words/nameKey'
import { holdingL } from './animalAs'
import { ambiguousNames, entriesNamed, formerBook, namesOf, speciesBook, type BookEntry } from './speciesBook'
import { firstFoodKinds } from './speciesWords'

const figure = (entry: BookEntry, field: string): number => Number(entry[field])
const words = (entry: BookEntry, field: string): string[] => entry[field] as string[]
/** Names of the entries of which something does not hold. */
const failing = (holds: (entry: BookEntry) => boolean): string[] => speciesBook.filter((entry) => !holds(entry)).map(({ name }) => name)

describe('the whole book', () => {
  test('has a hundred and ninety species and more, each as Setup would take it', () => {
    expect(speciesBook.length).toBeGreaterThanOrEqual(192)
    for (const entry of speciesBook) expect(registerValuesSchema('species').validateSync(entry, { strict: true, abortEarly: false })).toEqual(entry)
  })

  test.each<[string, (entry: BookEntry) => boolean]>([
    ['is traded no longer than it grows', (entry) => figure(entry, 'tradedCm') <= figure(entry, 'adultCm')],
    ['weighs what its length allows: a fish from a thread to a ball, a shell more', (entry) => figure(entry, 'usualMassG') > 0.0004 * figure(entry, 'tradedCm') ** 3 && figure(entry, 'usualMassG') < (entry.animal === 'fish' ? 0.25 : 1.2) * figure(entry, 'tradedCm') ** 3],
    ['swallows nothing longer than itself', (entry) => figure(entry, 'swallowsCm') <= figure(entry, 'adultCm')],
    ['has a tiny mouth where it swallows little, and a large one where it swallows much', (entry) => entry.animal !== 'fish' || (entry.mouth === 'large' ? figure(entry, 'swallowsCm') >= 1 : entry.mouth === 'tiny' ? figure(entry, 'swallowsCm') <= 2 : true)],
    ['does not fight its own kind where it is kept in company', (entry) => !(entry.temperament === 'fights its own kind' && figure(entry, 'groupMin') >= 2)],
    ['is kept alone where it bears one only', (entry) => entry.ownKind !== 'one only' || figure(entry, 'groupMin') === 1],
    ['lives in groups only where it does not fight its own', (entry) => entry.ownKind !== 'group' || entry.temperament !== 'fights its own kind'],
    ['is kept in pairs of two at most', (entry) => entry.ownKind !== 'pair' || figure(entry, 'groupMin') <= 2],
    ['takes first a food that is one', (entry) => words(entry, 'firstFoodKinds').length > 0 && words(entry, 'firstFoodKinds').every((kind) => (firstFoodKinds as readonly string[]).includes(kind))],
    ['bears no copper without a backbone', (entry) => entry.animal === 'fish' || entry.copper === 'forbidden'],
    ['is traded in a water it lives in', (entry) => words(entry, 'waters').includes(entry.water)],
    ['crosses only where it lives in several waters', (entry) => entry.crossing === 'none' || words(entry, 'waters').length > 1],
    ['bears the salt of the water it is traded in', (entry) => (entry.water === 'marine' ? figure(entry, 'salinityPptMin') >= 20 || words(entry, 'waters').length > 1 : figure(entry, 'salinityPptMin') < 20) && figure(entry, 'salinityPptMax') > (entry.water === 'fresh' ? -1 : 5)],
    ['is held in no less than its length at the trade asks for', (entry) => figure(entry, 'minTankL') >= Math.min(15, holdingL(figure(entry, 'tradedCm')))],
    ['is never lifted into air with a net', (entry) => !words(entry, 'sensitivities').includes('air') || entry.catchWith !== 'net'],
    ['hurts nobody with a net where it is venomous', (entry) => !words(entry, 'hurts').includes('venomous') || (entry.catchWith !== 'net' && entry.catchWith !== 'by hand')],
    ['says of every agent of its water whether it bears it', (entry) => ['copper', 'formalin', 'malachiteGreen', 'methyleneBlue', 'praziquantel', 'chloroquine'].every((agent) => entry[agent] !== null)],
  ])('every entry %s', (_, holds) => expect(failing(holds)).toEqual([]))

  test('no two entries share a name; only a scientific one may stand for two breeds of a species', () => {
    const shared = new Map<string, string[]>()
    for (const entry of speciesBook) for (const name of new Set(namesOf(entry).map(nameKey))) shared.set(name, [...(shared.get(name) ?? []), entry.name])
    expect([...shared].filter(([, names]) => names.length > 1)).toEqual([['carassius auratus', ['Fancy goldfish', 'Common goldfish']]])
  })

  test('entries that could kill or hurt say so', () => {
    const say = (name: string): BookEntry => entriesNamed(name)[0] as BookEntry
    for (const name of ['Nerite snail', 'Mystery snail', 'Assassin snail', 'Trochus snail']) expect([name, say(name).formalin, say(name).malachiteGreen, say(name).methyleneBlue]).toEqual([name, 'forbidden', 'forbidden', 'forbidden'])
    for (const name of ['Spotted scat', 'Lionfish', 'Pictus catfish', 'Foxface rabbitfish']) expect(say(name).hurts).toContain('venomous')
    for (const name of ['Bronze corydoras', 'Panda corydoras', "Sterba's corydoras"]) expect(say(name).poisons).toBe('its bag')
    for (const name of ['Figure-eight puffer', 'Common seahorse', 'Longhorn cowfish']) expect(say(name).sensitivities).toContain('air')
    for (const name of ['Mandarin dragonet', 'Spotted mandarin', 'Banded pipefish', 'Otocinclus']) expect([say(name).bearsHunger, say(name).firstMealDays]).toEqual(['a day or two', 2])
    expect(say('Kuhli loach').methyleneBlue).toBe('usual')
  })

  test('names of the first edition still find their entry, but for the one that now belongs to another', () => {
    for (const [former, now] of [['Galaxy rasbora', 'Celestial pearl danio'], ['Captive-bred seahorse', 'Common seahorse'], ['Target archerfish', 'Banded archerfish'], ['Puntius titteya', 'Cherry barb'], ['Celestial pearl danio', 'Celestial pearl danio']]) expect(entriesNamed(former ?? '').map(({ name }) => name)).toEqual([now])
    expect(entriesNamed('  BLUE tang ').map(({ name }) => name)).toEqual(['Regal tang', 'Powder blue tang'])
    for (const kinds of ambiguousNames.values()) for (const kind of kinds) expect(speciesBook.some(({ name }) => name === kind)).toBe(true)
    for (const name of ['constructor', '__proto__', '']) expect(entriesNamed(name)).toEqual([])
  })

  test('what earlier editions said is kept only where this one says something else', () => {
    for (const [name, cells] of Object.entries(formerBook)) {
      const entry = speciesBook.find((each) => each.name === name)
      for (const [field, values] of Object.entries(cells)) expect([name, field, values.map((value) => JSON.stringify(value)).includes(JSON.stringify(entry?.[field] ?? null))]).toEqual([name, field, false])
    }
  })
})
