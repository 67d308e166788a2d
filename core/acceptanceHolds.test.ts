import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@jest/globals'
import { holdAcceptance } from './acceptanceHolds'
import { answerOf, casesOf, rounded } from './testing/heldAgainst'

const worked = casesOf(readFileSync(join(__dirname, 'fixtures', 'hold-cases.json'), 'utf8')).filter(([, fn]) => fn in holdAcceptance)

test.each(worked)('%s %s', (_id, fn, { inputs, expected, tolerance }) => {
  expect(rounded(answerOf(holdAcceptance, fn, inputs), tolerance)).toEqual(rounded(expected, tolerance))
})
