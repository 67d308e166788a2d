import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@jest/globals'
import { roundAcceptance } from './acceptanceRounds'

interface Case {
  id: string
  fn: string
  inputs: unknown
  expected: unknown
  tolerance?: number
}
const cases = JSON.parse(readFileSync(join(__dirname, 'fixtures', 'round-cases.json'), 'utf8')) as Case[]

/** Walks of more than twelve tanks are held to five in a hundred, everything else to the digits of the worked cases. */
const searched = (fn: string, expected: unknown): expected is { seconds: number } => fn === 'roundOrder' && (expected as { isExact: boolean }).isExact === false

test.each(cases.map((each) => [each.id, each.fn, each] as const))('%s %s', (_id, fn, { inputs, expected, tolerance = 1e-6 }) => {
  const rounded = (value: unknown): unknown => JSON.parse(JSON.stringify(value, (_key, each: unknown) => (typeof each === 'number' ? Math.round(each / tolerance) * tolerance : each)))
  const answer = (roundAcceptance as unknown as Record<string, (inputs: unknown) => unknown>)[fn]?.(inputs)
  if (!searched(fn, expected)) return expect(rounded(answer)).toEqual(rounded(expected))
  const { seconds, ...rest } = answer as { seconds: number }
  expect(rest).toEqual({ isValid: true, isExact: false })
  expect(seconds).toBeLessThanOrEqual(expected.seconds * 1.05)
})
