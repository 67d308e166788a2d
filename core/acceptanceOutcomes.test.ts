import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@jest/globals'
import { outcomeAcceptance } from './acceptanceOutcomes'
import { answerOf, casesOf, rounded } from './testing/heldAgainst'

const worked = casesOf(readFileSync(join(__dirname, 'fixtures', 'outcome-cases.json'), 'utf8')).filter(([, fn]) => fn in outcomeAcceptance)

test.each(worked)('%s %s', (_id, fn, { inputs, expected, tolerance }) => {
  expect(rounded(answerOf(outcomeAcceptance, fn, inputs), tolerance)).toEqual(rounded(expected, tolerance))
})
