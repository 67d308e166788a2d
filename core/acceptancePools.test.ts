import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@jest/globals'
import { poolAcceptance } from './acceptancePools'
import { answerOf, casesOf, rounded } from './testing/heldAgainst'

test.each(casesOf(readFileSync(join(__dirname, 'fixtures', 'pool-cases.json'), 'utf8')))('%s %s', (_id, fn, { inputs, expected }) => {
  expect(rounded(answerOf(poolAcceptance, fn, inputs))).toEqual(rounded(expected))
})
