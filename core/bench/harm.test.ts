import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, test } from '@jest/globals'
import { adviseDeliveryFields, type DeliveryFields } from '../acceptanceDelivery'

interface Case {
  name: string
  why: string
  given: DeliveryFields
  must: { waterClass?: string; ask?: string[]; first?: string; bathWater?: { T?: number; S?: number }; school?: string[] | null; variant?: string; refusals?: { what: string; code: string }[]; says?: string[] }
  never?: { schools?: string[]; variants?: string[]; first?: string[]; says?: string[] }
}
const { cases } = JSON.parse(readFileSync(join(__dirname, '..', 'fixtures', 'harm-cases.json'), 'utf8')) as { cases: Case[] }
const draws = 120

test('there are at least sixty of them, each of another kind', () => expect(new Set(cases.map(({ name }) => name)).size).toBeGreaterThanOrEqual(60))

describe.each(cases.map((each) => [each.name, each.why, each] as const))('%s: %s', (_name, _why, { given, must, never = {} }) => {
  const advice = adviseDeliveryFields(given, draws)
  test('what must be said is said', () => {
    const { school, refusals = [], says = [], ...plain } = must
    expect(advice).toMatchObject(plain)
    if (school === null) expect(advice.school).toBeNull()
    if (school) expect(school).toContain(advice.school)
    for (const refusal of refusals) expect(advice.refusals).toContainEqual(refusal)
    for (const words of says) expect(advice.sentence).toContain(words)
  })
  test('what must never be said is not', () => {
    expect(never.schools ?? []).not.toContain(advice.school)
    expect(never.variants ?? []).not.toContain(advice.variant)
    expect(never.first ?? []).not.toContain(advice.first)
    for (const words of never.says ?? []) expect(advice.sentence).not.toContain(words)
    expect(advice.sentence).not.toMatch(/NaN|undefined|null|Infinity/)
  })
})
