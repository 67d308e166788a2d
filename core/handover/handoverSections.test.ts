import { expect, test } from '@jest/globals'
import { lookAt, tankFacts } from '../testing/factsOf'
import { handoverSections, type Happened, type MovedFish } from './handoverSections'

const nothing: Happened = { moved: [], tanks: [], pins: [], runs: [], chores: [], fed: [], against: [], written: [] }
const fish = (change: Partial<MovedFish>): MovedFish => ({ kind: 'move', quantity: 1, species: 'Cherry barb', from: 'R1-01', to: 'R1-02', cause: null, reason: null, by: 'Oona', ...change })
const said = (happened: Partial<Happened>, sinceMs = 0) => handoverSections({ ...nothing, ...happened }, sinceMs).map(({ title, rows }) => [title, rows.map(({ words, detail }) => (detail === null ? words : `${words} | ${detail}`))])

test('nothing happened: nothing is read', () => {
  expect(said({})).toEqual([])
})

test('deaths stand first, once for each tank and kind, with their causes and who found them', () => {
  const moved = [fish({ kind: 'loss', quantity: 2, to: null, cause: 'found dead' }), fish({ kind: 'loss', to: null, cause: 'jumped', by: 'Teodor' }), fish({ kind: 'dead-in-bag', from: null, to: null, species: 'Kuhli loach' }), fish({ kind: 'move', quantity: 4 })]
  expect(said({ moved })).toEqual([
    ['Lost', ['R1-01: 3 Cherry barb | found dead, jumped; Oona, Teodor', 'in bags: 1 Kuhli loach | dead in the bag; Oona']],
    ['Fish that came, moved, left', ['R1-01 to R1-02: 4 Cherry barb | Oona']],
  ])
})

test('fish that came, left and were counted are a line for each of these, not for each movement', () => {
  const moved = [
    ...[fish({ kind: 'arrive', from: null, to: 'R1-01', quantity: 6 }), fish({ kind: 'arrive', from: null, to: 'R1-01', quantity: 6 }), fish({ kind: 'arrive', from: null, to: null, quantity: 40 })],
    ...[fish({ kind: 'release', to: null, quantity: 2, reason: 'sold' }), fish({ kind: 'release', to: null, quantity: 3, reason: 'sold', by: 'Teodor' }), fish({ kind: 'count-correction', to: null, quantity: 1 }), fish({ kind: 'count-correction', from: null, to: 'R1-04', quantity: 2 })],
  ]
  expect(said({ moved })).toEqual([['Fish that came, moved, left', ['12 fish came | R1-01 12 Cherry barb', '5 fish sold | Oona, Teodor', 'R1-01 counted: −1 Cherry barb | Oona', 'R1-04 counted: +2 Cherry barb | Oona']]])
})

test('of looks only what is not well is told, only since then, and the same once', () => {
  const looks = [lookAt({ recordedAtMs: 30, signs: ['pale'], note: 'odd' }), lookAt({ recordedAtMs: 20, ate: 'none', signs: ['pale'] }), lookAt({ recordedAtMs: 15 }), lookAt({ recordedAtMs: 5, signs: ['spots'] })]
  const decisions = [{ id: 'd', sign: 'spots' as const, lotId: null, as: 'dismissed' as const, severity: 1, firstMs: 0, lastMs: 0, untilMs: null, note: 'a scrape', by: 'Imre', atMs: 12 }]
  expect(said({ tanks: [tankFacts({ looks, decisions }), tankFacts({ code: 'R1-02', looks: [lookAt({ recordedAtMs: 40 })] })] }, 10)).toEqual([
    ['Seen at tanks', ['R1-01: pale; “odd”; ate none']],
    ['Decided about signs', ['R1-01: spots dismissed | Imre: a scrape']],
  ])
})

test('the bench, the kitchen, chores and what else was written follow, in words', () => {
  expect(
    said({
      runs: [{ id: '1', number: 3, species: 'Silver mono', isEnded: true, by: 'Oona' }],
      fed: [{ feed: 'morning feed', on: '2031-05-04', racks: 9, by: 'Teodor' }],
      chores: [{ chore: 'Filter bags', place: 'R1', by: 'Oona' }, { chore: 'Filter bags', place: 'M1', by: 'Oona' }],
      pins: [{ tankCode: 'R1-02', words: 'new heater', by: 'Oona' }],
      against: [{ words: 'splash', to: '/contacts', by: 'Oona' }],
      written: [{ name: 'recordBags', times: 9 }, { name: 'createCrate', times: 1 }, { name: 'recordCheck', times: 40 }],
    }),
  ).toEqual([
    ['Against a rule', ['splash | Oona']],
    ['Notes on the glass', ['R1-02: new heater | Oona']],
    ['On the bench', ['run 3 ended: Silver mono | Oona']],
    ['Kitchen and chores', ['morning feed: 9 racks fed | Teodor', 'Filter bags: R1, M1 | Oona']],
    ['Also written', ['bags opened, in 9 entries', '1 crate announced']],
  ])
})
