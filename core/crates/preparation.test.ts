import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { standardLimits } from '../limits/houseLimits'
import { speciesBook } from '../species/speciesBook'
import { animalOf } from '../testing/choiceInstance'
import { saltToAddG } from '../water/salt'
import { noHandling } from '../species/handling'
import { planPreparation, type LineBook, type PreparationInput, type PreparedLine, type PreparedPlace } from './preparation'
import { baseUnits, wordFigures } from '../units/units'

const hourMs = 3_600_000
const dueMs = Date.UTC(2031, 4, 4, 9)
const book = (name: string) => animalOf(speciesBook.find((entry) => entry.name === name)!)
const unsaid: LineBook = { firstFoods: null, firstFoodKinds: [], shareSeenPercent: 90, bearsHunger: null, needs: [], escapes: null, law: [], handling: noHandling }
const line = (name: string, count: number, tankId: string | null, more: Partial<PreparedLine> = {}): PreparedLine => ({ id: name, animal: book(name), count, tankId, origin: 'wild', ateBefore: 'mysis', book: unsaid, ...more })
const place = (more: Partial<PreparedPlace> = {}): PreparedPlace => ({ tankId: 'q1', code: 'Q1-01', system: 'Marine quarantine', water: 'marine', tempC: 25, salinityPpt: 34, netVolumeL: 40, isAlone: true, zone: 'Quarantine', toolSets: 'Red nets', ...more })
const input = (more: Partial<PreparationInput> = {}): PreparationInput => ({
  ...{ supplier: 'Pale Harbour', expectedAtMs: dueMs, packedAtMs: dueMs - 20 * hourMs, shipping: { tempC: 24, salinityPpt: 30, ph: 8 } },
  ...{ lines: [line('Royal gramma', 2, 'q1')], places: [place()], tanks: [], foods: [], limits: standardLimits },
  ...more,
})
const said = (more: Partial<PreparationInput> = {}): string[] => planPreparation(input(more)).map(({ what }) => wordFigures(what, () => baseUnits))
const occupied = (name: string) => [{ ...place(), id: 'q1', waterId: 'q1', agents: [], zoneId: null, purpose: null, state: null, fights: 0, occupants: [{ animal: book(name), quantity: 2, supplier: 'x', heldDays: null }] }]

