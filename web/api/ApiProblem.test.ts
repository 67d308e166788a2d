import { describe, expect, test } from '@jest/globals'
import { ApiProblem, currentOf, sentenceOf, Unreachable } from './ApiProblem'

const problem = (code: 'stale' | 'conflict', current?: unknown): ApiProblem => new ApiProblem({ type: 'about:blank', title: code, code, status: 409, detail: 'Somebody else changed this meanwhile', ...(current === undefined ? {} : { current }) })

describe('what the server refused', () => {
  test('is said in its own words; what broke here is not blamed on it', () => {
    expect([sentenceOf(problem('conflict')), sentenceOf(new Unreachable()), sentenceOf(new TypeError('x is undefined'))]).toEqual(['Somebody else changed this meanwhile', 'The server cannot be reached', 'Something went wrong in this browser; reload the page'])
  })
  test('a stale save hands over what stands there now; anything else is thrown on', () => {
    expect(currentOf(problem('stale', { version: 3 }))).toEqual({ version: 3 })
    for (const error of [problem('conflict'), new Unreachable(), new Error('else')]) expect(() => currentOf(error)).toThrow(error)
  })
})
