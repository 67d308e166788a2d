import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@jest/globals'
import { moveAcceptance } from './acceptanceMoves'

interface Case {
  id: string
  fn: string
  inputs: unknown
  expected: unknown
}
const cases = JSON.parse(readFileSync(join(__dirname, 'fixtures', 'move-cases.json'), 'utf8')) as Case[]

/** Figures as near as the worked cases promise (1e-6), everything else as it is. */
const rounded = (value: unknown): unknown => JSON.parse(JSON.stringify(value, (_key, each: unknown) => (typeof each === 'number' ? Math.round(each * 1e6) / 1e6 : each)))

test.each(cases.map((each) => [each.id, each.fn, each] as const))('%s %s', (_id, fn, { inputs, expected }) => {
  expect(rounded((moveAcceptance as unknown as Record<string, (inputs: unknown) => unknown>)[fn]?.(inputs))).toEqual(rounded(expected))
})
