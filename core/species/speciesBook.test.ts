import { expect, test } from '@jest/globals'
import { registerValuesSchema } from '../setup/registerSchema'
import { speciesBook } from './speciesBook'
import { nameKey } from '../words/nameKey'

test('the book has a hundred and twenty species and more, each once, each as Setup would take it', () => {
  expect(speciesBook.length).toBeGreaterThanOrEqual(120)
  expect(new Set(speciesBook.map(({ name }) => nameKey(name))).size).toBe(speciesBook.length)
  for (const entry of speciesBook) expect(registerValuesSchema('species').validateSync(entry, { strict: true, abortEarly: false })).toEqual(entry)
})

test('waters and salinities do not contradict each other', () => {
  for (const { name, water, salinityPptMin, salinityPptMax } of speciesBook) {
    expect([name, water === 'marine' ? Number(salinityPptMin) >= 20 : Number(salinityPptMin) < 20]).toEqual([name, true])
    expect([name, Number(salinityPptMax) > (water === 'fresh' ? -1 : 5)]).toEqual([name, true])
  }
})
