import { describe, expect, jest, test } from '@jest/globals'
import { ApiProblem, sentenceOf, Unreachable } from './ApiProblem'
import { nowMs, setServerClock } from './clock'
import { newKey } from './newKey'

describe('the clock', () => {
  test('a device an hour off still records the server’s time', () => {
    setServerClock(Date.now() + 3_600_000, false)
    expect(Math.abs(nowMs() - Date.now() - 3_600_000)).toBeLessThan(1000)
  })

  test('a clock that stands still stands still here too', () => {
    setServerClock(5_000, true)
    expect([nowMs(), nowMs()]).toEqual([5_000, 5_000])
    setServerClock(Date.now(), false)
    expect(nowMs()).toBeGreaterThan(5_000)
  })
})

test('how far off this device’s clock is, is known again after a reload, also without the server', async () => {
  const held = new Map<string, string>()
  Object.assign(globalThis, { localStorage: { getItem: (slot: string) => held.get(slot) ?? null, setItem: (slot: string, value: string) => void held.set(slot, value) } })
  setServerClock(Date.now() - 7_200_000, false)
  jest.resetModules()
  const reloaded = await import('./clock')
  expect(Math.abs(reloaded.nowMs() - Date.now() + 7_200_000)).toBeLessThan(1000)
  Reflect.deleteProperty(globalThis, 'localStorage')
})

test('keys are what the server takes, and never the same', () => {
  const keys = Array.from({ length: 2000 }, newKey)
  expect(keys.every((key) => /^[A-Za-z0-9_-]{24}$/.test(key))).toBe(true)
  expect(new Set(keys).size).toBe(2000)
})

test('errors are said in the server’s words, or in plain ones', () => {
  const refused = new ApiProblem({ type: '', code: 'conflict', title: '', status: 409, detail: 'Only 3 are there' })
  expect([sentenceOf(refused), sentenceOf(new Unreachable()), sentenceOf(new TypeError('x is undefined'))]).toEqual([
    'Only 3 are there',
    'The server cannot be reached',
    'Something went wrong in this browser; reload the page',
  ])
})
