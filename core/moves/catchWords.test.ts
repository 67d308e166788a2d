import { expect, test } from '@jest/globals'
import { catchCard, type Catching } from './catchCard'
import { catchWords, gearWords, tipWords } from './catchWords'

const nets = [{ id: 'Green nets', widthCm: 20, mesh: 'medium' as const }]
const card = (more: Partial<Catching> = {}) => catchCard({ fish: { lengthCm: 4 }, tank: { widthCm: 40, heightCm: 35 }, inTank: 14, want: 5, nets, ...more })

test('what to take is said with the house’s own net, or that none of it fits', () => {
  expect(gearWords(card())).toBe('Green nets: a net with medium mesh or finer, 12 cm or wider')
  expect(gearWords(card({ nets: [] }))).toBe('A net with medium mesh or finer, 12 cm or wider; none of the house fits')
  expect(gearWords(card({ fish: { lengthCm: 4, fins: 'long' } }))).toBe('Cup, under water')
  expect(gearWords(card({ fish: { lengthCm: 20, spines: true } }))).toBe('Bag, led under water')
})

test('what is to be expected is one sentence, and no certainty', () => {
  expect(catchWords(card(), 5)).toMatch(/^About 1 lift; nearly sure that all 5 are caught today\.$/)
  expect(catchWords(card({ liftsToday: 5 }), 5)).toBe('Not today: the tank has learned enough. A fresh day catches more.')
  expect(catchWords(card({ want: 20 }), 20)).toBe('So many do not stand there.')
  expect(tipWords(card())).toContain('Count in the net, under water; let the surplus out before lifting.')
})