describe('what has to be ready', () => {
  test('a tank with water of its own is brought to the shipping water, with the litres it takes', () => {
    expect(said()).toEqual(expect.arrayContaining(['Q1-01: take out 4.7 L and replace it by fresh water', 'Q1-01 ready at 25 °C, 30 ppt, clean and covered']))
    const saltier = said({ shipping: { tempC: 24, salinityPpt: 36, ph: 8 } })
    expect(saltier).toContain(`Q1-01: add ${Math.round(saltToAddG(40, 34, 36, 25))} g of salt mix`)
  })

  test('shared water, or a tank in which fish stand, stays as it is', () => {
    for (const more of [{ places: [place({ isAlone: false })] }, { tanks: occupied('Banggai cardinalfish') }]) {
      expect(said(more)).toContain('Q1-01 ready at 25 °C, 34 ppt, clean and covered')
      expect(said(more).some((what) => what.includes('take out'))).toBe(false)
    }
  })

  test('a shipping water that a species does not bear is not copied', () => {
    expect(said({ shipping: { tempC: 24, salinityPpt: 18, ph: 8 } })).toContain('Q1-01 ready at 25 °C, 34 ppt, clean and covered')
  })

  test('due times follow from when the crate comes; without one nothing has a time, and that is asked first', () => {
    const steps = planPreparation(input())
    expect(steps.find(({ kind }) => kind === 'water')?.dueAtMs).toBe(dueMs - 24 * hourMs)
    expect(steps.find(({ kind }) => kind === 'tank')?.dueAtMs).toBe(dueMs - 4 * hourMs)
    const open = planPreparation(input({ expectedAtMs: null }))
    expect([open[0]?.what, open.every(({ dueAtMs }) => dueAtMs === null)]).toEqual(['Ask Pale Harbour: when will it be here?', true])
  })

  test.each<[string, Partial<PreparationInput>, string]>([
    ['who fights them leaves first', { tanks: occupied('Royal gramma'), lines: [line('Firefish', 2, 'q1')] }, 'Q1-01: 1 divider or boxes for 2 Firefish'],
    ['its own kind leaves first', { tanks: occupied('Firefish'), lines: [line('Firefish', 1, 'q1')] }, 'Move 2 Firefish out of Q1-01'],
    ['shy fish get hides', { lines: [line('Royal gramma', 2, 'q1', { book: { ...unsaid, shareSeenPercent: 60 } })] }, 'Q1-01: hides for 2 fish'],
    ['the tools of the zone', {}, 'Lay out Red nets'],
    ['a zone without tools', { places: [place({ toolSets: null })] }, 'Mark one tool set for Quarantine: nets, buckets, airline, air stone, thermometer'],
    ['what it ate', {}, 'Have ready: mysis'],
    ['what the book says it eats first', { lines: [line('Royal gramma', 2, 'q1', { ateBefore: null, book: { ...unsaid, firstFoods: 'small frozen' } })] }, 'Have ready: small frozen'],
    ['what is on hand of the kinds it takes', { lines: [line('Royal gramma', 2, 'q1', { ateBefore: null, book: { ...unsaid, firstFoodKinds: ['mysis', 'copepods'] } })], foods: [{ name: 'Frozen mix', servesAs: ['mysis'] }, { name: 'COPEPODS', servesAs: [] }, { name: 'Granules', servesAs: ['granules'] }] }, 'Have ready: Frozen mix, COPEPODS'],
    ['what has to be got where nothing of it is on hand', { lines: [line('Royal gramma', 2, 'q1', { ateBefore: null, book: { ...unsaid, firstFoodKinds: ['mysis', 'copepods'] } })] }, 'Get one of: mysis, copepods'],
    ['small live food at once for those that bear no hunger', { lines: [line('Mandarin dragonet', 1, 'q1', { book: { ...unsaid, bearsHunger: 'a day or two' } })] }, 'Small live food from the first hour, and several times a day'],
    ['land for those that drown', { lines: [line('Dwarf mudskipper', 1, 'q1', { book: { ...unsaid, needs: ['land', 'mature tank'] } })] }, 'Q1-01: land'],
    ['a lid without gaps for those that find them', { lines: [line('Kuhli loach', 6, 'q1', { book: { ...unsaid, needs: ['sand'], escapes: 'gaps' } })] }, 'Q1-01: sand, lid without gaps, drain guarded'],
    ['a tub and two people for what stings', { lines: [line('Spotted scat', 4, 'q1', { book: { ...unsaid, handling: { ...noHandling, hurts: ['venomous'] } } })] }, 'A tub for under water and two people: no net, no bare hand, first aid known'],
    ['a water of its own for what poisons its bag', { lines: [line('Bronze corydoras', 8, 'q1', { book: { ...unsaid, handling: { ...noHandling, poisons: 'its bag' } } })] }, 'A vessel and fresh water of its own for each of these: none of their bag water goes in'],
    ['cups for what must not come into air', { lines: [line('Valentini puffer', 1, 'q1', { book: { ...unsaid, handling: { ...noHandling, sensitivities: ['air'] } } })] }, 'Cups and bags to lead them under water: they never come into air'],
    ['the papers', { lines: [line('Common seahorse', 1, 'q1', { book: { ...unsaid, law: ['CITES'] } })] }, 'Ask Pale Harbour: are the papers with the crate?'],
    ['quiet newcomers are fed apart from bold residents', { tanks: occupied('Valentini puffer'), lines: [line('Firefish', 1, 'q1')] }, 'Q1-01: plan to feed Firefish apart from Valentini puffer'],
    ['the salinity nobody named', { shipping: { tempC: 24, salinityPpt: null, ph: 8 } }, 'Ask Pale Harbour: at which salinity do you ship, read with what?'],
    ['where they come from', { lines: [line('Royal gramma', 2, 'q1', { origin: null })] }, 'Ask Pale Harbour: wild, captive bred or pond raised?'],
  ])('%s', (_, more, what) => expect(said(more)).toContain(what))

  test('salt is not asked of a crate that has no salt-water fish', () => {
    const fresh = said({ lines: [line('Cherry barb', 8, 'r1')], places: [place({ tankId: 'r1', water: 'fresh', salinityPpt: 0 })], shipping: { tempC: 24, salinityPpt: null, ph: 7 } })
    expect([fresh.some((what) => what.includes('salinity')), fresh.some((what) => what.includes('salt mix')), fresh.some((what) => what.startsWith('Fresh water'))]).toEqual([false, false, true])
  })

  test('keys are unique and stay while other lines come and go; figures are finite', () => {
    const names = ['Royal gramma', 'Firefish', 'Cherry barb', 'Knight goby', 'Cleaner shrimp']
    const lines = fc.array(fc.record({ name: fc.constantFrom(...names), count: fc.integer({ min: 1, max: 60 }), tankId: fc.constantFrom(null, 'q1', 'q2') }), { minLength: 1, maxLength: 8 })
    fc.assert(
      fc.property(lines, fc.option(fc.integer({ min: 0, max: 42 }), { nil: null }), (drawn, salinityPpt) => {
        const all = drawn.map(({ name, count, tankId }, index) => ({ ...line(name, count, tankId), id: String(index) }))
        const places = [place(), place({ tankId: 'q2', code: 'Q1-02', salinityPpt: 20, netVolumeL: null })]
        const steps = planPreparation(input({ lines: all, places, shipping: { tempC: null, salinityPpt, ph: null } }))
        const keys = steps.map(({ key }) => key)
        expect([new Set(keys).size, steps.some(({ what }) => /NaN|undefined|Infinity/.test(what))]).toEqual([keys.length, false])
        const fewer = planPreparation(input({ lines: all.slice(0, 1), places, shipping: { tempC: null, salinityPpt, ph: null } })).filter(({ kind }) => kind === 'tank' && all[0]?.tankId)
        for (const { key } of fewer.filter(({ key: each }) => each.endsWith('-ready'))) expect(keys).toContain(key)
      }),
      { numRuns: 300 },
    )
  })
})
