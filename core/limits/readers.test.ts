import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@jest/globals'
import { houseLimitKeys } from './houseLimits'

/** What the program is made of, without its tests and without the list of limits itself; which limits a function takes is no reading of them. */
const sources = ['core', 'server', 'web']
  .flatMap((root) => readdirSync(root, { recursive: true, encoding: 'utf8' }).map((name) => join(root, name)))
  .filter((file) => /\.tsx?$/.test(file) && !/\.test\.tsx?$/.test(file) && !file.endsWith('houseLimits.ts'))
  .map((file) => readFileSync(file, 'utf8').replace(/Pick<Limits,[^>]*>/g, ''))
  .join('\n')

test.each(houseLimitKeys)('the house limit %s is read by something: a number that changes nothing is worse than none', (key) => {
  expect(sources).toMatch(new RegExp(`\\b${key}\\b`))
})
