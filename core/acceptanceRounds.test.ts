import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@jest/globals'
import { roundAcceptance } from './acceptanceRounds'
import { answerOf, casesOf, rounded } from './testing/heldAgainst'

/** Walks of more than twelve tanks are held to five in a hundred, everything else to the digits of the worked cases. */
const searched = (fn: string, expected: unknown): expected is { seconds: number } => fn === 'roundOrder' && (expected as { isExact: boolean }).isExact === false

test.each(casesOf(readFileSync(join(__dirname, 'fixtures', 'round-cases.json'), 'utf8')))('%s %s', (_id, fn, { inputs, expected, tolerance }) => {
  const answer = answerOf(roundAcceptance, fn, inputs)
  if (!searched(fn, expected)) return expect(rounded(answer, tolerance)).toEqual(rounded(expected, tolerance))
  const { seconds, ...rest } = answer as { seconds: number }
  expect(rest).toEqual({ isValid: true, isExact: false })
  expect(seconds).toBeLessThanOrEqual(expected.seconds * 1.05)
})
