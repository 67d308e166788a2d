import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, test } from '@jest/globals'
import { acceptance } from './acceptance'

const fixture = <T>(name: string): T => JSON.parse(readFileSync(join(__dirname, 'fixtures', name), 'utf8')) as T
type Call = (input: unknown) => unknown
const call = (name: string, input: unknown): unknown => {
  const [fn = '', ...path] = name.split('.')
  return path.reduce((value: unknown, key) => (value as Record<string, unknown>)[key], (acceptance as unknown as Record<string, Call>)[fn]?.(input))
}

// Values as printed, seven digits; the published ones among them stand beside their formulas in docs/science.md.
const rows = fixture<{ call: string; input: unknown; value: number }[]>('science-rows.json')
test.each(rows.map(({ call: name, input, value }) => [name, JSON.stringify(input).slice(0, 90), input, value] as const))('%s of %s', (name, _words, input, value) => {
  const got = call(name, input) as number
  // Seven printed digits; a simulated figure may move in the sixth with the arithmetic of the machine.
  const digits = name.startsWith('vessel') || name.startsWith('shrink') ? 2e-5 : 6e-7
  expect(Math.abs(got - value)).toBeLessThanOrEqual(digits * Math.abs(value) + 1e-9)
})

interface Method {
  name: string
  phases: unknown[]
  expected: Record<string, number | 'never'>
}
interface Case {
  case: string
  bag: unknown
  opening: Record<string, number>
  start: unknown
  tank: unknown
  options: unknown
  methods: Method[]
}

describe.each(fixture<Case[]>('science-cases.json').map((each) => [each.case, each] as const))('%s', (_name, { bag, opening, start, tank, options, methods }) => {
  test('the bag at opening', () => {
    const got = acceptance.bag(bag as never) as Record<string, number>
    for (const [field, value] of Object.entries(opening)) expect([field, Math.abs((got[field] ?? NaN) / value - 1) < 0.02]).toEqual([field, true])
  })
  test.each(methods.map((method) => [method.name, method] as const))('%s', (_method, { phases, expected }) => {
    const got = acceptance.vessel({ start, tank, phases, options } as never) as unknown as Record<string, number>
    for (const [field, value] of Object.entries(expected)) {
      if (value === 'never') expect([field, got[field]]).toEqual([field, Infinity])
      else expect([field, got[field], Math.abs((got[field] ?? NaN) - value) <= 0.02 * Math.abs(value) + 1e-6]).toEqual([field, got[field], true])
    }
  })
})
